<script setup lang="ts">
import { X } from '@lucide/vue'
import { computed, ref } from 'vue'
import type { PictureSubject } from '@contract/shows'
import IconButton from '../../platform/parts/IconButton.vue'
import { useShows } from './shows'
import { problemOf } from '../../platform/parts/problems'
import { t } from './messages'

/** A small picture that can be brought, changed and taken away: of a person, of a chapter, for the top of pages. */
const pictureId = defineModel<string | null>({ required: true })
const props = defineProps<{ of: PictureSubject; name: string }>()
const emit = defineEmits<{ problem: [words: string] }>()
const shows = useShows()
const input = ref<HTMLInputElement>()
const busy = ref(false)
const address = computed(() => pictureId.value && `/api/v1/pictures/${pictureId.value}.jpg`)

async function bring(): Promise<void> {
  const file = input.value?.files?.[0]
  input.value!.value = ''
  if (!file) return
  busy.value = true
  emit('problem', '')
  try {
    pictureId.value = (await shows.addSmallPicture(file, props.of)).id
  } catch (error) {
    emit('problem', `${file.name}: ${problemOf(error, t('pictureNotSent')).detail}`)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <span class="inline-flex gap-1 items-center">
    <button
      type="button"
      class="frame quiet"
      :class="{ round: of === 'person' }"
      :disabled="busy"
      :aria-label="address ? t('otherPictureOf', { name }) : t('pictureOf', { name })"
      :title="address ? t('chooseAnotherPicture') : t('choosePictureFormats')"
      @click="input?.click()"
    >
      <img v-if="address" :src="address" alt="" />
      <span v-else aria-hidden="true">{{ busy ? '…' : '+' }}</span>
    </button>
    <IconButton v-if="address" :name="t('removePictureOf', { name })" :icon="X" @click="pictureId = null" />
    <input
      ref="input"
      class="out-of-sight"
      type="file"
      accept="image/jpeg,image/png,image/webp"
      tabindex="-1"
      :aria-label="t('pictureFileOf', { name })"
      @change="bring"
    />
  </span>
</template>

<style scoped>
.frame {
  display: grid;
  place-items: center;
  width: max(32px, var(--target));
  height: max(32px, var(--target));
  padding: 0;
  border: 1px dashed var(--edge-strong);
  border-radius: var(--round);
  background: none;
  overflow: hidden;
  cursor: pointer;
}
.frame.round {
  border-radius: 50%;
}
img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
</style>
