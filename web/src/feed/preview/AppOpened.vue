<script setup lang="ts">
import type { Preview } from '@contract/preview'
import { clock } from '@core/words/amounts'
import { shortDay } from '../../platform/time/times'
import { t } from './messages'

/** The episode opened in a listening app: every one draws the notes in its own way, with no more than these forms. */
defineProps<{ seen: Preview; zone: string }>()
const kinds = { full: '', trailer: t('trailer'), bonus: t('bonus') } as const
</script>

<template>
  <article class="boxed p-4">
    <header>
      <img class="rounded" :src="seen.artworkAddress" alt="" width="96" height="96" />
      <div>
        <p class="small quiet">{{ seen.show.name }}</p>
        <h3 dir="auto">{{ seen.title || t('untitledEpisode') }}</h3>
        <p class="small quiet figures">
          {{ seen.at ? shortDay(seen.at, zone) : t('dayOfRelease')
          }}<template v-if="seen.durationMs !== null"> · {{ clock(seen.durationMs) }}</template
          ><template v-if="seen.season !== null"> · {{ t('seasonNumber', { number: seen.season }) }}</template
          ><template v-if="seen.number !== null"> · {{ t('episodeNumber', { number: seen.number }) }}</template
          ><template v-if="kinds[seen.kind]"> · {{ kinds[seen.kind] }}</template
          ><template v-if="seen.explicit"> · {{ t('explicitInSentence') }}</template> ·
          {{ t('byAuthor', { author: seen.author }) }}
        </p>
      </div>
    </header>
    <!-- eslint-disable-next-line vue/no-v-html -- cleaned by core/notes before it was kept -->
    <div v-if="seen.notesHtml" class="notes wrap-anywhere" dir="auto" v-html="seen.notesHtml" />
    <p v-else class="quiet">{{ t('noNotes') }}</p>
  </article>
</template>

<style scoped>
header {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: var(--space-4);
  align-items: start;
  margin-block-end: var(--space-3);
}
h3 {
  font: 600 var(--text-l) / 1.3 var(--sans);
  overflow-wrap: anywhere;
}
.notes :deep(p) {
  margin: 0 0 var(--space-3);
}
</style>
