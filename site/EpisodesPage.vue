<script setup lang="ts">
import { computed } from 'vue'
import { type EpisodeFilter, filterQuery } from '@core/site/filter'
import { tagKey } from '@core/tags/tags'
import ChoiceField from './ChoiceField.vue'
import EpisodeList from './EpisodeList.vue'
import PageFrame from './PageFrame.vue'
import type { EpisodesPage } from './facts'
import { filterWords } from './words'

const props = defineProps<EpisodesPage>()
const words = computed(() => filterWords(props.filter, props.choices))
const isNarrowed = computed(() => filterQuery({ ...props.filter, page: 1 }) !== '')
const at = (change: Partial<EpisodeFilter>): string =>
  `${props.show.pageAddress}/episodes${filterQuery({ ...props.filter, ...change })}`
const isChosen = (tag: string): boolean => props.filter.tag !== null && tagKey(tag) === tagKey(props.filter.tag)
</script>

<template>
  <PageFrame :show="show" here="episodes">
    <h1>{{ words }}</h1>
    <form
      v-if="choices.total > 1"
      class="choosing"
      :action="`${show.pageAddress}/episodes`"
      aria-label="Which episodes"
    >
      <ChoiceField
        v-if="choices.seasons.length > 1"
        name="season"
        words="Season"
        :options="choices.seasons.map(each => ({ value: each, words: each, isChosen: each === filter.season }))"
      />
      <ChoiceField
        v-if="choices.strands.length"
        name="strand"
        words="Strand"
        :options="
          choices.strands.map(({ slug, name }) => ({ value: slug, words: name, isChosen: slug === filter.strand }))
        "
      />
      <ChoiceField
        v-if="choices.tags.length"
        name="tag"
        words="Tag"
        :options="choices.tags.map(({ tag }) => ({ value: tag, words: tag, isChosen: isChosen(tag) }))"
      />
      <ChoiceField
        v-if="choices.years.length > 1"
        name="year"
        words="Year"
        :options="choices.years.map(each => ({ value: each, words: each, isChosen: each === filter.year }))"
      />
      <button type="submit">Show them</button>
      <a v-if="isNarrowed" :href="`${show.pageAddress}/episodes`">All {{ choices.total }}</a>
    </form>
    <p v-if="found === 0" class="quiet">Nothing has been released yet.</p>
    <EpisodeList v-else :show="show" :episodes="episodes" />
    <nav v-if="pages > 1" class="pages" aria-label="Pages">
      <a v-if="filter.page > 1" rel="prev" :href="at({ page: filter.page - 1 })">Newer</a>
      <span class="figures">Page {{ filter.page }} of {{ pages }}</span>
      <a v-if="filter.page < pages" rel="next" :href="at({ page: filter.page + 1 })">Older</a>
    </nav>
  </PageFrame>
</template>
