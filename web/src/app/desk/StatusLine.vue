<script setup lang="ts">
import { computed } from 'vue'
import type { Episode } from '@contract/episodes'
import LetterGlyph from '../../platform/parts/LetterGlyph.vue'
import { datedMoment, timesThere, untilThen } from '../../platform/time/times'
import { useNow } from '../../platform/time/now'
import { t } from './messages'

/** Where the episode stands, in words. */
const props = defineProps<{ episode: Episode; zone: string; listenerZones: readonly string[] }>()
const now = useNow()

const words = computed(() => {
  const { status, releaseAt, changedSinceRelease } = props.episode
  const when = releaseAt ? `${datedMoment(releaseAt, props.zone)} (${props.zone})` : ''
  const there = releaseAt ? timesThere(releaseAt, props.zone, props.listenerZones) : ''
  switch (status) {
    case 'draft':
      return { name: t('draft'), rest: t('draftTells') }
    case 'scheduled':
      if (new Date(releaseAt!) <= now.value)
        return {
          name: t('scheduled'),
          rest: t('dueTells', { when, ago: untilThen(releaseAt!, now.value) }),
        }
      return {
        name: t('scheduled'),
        rest: t('scheduledTells', {
          when,
          until: untilThen(releaseAt!, now.value),
          there,
          isThere: there ? 'yes' : 'no',
        }),
      }
    case 'released':
      return {
        name: t('released'),
        rest: t(changedSinceRelease ? 'changedTells' : 'releasedTells', { when }),
      }
    default:
      return { name: t('retired'), rest: t('retiredTells', { when }) }
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
