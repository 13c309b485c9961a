<script setup lang="ts">
import Select from 'primevue/select'
import type { CrossfadeShape } from '@core/audio/fades'
import type { Piece } from '@core/mix/document'
import NumberField from './NumberField.vue'
import { t } from './messages'

/** How a piece, or music, begins and ends. */
type Fades = Pick<Piece, 'fadeInMs' | 'fadeOutMs' | 'shape'>
defineProps<{ fades: Fades; name: string }>()
const emit = defineEmits<{ change: [part: Partial<Fades>] }>()
const shapeWords: Readonly<Record<CrossfadeShape, string>> = {
  linear: t('linear'),
  logarithmic: t('logarithmic'),
  'equal power': t('equalPower'),
}
const shapes = Object.entries(shapeWords).map(([value, name]) => ({ value, name }))
</script>

<template>
  <NumberField
    :model-value="fades.fadeInMs / 1000"
    :label="t('fadeIn')"
    :name="t('fadeInOf', { name })"
    unit="s"
    :min="0"
    :max="600"
    @update:model-value="seconds => emit('change', { fadeInMs: seconds * 1000 })"
  />
  <NumberField
    :model-value="fades.fadeOutMs / 1000"
    :label="t('fadeOut')"
    :name="t('fadeOutOf', { name })"
    unit="s"
    :min="0"
    :max="600"
    @update:model-value="seconds => emit('change', { fadeOutMs: seconds * 1000 })"
  />
  <label class="grid"
    ><span class="small quiet" aria-hidden="true">{{ t('shape') }}</span
    ><Select
      :model-value="fades.shape"
      :options="shapes"
      option-label="name"
      option-value="value"
      size="small"
      :aria-label="t('shapeOf', { name })"
      @update:model-value="shape => emit('change', { shape })"
  /></label>
</template>
