<script setup lang="ts">
import type { ShowNumbers } from '@contract/numbers'
import CopyButton from '../../platform/parts/CopyButton.vue'
import FoldPanel from '../../platform/parts/FoldPanel.vue'
import { shortDay } from '../../platform/time/times'
import { t } from './messages'

/** How downloads are counted, and words about it for the maker's own site. */
defineProps<{ state: ShowNumbers['state'] }>()
</script>

<template>
  <div class="spaced gap-2">
    <FoldPanel>
      <template #line>{{ t('howItIsCounted') }}</template>
      <div class="flowing-text spaced gap-2">
        <p>{{ t('countingRule') }}</p>
        <p>{{ t('countingListener') }}</p>
        <p>{{ t('countingLeftOut', { day: shortDay(state.programsDated, 'utc') }) }}</p>
        <p>
          {{ t('countingDays', { days: state.logDays }) }}
          <template v-if="state.placesMadeAt">{{
            t('countingPlaces', { day: shortDay(state.placesMadeAt, 'utc') })
          }}</template>
        </p>
      </div>
    </FoldPanel>
    <FoldPanel>
      <template #line>{{ t('wordsForYourSite') }}</template>
      <div class="spaced gap-2">
        <blockquote class="flowing-text">{{ t('privacyWords', { days: state.logDays }) }}</blockquote>
        <p class="actions"><CopyButton :text="t('privacyWords', { days: state.logDays })" /></p>
      </div>
    </FoldPanel>
  </div>
</template>
