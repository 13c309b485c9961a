<script setup lang="ts">
import { computed } from 'vue'
import { offsetWords, placeOf, shortMoment, timeOfDay } from './times'

/** A moment by the show's clock with its offset written out, and what time it is then where listeners are. */
const props = defineProps<{ at: Date | string; zone: string; others: readonly string[] }>()
const there = computed(() =>
  props.others.map(zone => {
    const isOtherDay = shortMoment(props.at, zone).slice(0, -7) !== shortMoment(props.at, props.zone).slice(0, -7)
    return `${isOtherDay ? shortMoment(props.at, zone) : timeOfDay(props.at, zone)} in ${placeOf(zone)}`
  }),
)
</script>

<template>
  <span class="figures">
    {{ shortMoment(at, zone) }}{{ ' ' }}<span class="small quiet">{{ offsetWords(at, zone) }}</span>
    <span v-if="there.length" class="small quiet there">{{ there.join(' · ') }}</span>
  </span>
</template>

<style scoped>
.there {
  display: block;
}
</style>
