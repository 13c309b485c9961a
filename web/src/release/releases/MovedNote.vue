<script setup lang="ts">
import { shortMoment } from '../../platform/time/times'

/** What was just moved, by the wall clock of its show, and the way back; `from` is null where it was a draft. */
defineProps<{ title: string; to: string; from: string | null }>()
const emit = defineEmits<{ back: [] }>()
const inWords = (local: string): string => shortMoment(`${local}:00Z`, 'UTC')
</script>

<template>
  <p class="note" role="status">
    “{{ title }}” goes out {{ inWords(to) }}{{ from ? ` instead of ${inWords(from)}` : '' }}.
    <button type="button" class="small-button" @click="emit('back')">
      {{ from ? 'Undo' : 'Back to draft' }}
    </button>
  </p>
</template>
