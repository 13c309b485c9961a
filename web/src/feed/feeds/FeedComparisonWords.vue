<script setup lang="ts">
import type { Difference, FeedComparison } from '@core/feed/compare'
import { itemName } from '@core/feed/compare'
import ComparedWords from '../../show/history/ComparedWords.vue'
import { t } from './messages'

/** What is other in a state of a feed than in the one before, with the words where they are words. */
defineProps<{ comparison: FeedComparison }>()
const shown = 20
const hasWords = ({ earlier, later }: Difference): boolean => earlier !== null || later !== null
</script>

<template>
  <div class="spaced gap-3">
    <section v-if="comparison.show.some(hasWords)">
      <h4 class="m-0 text-m">{{ t('showItself') }}</h4>
      <template v-for="difference in comparison.show.filter(hasWords)" :key="difference.what">
        <p class="small quiet">{{ difference.what }}</p>
        <ComparedWords :earlier="difference.earlier ?? ''" :later="difference.later ?? ''" />
      </template>
    </section>
    <section v-for="item in comparison.changed.slice(0, shown)" :key="item.guid">
      <h4 class="m-0 text-m">{{ itemName(item) }}</h4>
      <template v-for="difference in item.differences" :key="difference.what">
        <p class="small quiet">{{ difference.what }} {{ hasWords(difference) ? '' : difference.how }}</p>
        <ComparedWords
          v-if="hasWords(difference)"
          :earlier="difference.earlier ?? ''"
          :later="difference.later ?? ''"
        />
      </template>
    </section>
    <p v-if="!comparison.show.some(hasWords) && comparison.changed.length === 0" class="quiet">
      {{ t('noTextChanged') }}
    </p>
    <p v-if="comparison.changed.length > shown" class="quiet">
      {{ t('moreEpisodes', { count: comparison.changed.length - shown }) }}
    </p>
  </div>
</template>

<style scoped>
h4::first-letter {
  text-transform: uppercase;
}
</style>
