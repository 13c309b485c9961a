<script setup lang="ts">
import { computed } from 'vue'
import type { ToldFinding } from '@contract/feed'
import FoldPanel from '../parts/FoldPanel.vue'
import { wayTo } from './places'

/** What was found in a feed, the gravest first, each with where it is and how it is mended; what is well is one line. */
const props = defineProps<{ findings: readonly ToldFinding[]; rules: number; show: string; isOurs: boolean }>()
const well = computed(() => props.rules - props.findings.length)
const shown = 5
const named = ({ item }: ToldFinding['places'][number]): string => item?.title || `item ${(item?.index ?? 0) + 1}`
const way = (finding: ToldFinding, episodeId: string | null) =>
  props.isOurs ? wayTo(finding.place, props.show, episodeId) : null
</script>

<template>
  <div class="findings">
    <ul v-if="findings.length" class="plain">
      <li
        v-for="finding in findings"
        :key="finding.name"
        class="note"
        :class="{ 'needs-you': finding.weight === 'must mend' }"
        :data-finding="finding.name"
      >
        <p>
          <span class="weight">{{ finding.weight }}</span>
          <strong>{{ finding.says }}</strong>
          <template v-if="finding.places.length === 1 && !finding.places[0]!.item && finding.places[0]!.value">
            {{ ' ' }}<code>{{ finding.places[0]!.value }}</code>
          </template>
        </p>
        <ul v-if="finding.places.some(({ item }) => item)" class="places">
          <li v-for="(place, at) in finding.places.slice(0, shown)" :key="at">
            <RouterLink v-if="way(finding, place.episodeId)" :to="way(finding, place.episodeId)!">{{
              named(place)
            }}</RouterLink>
            <template v-else>{{ named(place) }}</template>
            <template v-if="place.value"
              >{{ ' ' }}<code>{{ place.value }}</code></template
            >
          </li>
          <li v-if="finding.count > shown" class="quiet">and {{ finding.count - shown }} more</li>
        </ul>
        <p class="mend">
          {{ finding.ifItStays }} {{ finding.mend }}
          <RouterLink v-if="!finding.places[0]!.item && way(finding, null)" :to="way(finding, null)!"
            >Mend it</RouterLink
          >
        </p>
        <FoldPanel class="small quiet">
          <template #line>The rule</template>
          <p>
            {{ finding.rule }} <cite>{{ finding.source }}.</cite>
          </p>
        </FoldPanel>
      </li>
    </ul>
    <p class="quiet" role="status">
      {{
        findings.length === 0
          ? `Nothing to mend. All ${rules} rules were looked at.`
          : `By ${well} other rules all is well.`
      }}
    </p>
  </div>
</template>

<style scoped>
.findings {
  display: grid;
  gap: var(--space-2);
}
.plain {
  display: grid;
  gap: var(--space-2);
  margin: 0;
  padding: 0;
  list-style: none;
}
.note + .note {
  margin-top: 0;
}
.weight {
  margin-inline-end: var(--space-2);
  font-size: var(--text-s);
  color: var(--ink-soft);
}
.needs-you .weight {
  color: var(--signal);
  font-weight: 600;
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
