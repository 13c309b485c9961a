<script setup lang="ts">
import { computed } from 'vue'
import type { EpisodeSummary } from '@contract/episodes'
import { beforeMs } from '@core/release/notices'
import { hindranceWords } from '@core/release/readiness'
import { useNow } from '../../platform/time/now'
import { shortMoment, untilThen } from '../../platform/time/times'
import { locale } from '../../platform/messages'
import { t } from './messages'

/** What needs the person now: what was held, and what goes out within a day and could not as it is. */
const props = defineProps<{ show: string; zone: string; coming: readonly EpisodeSummary[] }>()
const now = useNow()
const list = new Intl.ListFormat(locale)
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
  <ul v-if="waiting.length" class="needs unlisted spaced" :aria-label="t('needsYouNow')">
    <li v-for="{ id, title, releaseAt, isHeld, lacks } in waiting" :key="id" class="note needs-you">
      <RouterLink :to="{ name: 'desk', params: { show, id } }">{{ title }}</RouterLink>{{ ' '
      }}<strong>{{ lacks }}.</strong>{{ ' ' }}
      <template v-if="isHeld">{{ t('dueAndHeld', { moment: shortMoment(releaseAt!, zone) }) }}</template>
      <template v-else>{{ t('dueIn', { when: untilThen(releaseAt!, now) }) }}</template>
    </li>
  </ul>
</template>
