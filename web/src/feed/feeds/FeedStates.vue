<script setup lang="ts">
import { ref, shallowRef } from 'vue'
import type { FeedOverview, FeedComparisonView } from '@contract/feed'
import type { Show } from '@contract/shows'
import { isMoreThanComing } from '@core/feed/compare'
import { amount } from '@core/words/amounts'
import { shortMoment } from '../../platform/time/times'
import FeedComparisonWords from './FeedComparisonWords.vue'
import { useFeed } from './feed'
import { t } from './messages'

/** What became of the feed, the newest first; each state can be laid beside the one before. */
const props = defineProps<{ states: FeedOverview['states']; show: Show }>()
const feed = useFeed()
const opened = ref<string | null>(null)
const compared = shallowRef<FeedComparisonView | null>(null)
async function open(id: string): Promise<void> {
  compared.value = null
  opened.value = opened.value === id ? null : id
  if (opened.value) compared.value = await feed.stateOf(props.show.id, id).catch(() => null)
}
const hasMore = (at: number): boolean =>
  at < props.states.length - 1 && (props.states[at]!.words.length === 0 || isMoreThanComing(props.states[at]!.words))
</script>

<template>
  <ol class="states unlisted grid">
    <li v-for="(state, at) in states" :key="state.id">
      <p class="small quiet tabular-nums">{{ shortMoment(state.at, show.zone) }} · {{ amount(state.bytes) }}</p>
      <div class="what apart gap-x-3 gap-y-0">
        <p>{{ state.words.join(' ') }}</p>
        <button
          v-if="hasMore(at)"
          type="button"
          class="small-button"
          :aria-expanded="opened === state.id"
          @click="open(state.id)"
        >
          {{ opened === state.id ? t('hide') : t('compare') }}
        </button>
        <FeedComparisonWords v-if="opened === state.id && compared" :comparison="compared.comparison" />
      </div>
    </li>
  </ol>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 12rem minmax(0, 1fr);
  gap: var(--space-3);
  padding: var(--space-2) 0;
  border-top: 1px solid var(--edge);
}
.what > :deep(.compared) {
  flex: 1 0 100%;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
</style>
