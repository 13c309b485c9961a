<script setup lang="ts">
import { useId } from 'vue'

/** A label above its input, with what helps and what is wrong below. */
defineProps<{ label: string; hint?: string; fault?: string }>()
const id = useId()
</script>

<template>
  <div class="field">
    <label :id="`${id}-name`" :for="id">{{ label }}</label>
    <slot :id="id" />
    <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
    <span v-else-if="hint" class="hint">{{ hint }}</span>
  </div>
</template>
