<script setup lang="ts">
import { computed } from 'vue'
import { offsetWords, shortMoment, timesThere } from './times'

/** A moment by the show's clock with its offset written out, and what time it is then where listeners are. */
const props = defineProps<{ at: Date | string; zone: string; others: readonly string[] }>()
const there = computed(() => timesThere(props.at, props.zone, props.others))
</script>

<template>
  <span class="figures">
    {{ shortMoment(at, zone) }}{{ ' ' }}<span class="small quiet">{{ offsetWords(at, zone) }}</span>
    <span v-if="there" class="small quiet block">{{ there }}</span>
  </span>
</template>
