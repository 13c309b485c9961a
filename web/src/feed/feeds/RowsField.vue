<script setup lang="ts" generic="Row extends Record<string, string | number>">
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { useId } from 'vue'
import IconButton from '../../platform/parts/IconButton.vue'
import { t } from './messages'

/** A list of small things, each of a few fields in a line; they come by a press and go by a press. */
const props = defineProps<{
  label: string
  hint: string
  columns: readonly { key: keyof Row & string; label: string; isNumber?: true }[]
  empty: Row
  add: string
  fault: (field: string) => string | undefined
}>()
const rows = defineModel<Row[]>({ required: true })
const id = useId()

function change(at: number, key: string, value: string | undefined, isNumber: boolean): void {
  rows.value = rows.value.map((row, index) =>
    index === at ? { ...row, [key]: isNumber ? Number(value) || 0 : (value ?? '') } : row,
  )
}
const drop = (at: number): void => {
  rows.value = rows.value.filter((_row, index) => index !== at)
}
const grow = (): void => {
  rows.value = [...rows.value, { ...props.empty }]
}
</script>

<template>
  <fieldset class="rows spaced justify-items-start m-0 p-0 border-0">
    <legend class="field-name p-0">{{ label }}</legend>
    <p class="small quiet">{{ hint }}</p>
    <ul v-if="rows.length" class="spaced unlisted w-full">
      <li v-for="(row, at) in rows" class="flex flex-wrap gap-x-3 gap-y-2 items-start" :key="at">
        <div v-for="column in columns" :key="column.key" class="field" :class="{ narrow: column.isNumber }">
          <label class="small quiet" :for="`${id}-${at}-${column.key}`">{{ column.label }}</label>
          <InputText
            :id="`${id}-${at}-${column.key}`"
            :model-value="String(row[column.key] || '')"
            :inputmode="column.isNumber ? 'numeric' : undefined"
            :invalid="!!fault(`${at}.${column.key}`)"
            @update:model-value="value => change(at, column.key, value, !!column.isNumber)"
          />
          <span v-if="fault(`${at}.${column.key}`)" class="fault" role="alert">{{ fault(`${at}.${column.key}`) }}</span>
        </div>
        <IconButton :name="t('removeRow', { number: at + 1, label })" :icon="X" @click="drop(at)" />
      </li>
    </ul>
    <Button type="button" size="small" outlined :label="add" @click="grow" />
  </fieldset>
</template>

<style scoped>
li .field {
  flex: 1 1 12rem;
}
li .narrow {
  flex: 0 0 5rem;
}
li .narrow :deep(input) {
  width: 100%;
}
li :deep(.icon-button) {
  margin-top: 1.9rem;
}
</style>
