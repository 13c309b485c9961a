<script setup lang="ts">
import { type Rhythm, rhythmWords } from '@core/release/rhythm'
import type { Slot } from '@core/release/slots'
import { shortDay } from '../../platform/time/times'
import MomentThere from '../../platform/time/MomentThere.vue'
import { t } from './messages'

/** A rhythm in words, with its next dates, any of which can be left out. */
defineProps<{
  rhythm: Rhythm
  isWhole: boolean
  slots: readonly Slot[]
  zone: string
  listenerZones: readonly string[]
}>()
const emit = defineEmits<{ leaveOut: [day: string]; bringBack: [day: string] }>()
const dayOf = (local: string): string => local.slice(0, 10)
</script>

<template>
  <section class="boxed px-5 py-4 self-start" :aria-label="t('theNextDates')">
    <p class="words" role="status">{{ isWhole ? rhythmWords(rhythm) : t('onWhichDays') }}</p>
    <ol v-if="slots.length" class="grid gap-2 mt-3 mx-0 mb-0 p-0 list-none">
      <li v-for="slot in slots" class="flex gap-3 justify-between items-baseline" :key="slot.local">
        <MomentThere :at="slot.at" :zone="zone" :others="listenerZones" />
        <button
          type="button"
          class="small-button"
          :aria-label="t('skipNamed', { day: shortDay(slot.at, zone) })"
          @click="emit('leaveOut', dayOf(slot.local))"
        >
          {{ t('skip') }}
        </button>
      </li>
    </ol>
    <template v-if="rhythm.leftOut.length">
      <h2 class="mt-3 text-m">{{ t('skipped') }}</h2>
      <ul class="grid gap-2 mt-3 mx-0 mb-0 p-0 list-none">
        <li v-for="day in rhythm.leftOut" class="flex gap-3 justify-between items-baseline" :key="day">
          <span>{{ shortDay(`${day}T12:00:00Z`, 'UTC') }}</span>
          <button
            type="button"
            class="small-button"
            :aria-label="t('unskipNamed', { day: shortDay(`${day}T12:00:00Z`, 'UTC') })"
            @click="emit('bringBack', day)"
          >
            {{ t('unskip') }}
          </button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.words {
  font-family: var(--serif);
  font-size: var(--text-xl);
  line-height: 1.25;
}
</style>
