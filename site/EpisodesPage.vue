<script setup lang="ts">
import { computed } from 'vue'
import { type EpisodeFilter, filterQuery } from '@core/site/filter'
import { tagKey } from '@core/tags/tags'
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
      <p v-if="choices.seasons.length > 1">
        <label for="season">Season</label>
        <select id="season" name="season">
          <option value="">all</option>
          <option v-for="each in choices.seasons" :key="each" :value="each" :selected="each === filter.season">
            {{ each }}
          </option>
        </select>
      </p>
      <p v-if="choices.strands.length">
        <label for="strand">Strand</label>
        <select id="strand" name="strand">
          <option value="">all</option>
          <option
            v-for="{ slug, name } in choices.strands"
            :key="slug"
            :value="slug"
            :selected="slug === filter.strand"
          >
            {{ name }}
          </option>
        </select>
      </p>
      <p v-if="choices.tags.length">
        <label for="tag">Tag</label>
        <select id="tag" name="tag">
          <option value="">all</option>
          <option v-for="{ tag } in choices.tags" :key="tag" :value="tag" :selected="isChosen(tag)">{{ tag }}</option>
        </select>
      </p>
      <p v-if="choices.years.length > 1">
        <label for="year">Year</label>
        <select id="year" name="year">
          <option value="">all</option>
          <option v-for="each in choices.years" :key="each" :value="each" :selected="each === filter.year">
            {{ each }}
          </option>
        </select>
      </p>
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
