<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'

/**
 * A field for a number, which counts as it is typed and not only when the field is left: whatever is drawn anew meanwhile takes
 * nothing away from who types. What is not between `min` and `max` yet waits.
 */
const model = defineModel<number | null>({ required: true })
const props = defineProps<{ min: number; max: number }>()

function type(value: number | string | undefined): void {
  if (typeof value === 'number' && value >= props.min && value <= props.max) model.value = value
}
</script>

<template>
  <InputNumber v-model="model" :min="min" :max="max" @input="event => type(event.value)" />
</template>
