<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { storeToRefs } from 'pinia'
import { v4 as uuidV4 } from 'uuid'
import { computed, nextTick, ref, watch } from 'vue'
import { type Cue, isTimed } from '@core/transcript/cue'
import { heardAt, joinCue, splitCue } from '@core/transcript/edit'
import type { CueFindingCode } from '@core/transcript/findings'
import { usePlaying } from '../../production/sound/playing'
import CueRow from './CueRow.vue'
import { useTranscript } from './transcript'
import { t } from './messages'

/** The cues themselves: thousands can be scrolled through and written in; the one that is heard stays in sight. */
const chosenId = defineModel<string | undefined>('chosenId', { required: true })
defineProps<{ codesOf: ReadonlyMap<string, readonly CueFindingCode[]> }>()
const emit = defineEmits<{ move: [] }>()
const transcript = useTranscript()
const { cues } = storeToRefs(transcript)
const playing = usePlaying()
const box = ref<HTMLElement | null>(null)

/** Which cue is heard; between two, the one that was. */
const heard = computed(() => (playing.player ? heardAt(cues.value, playing.atMs) : -1))
watch(heard, index => {
  const isWriting = document.activeElement instanceof HTMLTextAreaElement && box.value?.contains(document.activeElement)
  if (index >= 0 && playing.player?.isPlaying && !isWriting) virtual.value.scrollToIndex(index, { align: 'auto' })
})

const usualHeight = 34
const count = computed(() => cues.value.length)
// One function for good: another one would have all rows measured anew at each key.
const keyOf = (index: number): string | number => cues.value[index]?.id ?? index
const virtual = useVirtualizer(
  computed(() => ({
    count: count.value,
    getScrollElement: () => box.value,
    estimateSize: () => usualHeight,
    getItemKey: keyOf,
    overscan: 12,
  })),
)
const rows = computed(() => virtual.value.getVirtualItems().filter(({ index }) => index < cues.value.length))

const change = (id: string, part: Partial<Cue>, what: string): void =>
  transcript.change(
    cues.value.map(cue => (cue.id === id ? withoutUnset({ ...cue, ...part }) : cue)),
    what && `type ${what}`,
  )
/** What is set to nothing is not there, in the file as well. */
const withoutUnset = (cue: Cue): Cue =>
  Object.fromEntries(Object.entries(cue).filter(([, value]) => value !== undefined)) as unknown as Cue

/** Puts the cursor into a cue, as soon as it is drawn. */
async function focusAt(index: number, caret: 'start' | 'end' | number | { at: number; length: number }): Promise<void> {
  const cue = cues.value[index]
  if (!cue) return
  virtual.value.scrollToIndex(index)
  for (let tries = 0; tries < 10; tries++) {
    await nextTick()
    await new Promise(requestAnimationFrame)
    const field = box.value?.querySelector<HTMLTextAreaElement>(`[data-cue="${cue.id}"] textarea`)
    if (!field) continue
    field.focus()
    if (typeof caret === 'object') field.setSelectionRange(caret.at, caret.at + caret.length)
    else {
      const at = caret === 'start' ? 0 : caret === 'end' ? field.value.length : caret
      field.setSelectionRange(at, at)
    }
    return
  }
}
async function split(index: number, offset: number): Promise<void> {
  const at = playing.player?.isPlaying ? playing.atMs : undefined
  const to = splitCue(cues.value, cues.value[index]!.id, offset, uuidV4(), at)
  if (to.length === cues.value.length) return
  transcript.change(to)
  await focusAt(index + 1, 'start')
}
async function join(index: number): Promise<void> {
  const caret = cues.value[index - 1]!.text.trim().length
  transcript.change(joinCue(cues.value, cues.value[index]!.id))
  await focusAt(index - 1, caret)
}
function hear(cue: Cue): void {
  if (!isTimed(cue)) return
  chosenId.value = cue.id
  playing.player?.seek(cue.fromMs)
  if (playing.player && !playing.player.isPlaying) playing.player.toggle()
}
function goTo(id: string): void {
  const index = cues.value.findIndex(cue => cue.id === id)
  if (index >= 0) virtual.value.scrollToIndex(index, { align: 'center' })
  chosenId.value = id
}
/** From where to where words of the cue that is written in are chosen. */
function chosenWords(): [begin: number, end: number] | null {
  const field = document.activeElement
  if (!(field instanceof HTMLTextAreaElement) || !box.value?.contains(field)) return null
  return [field.selectionStart, field.selectionEnd]
}
defineExpose({ goTo, focusAt, change, chosenWords })
</script>

<template>
  <div ref="box" class="cues boxed" role="list" :aria-label="t('cues')" tabindex="-1">
    <div class="all relative" :style="{ height: `${virtual.getTotalSize()}px` }">
      <div
        v-for="row in rows"
        :key="String(row.key)"
        :ref="element => virtual.measureElement(element as Element | null)"
        :data-index="row.index"
        class="row"
        :style="{ transform: `translateY(${row.start}px)` }"
        @focusin="chosenId = cues[row.index]!.id"
      >
        <CueRow
          :cue="cues[row.index]!"
          :place="row.index"
          :is-heard="row.index === heard"
          :codes="codesOf.get(cues[row.index]!.id) ?? []"
          @change="(part, what) => change(cues[row.index]!.id, part, what)"
          @split="offset => split(row.index, offset)"
          @join="join(row.index)"
          @remove="transcript.change(cues.filter((_cue, index) => index !== row.index))"
          @hear="hear(cues[row.index]!)"
          @leave="towards => focusAt(row.index + (towards === 'after' ? 1 : -1), towards === 'after' ? 'start' : 'end')"
          @shift="emit('move')"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.cues {
  height: max(18rem, calc(100vh - 30rem));
  overflow-y: auto;
  overflow-anchor: none;
}
.row {
  position: absolute;
  inset-inline: 0;
  top: 0;
}
</style>
