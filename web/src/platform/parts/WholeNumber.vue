<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'

/** A whole number with its name; null while nothing is written. What is typed counts at once. */
const number = defineModel<number | null>({ required: true })
withDefaults(
  defineProps<{ id: string; label: string; max: number; invalid?: boolean; placeholder?: string; hint?: string }>(),
  { invalid: false, placeholder: undefined, hint: undefined },
)
const take = ({ value }: { value: unknown }): void => {
  number.value = typeof value === 'number' ? value : null
}
</script>

<template>
  <label class="side-by-side" :for="id">
    <span class="field-name">{{ label }}</span>
    <InputNumber
      v-model="number"
      :input-id="id"
      :min="1"
      :max="max"
      :use-grouping="false"
      :placeholder="placeholder"
      :input-style="{ width: '5rem' }"
      :invalid="invalid"
      @input="take"
    />
    <span v-if="hint" class="hint">{{ hint }}</span>
  </label>
</template>
