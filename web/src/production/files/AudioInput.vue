<script setup lang="ts">
import { ref } from 'vue'
import { t } from './messages'

/** Has a person choose a file of audio, once that is asked for. */
const emit = defineEmits<{ file: [file: File] }>()
const input = ref<HTMLInputElement>()
defineExpose({ choose: () => input.value?.click() })

function chosen(): void {
  const file = input.value?.files?.[0]
  input.value!.value = ''
  if (file) emit('file', file)
}
</script>

<template>
  <input
    ref="input"
    class="out-of-sight"
    type="file"
    accept="audio/*,.mp3,.m4a,.wav,.flac,.ogg,.opus"
    :aria-label="t('audioFile')"
    tabindex="-1"
    @change="chosen"
  />
</template>
