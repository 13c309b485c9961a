<script setup lang="ts">
import { ArrowRightToLine, X } from '@lucide/vue'
import { computed, ref, watch } from 'vue'
import { type Cue } from '@core/transcript/cue'
import { accepted, doubtfulWords, isTimeDoubtful } from '@core/transcript/doubtful'
import type { CueFindingCode } from '@core/transcript/findings'
import { timestampText, readTimestamp } from '@core/words/timestamps'
import IconButton from '../../platform/parts/IconButton.vue'
import { findingNames, findingWords } from './words'
import { t } from './messages'

/** One cue: when, who and what. Enter splits it where the cursor is, Backspace at its beginning joins it to the one before. */
const props = defineProps<{ cue: Cue; place: number; isHeard: boolean; codes: readonly CueFindingCode[] }>()
const emit = defineEmits<{
  change: [part: Partial<Cue>, what: string]
  split: [offset: number]
  join: []
  remove: []
  hear: []
  leave: [towards: 'before' | 'after']
  shift: []
}>()
const from = ref('')
const to = ref('')
watch(
  () => [props.cue.fromMs, props.cue.toMs] as const,
  ([fromMs, toMs]) => {
    from.value = fromMs === null ? '' : timestampText(fromMs)
    to.value = toMs === null ? '' : timestampText(toMs)
  },
  { immediate: true },
)
const name = computed(() => t('cueNumber', { number: props.place + 1 }))
const says = computed(() => props.codes.map(code => findingNames[code]).join(' · '))
const why = computed(() => props.codes.map(code => findingWords[code]).join(' '))
const doubts = computed(() => doubtfulWords(props.cue))
const lines = computed(() => props.cue.text.split('\n').length)

function setTime(which: 'fromMs' | 'toMs'): void {
  const text = which === 'fromMs' ? from : to
  const ms = readTimestamp(text.value)
  const now = props.cue[which]
  if (ms !== null && (now === null || ms !== Math.round(now / 100) * 100)) {
    const other = which === 'fromMs' ? 'toMs' : 'fromMs'
    // Who says when it is said means it; what has only one of the two times gets both.
    emit(
      'change',
      { [which]: ms, ...(props.cue[other] === null && { [other]: ms }), isPinned: true, sure: undefined },
      '',
    )
  } else text.value = now === null ? '' : timestampText(now)
}

function onKey(event: KeyboardEvent): void {
  const field = event.target as HTMLTextAreaElement
  const { selectionStart: at, selectionEnd: end, value } = field
  if (event.key === 'Enter' && !event.shiftKey && !event.isComposing) {
    event.preventDefault()
    emit('split', at)
  } else if (event.key === 'Backspace' && at === 0 && end === 0 && props.place > 0) {
    event.preventDefault()
    emit('join')
  } else if (event.key === 'ArrowUp' && !value.slice(0, at).includes('\n') && at === 0) {
    event.preventDefault()
    emit('leave', 'before')
  } else if (event.key === 'ArrowDown' && at === value.length) {
    event.preventDefault()
    emit('leave', 'after')
  }
}
</script>

<template>
  <div class="cue" :class="{ heard: isHeard, wants: codes.length }" role="listitem" :data-cue="cue.id">
    <button
      type="button"
      class="place figures quiet small"
      :aria-label="t('playNamed', { name })"
      :title="t('play')"
      @click="emit('hear')"
    >
      {{ place + 1 }}
    </button>
    <input
      v-model="from"
      class="time figures"
      :aria-label="t('whenBegins', { name })"
      @change="setTime('fromMs')"
      @keydown.enter.prevent="setTime('fromMs')"
    />
    <input
      v-model="to"
      class="time figures"
      :aria-label="t('whenEnds', { name })"
      @change="setTime('toMs')"
      @keydown.enter.prevent="setTime('toMs')"
    />
    <input
      class="speaker"
      list="transcript-speakers"
      :value="cue.speaker ?? ''"
      :aria-label="t('whoSays', { name })"
      :placeholder="t('who')"
      maxlength="120"
      @change="event => emit('change', { speaker: (event.target as HTMLInputElement).value.trim() || null }, '')"
    />
    <textarea
      class="text"
      :rows="lines"
      :value="cue.text"
      :aria-label="t('wordsOf', { name })"
      maxlength="5000"
      @input="event => emit('change', { text: (event.target as HTMLTextAreaElement).value }, cue.id)"
      @keydown="onKey"
    />
    <span class="flex">
      <IconButton :name="t('moveAndAfter', { name })" :icon="ArrowRightToLine" @click="emit('shift')" />
      <IconButton :name="t('removeNamed', { name })" :icon="X" @click="emit('remove')" />
    </span>
    <p v-if="says" class="says small quiet" :title="why">
      {{ says }}
      <button
        v-if="isTimeDoubtful(cue)"
        type="button"
        class="small-button"
        @click="emit('change', { sure: undefined }, '')"
      >
        {{ t('markAsCorrect') }}
      </button>
      <button
        v-for="{ words, at } in doubts"
        :key="at"
        type="button"
        class="small-button"
        @click="emit('change', accepted(cue, at), '')"
      >
        {{ t('wordsAreRight', { words }) }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.cue {
  display: grid;
  grid-template-columns: 2.6rem 5rem 5rem 8rem minmax(0, 1fr) auto;
  gap: 2px var(--space-1);
  align-items: start;
  padding: 2px var(--space-1);
  border-inline-start: 3px solid transparent;
}
.heard {
  border-inline-start-color: var(--accent);
  background: var(--accent-wash);
}
.place {
  min-width: var(--target);
  min-height: max(28px, var(--target));
  padding: 0 2px;
  border: 0;
  background: none;
  text-align: end;
  cursor: pointer;
}
.place:hover {
  color: var(--accent);
  text-decoration: underline;
}
input,
textarea {
  min-height: max(28px, var(--target));
  padding: 2px 5px;
  border: 1px solid transparent;
  border-radius: var(--round);
  background: none;
  color: inherit;
  font: inherit;
  line-height: 1.45;
}
input:hover,
textarea:hover {
  border-color: var(--edge);
}
input:focus,
textarea:focus {
  border-color: var(--accent);
  background: var(--sheet);
  outline: 1px solid var(--accent);
}
.time,
.speaker {
  width: 100%;
  font-size: var(--text-s);
}
.speaker {
  font-weight: 600;
  text-overflow: ellipsis;
}
textarea {
  width: 100%;
  resize: none;
  overflow: hidden;
  field-sizing: content;
}
.wants textarea {
  border-bottom: 1px dashed var(--edge-strong);
}
.says {
  grid-column: 5 / -1;
  margin: 0;
  padding-inline-start: 6px;
  line-height: 1.2;
}
@media (max-width: 620px) {
  .cue {
    grid-template-columns: 2.2rem 4.6rem 4.6rem minmax(0, 1fr) auto;
  }
  .text,
  .says {
    grid-column: 1 / -1;
  }
  .text {
    grid-row: 2;
  }
}
</style>
