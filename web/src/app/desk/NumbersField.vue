<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'
import type { Fault } from '@contract/problem'
import WholeNumber from '../../platform/parts/WholeNumber.vue'
import { t } from './messages'

const number = defineModel<number | null>('number', { required: true })
const season = defineModel<number | null>('season', { required: true })
const kind = defineModel<'full' | 'trailer' | 'bonus'>('kind', { required: true })
const props = defineProps<{ faults: readonly Fault[]; next: number }>()
const kinds = [
  { name: t('full'), value: 'full' },
  { name: t('trailer'), value: 'trailer' },
  { name: t('bonus'), value: 'bonus' },
]
/** What the kind means to apps. */
const meanings = {
  full: '',
  trailer: t('otherKindHint'),
  bonus: t('fullKindHint'),
} as const
const fault = (field: string): string | undefined => props.faults.find(each => each.field === field)?.rule
</script>

<template>
  <div class="flowing gap-x-5 gap-y-3">
    <WholeNumber id="number" v-model="number" :label="t('number')" :max="99999" :invalid="!!fault('number')" />
    <WholeNumber id="season" v-model="season" :label="t('season')" :max="9999" :invalid="!!fault('season')" />
    <div class="side-by-side">
      <span id="kind" class="field-name">{{ t('kind') }}</span>
      <SelectButton
        v-model="kind"
        :options="kinds"
        option-label="name"
        option-value="value"
        :allow-empty="false"
        aria-labelledby="kind"
        size="small"
      />
    </div>
    <span v-if="meanings[kind]" class="hint">{{ meanings[kind] }}</span>
    <button v-if="kind === 'full' && number === null" type="button" class="small-button" @click="number = next">
      {{ t('takeNextNumber', { number: next }) }}
    </button>
    <span v-if="fault('number') ?? fault('season')" class="fault" role="alert">{{
      fault('number') ?? fault('season')
    }}</span>
  </div>
</template>
