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
  <section class="boxed px-5 py-4 self-start" aria-label="The next dates">
    <p class="words" role="status">{{ isWhole ? rhythmWords(rhythm) : 'On which days?' }}</p>
    <ol class="grid gap-2 mt-3 mx-0 mb-0 p-0 list-none" v-if="slots.length">
      <li class="flex gap-3 justify-between items-baseline" v-for="slot in slots" :key="slot.local">
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
      <h2 class="mt-3 text-m">Left out</h2>
      <ul class="grid gap-2 mt-3 mx-0 mb-0 p-0 list-none">
        <li class="flex gap-3 justify-between items-baseline" v-for="day in rhythm.leftOut" :key="day">
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
.words {
  font-family: var(--serif);
  font-size: var(--text-xl);
  line-height: 1.25;
}
</style>
