<script setup lang="ts">
import { ref, shallowRef, watch } from 'vue'
import type { FeedComparisonView } from '@contract/feed'
import type { Episode } from '@contract/episodes'
import FeedComparisonWords from '../../feed/feeds/FeedComparisonWords.vue'
import { useFeed } from '../../feed/feeds/feed'
import SmallOverlay from '../../platform/parts/SmallOverlay.vue'
import { t } from './messages'

/** What becomes another thing for listeners when the changes are sent; laid beside what they have by a press. */
const props = defineProps<{ episode: Episode }>()
const feed = useFeed()
const change = shallowRef<FeedComparisonView | null>(null)
const compared = ref<InstanceType<typeof SmallOverlay>>()
watch(
  () => [props.episode.id, props.episode.version] as const,
  async ([id, version]) => {
    const told = await feed.changeOf(id).catch(() => null)
    if (props.episode.id === id && props.episode.version === version) change.value = told
  },
  { immediate: true },
)
</script>

<template>
  <span v-if="change" class="small">
    {{ change.words.join(' ') }}
    <button type="button" class="small-button" aria-haspopup="dialog" @click="event => compared!.toggle(event)">
      {{ t('compare') }}
    </button>
    <SmallOverlay ref="compared" :label="t('whatChanges')" class="change-to-send">
      <FeedComparisonWords :comparison="change.comparison" />
    </SmallOverlay>
  </span>
</template>

<style>
.change-to-send {
  max-width: min(36rem, 92vw);
  max-height: 60vh;
  overflow: auto;
}
</style>
