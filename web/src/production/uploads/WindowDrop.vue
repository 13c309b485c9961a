<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ref } from 'vue'

/** Lets files be dropped anywhere on the window. */
defineProps<{ words: string }>()
const emit = defineEmits<{ files: [files: File[]] }>()
const over = ref(false)
let depth = 0

const carriesFile = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') ?? false

function enter(event: DragEvent): void {
  if (!carriesFile(event)) return
  depth++
  over.value = true
}
function leave(): void {
  depth = Math.max(0, depth - 1)
  over.value = depth > 0
}
function allow(event: DragEvent): void {
  if (carriesFile(event)) event.preventDefault()
}
function drop(event: DragEvent): void {
  depth = 0
  over.value = false
  const files = [...(event.dataTransfer?.files ?? [])]
  if (files.length === 0) return
  event.preventDefault()
  emit('files', files)
}

useEventListener('dragenter', enter)
useEventListener('dragleave', leave)
useEventListener('dragover', allow)
useEventListener('drop', drop)
</script>

<template>
  <div v-if="over" class="drop">
    <p>{{ words }}</p>
  </div>
</template>

<style scoped>
.drop {
  position: fixed;
  inset: var(--space-4);
  z-index: 10;
  display: grid;
  place-items: center;
  pointer-events: none;
  border: 3px dashed var(--signal);
  border-radius: var(--round);
  background: color-mix(in srgb, var(--signal-wash) 90%, transparent);
  font: 560 var(--text-xl) var(--serif);
}
</style>
