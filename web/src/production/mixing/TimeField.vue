<script setup lang="ts">
import TimestampInput from '../../platform/parts/TimestampInput.vue'

/** A time with the word for it above; its whole name is for those who hear it. */
defineProps<{ label: string; name: string; ms: number }>()
const emit = defineEmits<{ change: [ms: number]; fault: [words: string] }>()
</script>

<template>
  <label class="grid">
    <span class="small quiet" aria-hidden="true">{{ label }}</span>
    <TimestampInput
      class="time"
      :ms="ms"
      :label="name"
      @change="to => emit('change', to)"
      @fault="words => emit('fault', words)"
    />
  </label>
</template>

<style scoped>
.time {
  width: 6.2rem;
}
</style>
