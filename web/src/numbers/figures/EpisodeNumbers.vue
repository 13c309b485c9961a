<script setup lang="ts">
import { computed, onMounted, shallowRef } from 'vue'
import { type AgeNumbers, comparedAges, type EpisodeComparison, type Heard } from '@contract/numbers'
import { fewestShown } from '@core/counting/shown'
import type { Show } from '@contract/shows'
import { useAttempt } from '../../platform/parts/attempt'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import FirstDays from './FirstDays.vue'
import HeardFigure from './HeardFigure.vue'
import { t } from './messages'
import { useNumbers } from './numbers'
import { whole } from './words'

/** An episode's own numbers, on its desk: three figures and the curve. */
const props = defineProps<{ show: Show; episodeId: string }>()
const store = useNumbers()
const numbers = shallowRef<AgeNumbers | null>(null)
const heard = shallowRef<Heard | null>(null)
const ages = shallowRef<EpisodeComparison['episodes'][number] | null>(null)
const { problem, attempt } = useAttempt(t('numbersStillHere'))
onMounted(() =>
  attempt(async () => {
    const [own, compared] = await Promise.all([
      store.ofEpisode(props.episodeId),
      store.compare(props.show.id, [props.episodeId]),
    ])
    numbers.value = own.numbers
    heard.value = own.heard
    ages.value = compared.episodes[0] ?? null
  }),
)
/** The first day, the first week, and all. */
const figures = computed(() => {
  const of = (days: (typeof comparedAges)[number]): number | null =>
    ages.value?.after[comparedAges.indexOf(days)] ?? null
  return [
    { name: t('onFirstDay'), downloads: of(1) },
    { name: t('inFirstWeek'), downloads: of(7) },
    { name: t('inAllShort'), downloads: ages.value?.total ?? null },
  ]
})
</script>

<template>
  <div class="spaced gap-4">
    <ProblemNote v-if="problem" :problem="problem" />
    <LoadingShape v-else-if="!numbers" :what="t('theNumbers')" :lines="4" />
    <template v-else>
      <dl class="three">
        <div v-for="{ name, downloads } in figures" :key="name">
          <dt class="quiet small">{{ name }}</dt>
          <dd class="figures">{{ downloads === null ? t('notYet') : whole(downloads) }}</dd>
        </div>
      </dl>
      <FirstDays :numbers="numbers" />
      <HeardFigure v-if="heard" :heard="heard" :title="t('howFarHeard')" :dated="numbers.episode.title" />
      <p v-else class="quiet small">{{ t('heardByTooFew', { count: fewestShown }) }}</p>
      <p class="actions small">
        <RouterLink
          :to="{ name: 'numbers', params: { show: show.slug }, query: { episode: episodeId, period: 'all' } }"
          >{{ t('allNumbers') }}</RouterLink
        >
      </p>
    </template>
  </div>
</template>

<style scoped>
.three {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-5);
  margin: 0;
}
.three dd {
  margin: 0;
  font-family: var(--serif);
  font-size: var(--text-xl);
}
</style>
