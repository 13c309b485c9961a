<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useSound } from '../sound/sound'
import UploadProgress from '../uploads/UploadProgress.vue'
import { useUploads } from '../uploads/uploads'
import { t } from './messages'

/** Files on their way to be parts of what the episode is put together of, sent by this window or another one. */
const props = defineProps<{ episodeId: string }>()
const sounds = useSound()
const uploads = useUploads()
const sendings = computed(() => uploads.partsFor(props.episodeId))
/** Of what this window sends it knows more itself. */
const others = computed(() =>
  (sounds.sound?.arriving ?? []).filter(({ fileName }) => sendings.value.every(each => each.fileName !== fileName)),
)
</script>

<template>
  <template v-for="each in sendings" :key="each.id">
    <ProblemNote
      v-if="each.state === 'refused'"
      :problem="{ ...each.problem!, title: `${each.fileName}: ${each.problem!.title}` }"
    >
      <Button type="button" size="small" outlined :label="t('tryAgain')" @click="uploads.retry(each.id)" />
      <Button type="button" size="small" text :label="t('cancel')" @click="uploads.cancel(each.id)" />
    </ProblemNote>
    <UploadProgress
      v-else
      :sending="each"
      @pause="uploads.pause(each.id)"
      @go-on="uploads.goOn(each.id)"
      @cancel="uploads.cancel(each.id)"
    />
  </template>
  <template v-for="{ id, fileName, refusal } in others" :key="id">
    <ProblemNote v-if="refusal" :problem="{ ...refusal, title: `${fileName}: ${refusal.title}` }" />
    <p v-else class="small quiet" role="status">{{ t('isOnItsWay', { name: fileName }) }}</p>
  </template>
</template>
