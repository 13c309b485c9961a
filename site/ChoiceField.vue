<script setup lang="ts">
import { useMessages } from './useMessages'

/** One of the ways in which episodes are chosen: by a list of which one is taken, or all. */
defineProps<{
  name: string
  words: string
  options: readonly { value: string | number; words: string | number; isChosen: boolean }[]
}>()
const { t } = useMessages()
</script>

<template>
  <p>
    <label :for="name">{{ words }}</label>
    <select :id="name" :name="name">
      <option value="">{{ t('filterAll') }}</option>
      <option v-for="option in options" :key="option.value" :value="option.value" :selected="option.isChosen">
        {{ option.words }}
      </option>
    </select>
  </p>
</template>
