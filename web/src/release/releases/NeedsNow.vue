<script setup lang="ts">
import { computed } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import { beforeMs } from '@core/release/notices'
import { hindranceWords } from '@core/release/readiness'
import { useNow } from '../../platform/time/now'
import { shortMoment, untilThen } from '../../platform/time/times'

/** What needs the person now: what was held, and what goes out within a day and could not as it is. */
const props = defineProps<{ show: string; zone: string; coming: readonly EpisodeSummary[] }>()
const now = useNow()
const list = new Intl.ListFormat('en-GB')
const waiting = computed(() =>
  props.coming
    .filter(
      ({ hindrances, releaseAt }) =>
        hindrances.length > 0 && +new Date(releaseAt!) <= +now.value + beforeMs['day before'],
    )
    .map(episode => ({
      ...episode,
      isHeld: new Date(episode.releaseAt!) <= now.value,
      lacks: list.format(episode.hindrances.map(each => hindranceWords[each])),
    })),
)
</script>

<template>
  <ul v-if="waiting.length" class="needs unlisted spaced" aria-label="Needs you now">
    <li v-for="{ id, title, releaseAt, isHeld, lacks } in waiting" :key="id" class="note needs-you">
      <RouterLink :to="{ name: 'desk', params: { show, id } }">{{ title }}</RouterLink>{{ ' '
      }}<strong>{{ lacks }}.</strong>{{ ' ' }}
      <template v-if="isHeld"
        >It was due {{ shortMoment(releaseAt!, zone) }} and is held; it will be released as soon as that is
        fixed.</template
      >
      <template v-else>It is due {{ untilThen(releaseAt!, now) }}.</template>
    </li>
  </ul>
</template>
