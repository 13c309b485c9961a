<script setup lang="ts">
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { reactive } from 'vue'
import type { Show } from '@contract/shows'
import { shareFields, type SharePlace, sharePlaces, shareTextFault } from '@core/sharing/texts'
import FormField from '../../platform/parts/FormField.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { useAttempt } from '../../platform/parts/attempt'
import { useShows } from '../../show/shows/shows'
import { t } from './messages'

/** The show's own words for each place, with fields for what differs. */
const props = defineProps<{ show: Show }>()
const emit = defineEmits<{ saved: [] }>()
const shows = useShows()
const texts = reactive({ ...props.show.shareTexts })
const { problem, busy, attempt } = useAttempt(t('unsavedWordsHere'))
const names: Readonly<Record<SharePlace, string>> = {
  post: t('aPost'),
  forum: t('aForum'),
  mail: t('mailWithSubject'),
}

const fieldWords = shareFields.map(name => `{${name}}`).join(' ')

async function save(): Promise<void> {
  const change = { version: props.show.version, shareTexts: { ...texts } }
  if (await attempt(() => shows.change(props.show.id, change))) emit('saved')
}
</script>

<template>
  <form class="spaced gap-3" @submit.prevent="save">
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="small quiet">{{ t('templatesHint', { fields: fieldWords }) }}</p>
    <FormField
      v-for="place in sharePlaces"
      :key="place"
      v-slot="{ id }"
      :label="names[place]"
      :fault="shareTextFault(texts[place]) ?? undefined"
    >
      <Textarea :id="id" v-model="texts[place]" rows="4" auto-resize maxlength="2000" />
    </FormField>
    <Button
      type="submit"
      :label="t('useTheseTexts')"
      :loading="busy"
      :disabled="sharePlaces.some(place => shareTextFault(texts[place]) !== null)"
    />
  </form>
</template>
