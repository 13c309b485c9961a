<script setup lang="ts">
import { ref } from 'vue'

const props = defineProps<{ label: string; text: string }>()
const copied = ref(false)

async function copy(): Promise<void> {
  await navigator.clipboard.writeText(props.text)
  copied.value = true
  setTimeout(() => {
    copied.value = false
  }, 2000)
}
</script>

<template>
  <div class="copy-field">
    <span class="field-name">{{ label }}</span>
    <div class="row">
      <code>{{ text }}</code>
      <button type="button" class="link-button" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</button>
    </div>
  </div>
</template>

<style scoped>
.copy-field {
  display: grid;
  gap: var(--space-1);
}
.row {
  display: flex;
  gap: var(--space-3);
  align-items: baseline;
}
code {
  font: inherit;
  overflow-wrap: anywhere;
  padding: var(--space-1) var(--space-2);
  background: var(--sheet-sunk);
  border-radius: var(--round);
}
</style>
