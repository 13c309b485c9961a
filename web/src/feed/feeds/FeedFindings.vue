<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { FoundEpisode, FeedFindingView } from '@contract/feed'
import type { ShowFix } from '@core/feed/rules/rule'
import { severityNames } from '@core/words/severity'
import FoldPanel from '../../platform/parts/FoldPanel.vue'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { problemOf, type ShownProblem } from '../../platform/parts/problems'
import { useShows } from '../../show/shows/shows'
import SaveOutlook from './SaveOutlook.vue'
import { useFeed } from './feed'
import { wayTo } from './places'
import { t } from './messages'

/**
 * What was found in a feed, the gravest first, each with where it is and how it is mended, by a press where that can be; what is
 * well is one line.
 */
const props = defineProps<{ findings: readonly FeedFindingView[]; rules: number; show: string; isOurs: boolean }>()
const emit = defineEmits<{ fixed: [] }>()
const well = computed(() => props.rules - props.findings.length)
const shown = 5
const named = ({ item }: FeedFindingView['places'][number]): string =>
  item?.title || t('itemNumber', { number: (item?.index ?? 0) + 1 })
const way = (finding: FeedFindingView, episode: FoundEpisode | null) =>
  props.isOurs ? wayTo(finding.place, props.show, episode?.id ?? null) : null

const [router, shows, feed] = [useRouter(), useShows(), useFeed()]
const open = computed(() => (props.isOurs ? shows.bySlug(props.show) : null))
const outlook = ref<InstanceType<typeof SaveOutlook>>()
const problem = ref<(ShownProblem & { of: string }) | null>(null)
const busy = ref('')

async function press(finding: FeedFindingView, key: string, act: () => Promise<unknown>): Promise<void> {
  busy.value = key
  problem.value = null
  try {
    await act()
  } catch (error) {
    problem.value = { ...problemOf(error, t('nothingWasChanged')), of: finding.name }
  } finally {
    busy.value = ''
  }
}
const fixShow = (finding: FeedFindingView, { facts }: ShowFix): Promise<void> =>
  press(finding, finding.name, async () => {
    const { id, version } = open.value!
    const change = { version, feedFacts: facts }
    if (!(await outlook.value!.ask(change))) return
    await shows.change(id, change)
    emit('fixed')
  })
/** The episode is looked at before it is sent. */
const fixEpisode = (finding: FeedFindingView, episode: FoundEpisode): Promise<void> =>
  press(finding, episode.id + finding.name, async () => {
    await feed.fix(episode.id, episode.version, episode.byPress!.text)
    await router.push(way(finding, episode)!)
  })
</script>

<template>
  <div class="findings spaced">
    <ul v-if="findings.length" class="unlisted spaced">
      <li
        v-for="finding in findings"
        :key="finding.name"
        class="note"
        :class="{ 'needs-you': finding.severity === 'error' }"
        :data-finding="finding.name"
      >
        <p>
          <span class="severity">{{ severityNames[finding.severity] }}</span>
          <strong>{{ finding.says }}</strong>
          <template v-if="finding.places.length === 1 && !finding.places[0]!.item && finding.places[0]!.value">
            {{ ' ' }}<code>{{ finding.places[0]!.value }}</code>
          </template>
        </p>
        <ul v-if="finding.places.some(({ item }) => item)" class="places">
          <li v-for="(place, at) in finding.places.slice(0, shown)" :key="at">
            <RouterLink v-if="place.episode && way(finding, place.episode)" :to="way(finding, place.episode)!">{{
              named(place)
            }}</RouterLink>
            <template v-else>{{ named(place) }}</template>
            <template v-if="place.value"
              >{{ ' ' }}<code>{{ place.value }}</code></template
            >
            <template v-if="isOurs && place.episode?.isChanged"
              >{{ ' ' }}<span class="quiet small">· {{ t('changedNotSent') }}</span></template
            >
            <Button
              v-if="isOurs && place.episode?.byPress"
              class="press"
              size="small"
              outlined
              :label="place.episode.byPress.says"
              :loading="busy === place.episode.id + finding.name"
              @click="fixEpisode(finding, place.episode)"
            />
          </li>
          <li v-if="finding.count > shown" class="quiet">{{ t('countMore', { count: finding.count - shown }) }}</li>
        </ul>
        <p>{{ finding.ifItStays }} {{ finding.fix }}</p>
        <p v-if="isOurs && !finding.places[0]!.item" class="actions">
          <Button
            v-if="finding.byPress"
            size="small"
            outlined
            :label="finding.byPress.says"
            :loading="busy === finding.name"
            @click="fixShow(finding, finding.byPress)"
          />
          <RouterLink v-if="way(finding, null)" :to="way(finding, null)!">{{
            finding.byPress ? t('showWhere') : t('fixIt')
          }}</RouterLink>
        </p>
        <ProblemNote v-if="problem?.of === finding.name" :problem="problem" />
        <FoldPanel class="small quiet">
          <template #line>{{ t('theRule') }}</template>
          <p>
            {{ finding.rule }} <cite>{{ finding.source }}.</cite>
          </p>
        </FoldPanel>
      </li>
    </ul>
    <SaveOutlook v-if="open" ref="outlook" :show="open" />
    <p class="quiet" role="status">
      {{ findings.length === 0 ? t('nothingToFix', { count: rules }) : t('passesOthers', { count: well }) }}
    </p>
  </div>
</template>

<style scoped>
.note + .note {
  margin-top: 0;
}
.severity {
  margin-inline-end: var(--space-2);
  font-size: var(--text-s);
  color: var(--ink-soft);
}
.needs-you .severity {
  color: var(--signal);
  font-weight: 600;
}
.press {
  margin-inline: var(--space-2);
}
.places {
  margin: var(--space-1) 0;
  padding-inline-start: 1.1em;
}
code {
  overflow-wrap: anywhere;
  font: inherit;
  font-size: var(--text-s);
  color: var(--ink-soft);
}
cite {
  font-style: normal;
}
</style>
