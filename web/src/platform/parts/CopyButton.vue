<script setup lang="ts">
import { ref } from 'vue'

/** Copies a text, and says so for a while. `about` is read aloud behind its words. */
const props = withDefaults(defineProps<{ text: string; words?: string; about?: string }>(), { words: 'Copy' })
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
  <button type="button" class="link-button" @click="copy">
    {{ copied ? 'Copied' : words }}<span v-if="about" class="out-of-sight">{{ ` ${about}` }}</span>
  </button>
</template>
