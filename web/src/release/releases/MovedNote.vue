<script setup lang="ts">
import { shortMoment } from '../../platform/time/times'
import { t } from './messages'

/** What was just moved, by the wall clock of its show, and the way back; `from` is null where it was a draft. */
defineProps<{ title: string; to: string; from: string | null }>()
const emit = defineEmits<{ back: [] }>()
const inWords = (local: string): string => shortMoment(`${local}:00Z`, 'UTC')
</script>

<template>
  <p class="note" role="status">
    {{
      from
        ? t('movedInsteadOf', { title, to: inWords(to), from: inWords(from) })
        : t('goesOut', { title, to: inWords(to) })
    }}
    <button type="button" class="small-button" @click="emit('back')">
      {{ from ? t('undo') : t('backToDraft') }}
    </button>
  </p>
</template>
