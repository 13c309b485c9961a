<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { letters } from '@core/words/line'
import { cutForList, listLetters } from '@core/words/listCut'
import { locale } from '../../platform/messages'
import { t } from './messages'

const title = defineModel<string>({ required: true })
/** `told` is how the show’s pattern tells it to the world. */
const props = defineProps<{ told: string; fault?: string }>()
/** How the lists of apps cut it, narrow ones and wide ones; nothing where it fits. */
const cuts = computed(() =>
  listLetters.filter(most => letters(props.told) > most).map(most => cutForList(props.told, most)),
)
const either = new Intl.ListFormat(locale, { type: 'disjunction' })
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
    <label class="out-of-sight" for="title">{{ t('title') }}</label>
    <textarea
      id="title"
      ref="area"
      :class="{ long: title.length > 70 }"
      v-model="title"
      rows="1"
      :placeholder="t('titlePlaceholder')"
      maxlength="300"
      @keydown.enter.prevent
    />
    <span v-if="cuts.length" class="hint" data-testid="cuts">{{
      t('inLists', { cuts: either.format(cuts.map(line => `“${line}”`)) })
    }}</span>
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
