<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'

/** A number with the word for it above; its whole name is for those who hear it. */
defineProps<{ label: string; name: string; unit: string; min: number; max: number; title?: string }>()
const number = defineModel<number>({ required: true })
</script>

<template>
  <label class="number" :title="title">
    <span class="small quiet" aria-hidden="true">{{ label }}</span>
    <InputNumber
      v-model="number"
      :min="min"
      :max="max"
      :max-fraction-digits="2"
      :suffix="` ${unit}`"
      :use-grouping="false"
      :allow-empty="false"
      size="small"
      :input-style="{ width: '5.2rem' }"
      :aria-label="name"
    />
  </label>
</template>

<style scoped>
.number {
  display: grid;
}
</style>
