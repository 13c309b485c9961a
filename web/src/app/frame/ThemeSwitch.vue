<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { useTheme } from '../../platform/theme/theme'

const { theme } = storeToRefs(useTheme())
const names = { system: 'as the system', light: 'day', dark: 'night' } as const
const order = ['system', 'light', 'dark'] as const

function next(): void {
  theme.value = order[(order.indexOf(theme.value) + 1) % order.length]!
}
</script>

<template>
  <button type="button" class="link-button" @click="next">Look: {{ names[theme] }}</button>
</template>
