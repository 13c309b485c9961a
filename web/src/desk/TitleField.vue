<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'

const title = defineModel<string>({ required: true })
defineProps<{ fault?: string }>()
const area = ref<HTMLTextAreaElement>()

async function fit(): Promise<void> {
  await nextTick()
  // Where the style sheet does it, it does it better: also when the window gets narrower.
  if (!area.value || CSS.supports('field-sizing', 'content')) return
  area.value.style.height = 'auto'
  area.value.style.height = `${area.value.scrollHeight}px`
}
onMounted(fit)
watch(title, fit)
</script>

<template>
  <div class="field">
    <label class="out-of-sight" for="title">Title</label>
    <textarea
      id="title"
      ref="area"
      :class="{ long: title.length > 70 }"
      v-model="title"
      rows="1"
      placeholder="Title of the episode"
      maxlength="300"
      @keydown.enter.prevent
    />
    <span v-if="title.length > 40" class="hint"
      >Lists in apps show about 40 characters: “{{ title.slice(0, 40).trim() }}…”</span
    >
    <span v-if="fault" class="fault" role="alert">{{ fault }}</span>
  </div>
</template>

<style scoped>
textarea {
  width: 100%;
  padding: var(--space-1) 0;
  border: 0;
  border-bottom: 1px solid var(--edge-strong);
  background: transparent;
  color: var(--ink);
  font: 560 var(--text-2xl)/1.25 var(--serif);
  resize: none;
  field-sizing: content;
  overflow: hidden;
}
textarea.long {
  font-size: var(--text-xl);
}
textarea::placeholder {
  color: var(--ink-soft);
  opacity: 0.8;
}
textarea:focus-visible {
  outline: none;
  border-bottom: 2px solid var(--accent);
  margin-bottom: -1px;
}
</style>
