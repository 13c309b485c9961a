<script setup lang="ts">
import { type Rhythm, rhythmWords } from '@core/release/rhythm'
import type { Slot } from '@core/release/slots'
import { shortDay } from '../../platform/time/times'
import MomentThere from '../../platform/time/MomentThere.vue'

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
  <section class="dates boxed" aria-label="The next dates">
    <p class="words" role="status">{{ isWhole ? rhythmWords(rhythm) : 'On which days?' }}</p>
    <ol v-if="slots.length">
      <li v-for="slot in slots" :key="slot.local">
        <MomentThere :at="slot.at" :zone="zone" :others="listenerZones" />
        <button
          type="button"
          class="link-button small"
          :aria-label="`Leave it out: ${shortDay(slot.at, zone)}`"
          @click="emit('leaveOut', dayOf(slot.local))"
        >
          Leave it out
        </button>
      </li>
    </ol>
    <template v-if="rhythm.leftOut.length">
      <h2>Left out</h2>
      <ul>
        <li v-for="day in rhythm.leftOut" :key="day">
          <span>{{ shortDay(`${day}T12:00:00Z`, 'UTC') }}</span>
          <button
            type="button"
            class="link-button small"
            :aria-label="`Not any more: ${shortDay(`${day}T12:00:00Z`, 'UTC')}`"
            @click="emit('bringBack', day)"
          >
            Not any more
          </button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.dates {
  padding: var(--space-4) var(--space-5);
  align-self: start;
}
.words {
  font-family: var(--serif);
  font-size: var(--text-xl);
  line-height: 1.25;
}
h2 {
  margin-top: var(--space-3);
  font-size: var(--text-m);
}
ol,
ul {
  display: grid;
  gap: var(--space-2);
  margin: var(--space-3) 0 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: var(--space-3);
  justify-content: space-between;
  align-items: baseline;
}
</style>
