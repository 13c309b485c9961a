<script setup lang="ts">
import { computed } from 'vue'
import type { Episode } from '@contract/episodes'
import LetterGlyph from '../../platform/parts/LetterGlyph.vue'
import { datedMoment, timesThere, untilThen } from '../../platform/time/times'
import { useNow } from '../../platform/time/now'

/** Where the episode stands, in words. */
const props = defineProps<{ episode: Episode; zone: string; listenerZones: readonly string[] }>()
const now = useNow()

const words = computed(() => {
  const { status, releaseAt, changedSinceRelease } = props.episode
  const when = releaseAt ? `${datedMoment(releaseAt, props.zone)} (${props.zone})` : ''
  const there =
    releaseAt && props.listenerZones.length > 0 ? ` ${timesThere(releaseAt, props.zone, props.listenerZones)}.` : ''
  switch (status) {
    case 'draft':
      return { name: 'Draft', rest: 'Only you can see it. It is not in the feed.' }
    case 'scheduled':
      if (new Date(releaseAt!) <= now.value)
        return {
          name: 'Scheduled',
          rest: `Was due ${when}, ${untilThen(releaseAt!, now.value)}. Not in the feed yet.`,
        }
      return {
        name: 'Scheduled',
        rest: `${when}, ${untilThen(releaseAt!, now.value)}.${there}`,
      }
    case 'released':
      return {
        name: 'Released',
        rest: `In the feed since ${when}.${changedSinceRelease ? ' Your changes are not published.' : ''}`,
      }
    default:
      return { name: 'Retired', rest: `It was in the feed, from ${when}, and was taken out.` }
  }
})
</script>

<template>
  <p class="status flex gap-2 items-start" data-testid="status">
    <LetterGlyph :status="episode.status" />
    <span
      ><strong>{{ words.name }}.</strong> {{ words.rest }}</span
    >
  </p>
</template>
