<script setup lang="ts">
import { computed } from 'vue'
import { type EpisodeFilter, filterQuery } from '@core/site/filter'
import { tagKey } from '@core/tags/tags'
import ChoiceField from './ChoiceField.vue'
import EpisodeList from './EpisodeList.vue'
import PageFrame from './PageFrame.vue'
import type { EpisodesPage } from './facts'
import { filterName } from './words'
import { useMessages } from './useMessages'

const props = defineProps<EpisodesPage>()
const isNarrowed = computed(() => filterQuery({ ...props.filter, page: 1 }) !== '')
const at = (change: Partial<EpisodeFilter>): string =>
  `${props.show.pageAddress}/episodes${filterQuery({ ...props.filter, ...change })}`
const isChosen = (tag: string): boolean => props.filter.tag !== null && tagKey(tag) === tagKey(props.filter.tag)
const messages = useMessages()
const { t } = messages
</script>

<template>
  <PageFrame :show="show" here="episodes">
    <h1>{{ filterName(filter, choices, messages) }}</h1>
    <form
      v-if="choices.total > 1"
      class="choosing"
      :action="`${show.pageAddress}/episodes`"
      :aria-label="t('filterEpisodes')"
    >
      <ChoiceField
        v-if="choices.seasons.length > 1"
        name="season"
        :words="t('filterSeason')"
        :options="choices.seasons.map(each => ({ value: each, words: each, isChosen: each === filter.season }))"
      />
      <ChoiceField
        v-if="choices.strands.length"
        name="strand"
        :words="t('filterStrand')"
        :options="
          choices.strands.map(({ slug, name }) => ({ value: slug, words: name, isChosen: slug === filter.strand }))
        "
      />
      <ChoiceField
        v-if="choices.tags.length"
        name="tag"
        :words="t('filterTag')"
        :options="choices.tags.map(({ tag }) => ({ value: tag, words: tag, isChosen: isChosen(tag) }))"
      />
      <ChoiceField
        v-if="choices.years.length > 1"
        name="year"
        :words="t('filterYear')"
        :options="choices.years.map(each => ({ value: each, words: each, isChosen: each === filter.year }))"
      />
      <button type="submit">{{ t('filterShow') }}</button>
      <a v-if="isNarrowed" :href="`${show.pageAddress}/episodes`">{{ t('filterNone', { total: choices.total }) }}</a>
    </form>
    <p v-if="found === 0" class="quiet">{{ t('nothingYet') }}</p>
    <EpisodeList v-else :show="show" :episodes="episodes" />
    <nav v-if="pages > 1" class="pages" :aria-label="t('pages')">
      <a v-if="filter.page > 1" rel="prev" :href="at({ page: filter.page - 1 })">{{ t('newer') }}</a>
      <span class="figures">{{ t('pageOf', { page: filter.page, pages }) }}</span>
      <a v-if="filter.page < pages" rel="next" :href="at({ page: filter.page + 1 })">{{ t('older') }}</a>
    </nav>
  </PageFrame>
</template>
