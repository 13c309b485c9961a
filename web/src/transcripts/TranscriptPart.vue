<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import Button from 'primevue/button'
import { storeToRefs } from 'pinia'
import { v4 as uuidV4 } from 'uuid'
import { computed, nextTick, onMounted, onUnmounted, ref, watch } from 'vue'
import { pausesOf } from '@core/audio/pauses'
import { type Cue, isTimed } from '@core/transcript/cue'
import { joinCue, speakersIn, splitCue } from '@core/transcript/edit'
import { type CueFinding, cueFindings, isDoubtful } from '@core/transcript/findings'
import { formatsOf } from '@core/transcript/formats'
import { problemOf } from '../parts/problems'
import { usePlaying } from '../sound/playing'
import { useSound } from '../sound/sound'
import { useWaveforms } from '../sound/waveforms'
import CueRow from './CueRow.vue'
import FindWords from './FindWords.vue'
import MoveTimes from './MoveTimes.vue'
import NewTranscript from './NewTranscript.vue'
import SpeakerNames from './SpeakerNames.vue'
import { useTranscript } from './transcript'
import { languageName } from './words'

/** What is said, corrected against the sound. */
const props = defineProps<{ showLanguage: string; people: readonly string[] }>()
const transcript = useTranscript()
const { list, open, cues, saving, problem, remarks, lost, canUndo, canRedo } = storeToRefs(transcript)
const { sound } = storeToRefs(useSound())
const playing = usePlaying()
const waves = useWaveforms()

const language = ref(props.showLanguage.toLowerCase())
const isAdding = ref(false)
const tool = ref<'find' | 'times' | 'speakers' | null>(null)
const busy = ref(false)
const bringProblem = ref('')
const removed = ref<string | null>(null)
const box = ref<HTMLElement | null>(null)
const chosenId = ref<string>()

const source = computed(() => sound.value?.source ?? null)
const speakers = computed(() => [...new Set([...props.people, ...speakersIn(cues.value)])])
const formats = computed(() => formatsOf({ cues: cues.value as Cue[] }))
const isTimedAny = computed(() => cues.value.some(isTimed))

/** Which cue is heard; between two, the one that was. */
const heardAt = computed(() => {
  const at = playing.atMs + 30
  return playing.player ? cues.value.findLastIndex(cue => cue.fromMs !== null && cue.fromMs <= at) : -1
})

// Looking through thousands of cues waits until nobody types.
const findings = ref<readonly CueFinding[]>([])
let lookTimer: ReturnType<typeof setTimeout> | undefined
const lookPauseMs = 400
watch(
  () => [cues.value, source.value?.id, source.value && waves.waveforms[source.value.id]] as const,
  () => {
    clearTimeout(lookTimer)
    lookTimer = setTimeout(look, findings.value.length === 0 ? 0 : lookPauseMs)
  },
  { immediate: true },
)
function look(): void {
  const waveform = source.value && waves.waveforms[source.value.id]
  findings.value = cueFindings(cues.value, source.value?.durationMs ?? null, waveform ? pausesOf(waveform) : null)
}
const codesOf = computed(() => {
  const codes = new Map<string, CueFinding['code'][]>()
  for (const { id, code } of findings.value) if (id) codes.set(id, [...(codes.get(id) ?? []), code])
  return codes
})
const doubtfulCount = computed(() => cues.value.filter(isDoubtful).length)

const virtual = useVirtualizer(
  computed(() => ({
    count: cues.value.length,
    getScrollElement: () => box.value,
    estimateSize: () => 34,
    getItemKey: (index: number) => cues.value[index]?.id ?? index,
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

async function focusAt(index: number, caret: 'start' | 'end' | number): Promise<void> {
  const cue = cues.value[index]
  if (!cue) return
  virtual.value.scrollToIndex(index)
  for (let tries = 0; tries < 10; tries++) {
    await nextTick()
    await new Promise(requestAnimationFrame)
    const field = box.value?.querySelector<HTMLTextAreaElement>(`[data-cue="${cue.id}"] textarea`)
    if (!field) continue
    field.focus()
    const at = caret === 'start' ? 0 : caret === 'end' ? field.value.length : caret
    field.setSelectionRange(at, at)
    return
  }
}
async function split(index: number, offset: number): Promise<void> {
  const cue = cues.value[index]!
  const to = splitCue(cues.value, cue.id, offset, uuidV4(), playing.player?.isPlaying ? playing.atMs : undefined)
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
/** Leads to the next place that the machine was not sure of, behind where somebody is. */
async function nextDoubtful(): Promise<void> {
  const from = cues.value.findIndex(({ id }) => id === chosenId.value)
  const order = [...cues.value.slice(from + 1), ...cues.value.slice(0, from + 1)]
  const cue = order.find(isDoubtful)
  if (!cue) return
  chosenId.value = cue.id
  if (isTimed(cue)) playing.player?.playStretch(Math.max(0, cue.fromMs - 300), cue.toMs + 300)
  await focusAt(cues.value.indexOf(cue), 'start')
}
function nextFinding(): void {
  const ids = findings.value.map(({ id }) => id).filter(id => id !== null)
  const at = ids.indexOf(chosenId.value ?? '')
  const id = ids[(at + 1) % ids.length]
  if (id) goTo(id)
}

const rates = [1, 0.8, 0.6]
const acts: Readonly<Record<string, () => void>> = {
  KeyP: () => playing.player?.toggle(),
  KeyB: () => playing.player?.seek(Math.max(0, playing.atMs - 3000)),
  KeyS: () => playing.player?.setRate(rates[(rates.indexOf(playing.player.rate) + 1) % rates.length]!),
  KeyN: () => void nextDoubtful(),
}
/** Alt and a letter work from anywhere; undo goes over the cues as long as one of them is written in. */
function onKey(event: KeyboardEvent): void {
  const act = event.altKey && !event.ctrlKey && !event.metaKey ? acts[event.code] : undefined
  if (!act) return
  event.preventDefault()
  act()
}
function onUndo(event: KeyboardEvent): void {
  const key = event.key.toLowerCase()
  if (!(event.ctrlKey || event.metaKey) || event.altKey || (key !== 'z' && key !== 'y')) return
  if ((event.target as Element).closest('form')) return
  event.preventDefault()
  if (key === 'y' || event.shiftKey) transcript.redo()
  else transcript.undo()
}
onMounted(() => window.addEventListener('keydown', onKey))
onUnmounted(() => {
  window.removeEventListener('keydown', onKey)
  clearTimeout(lookTimer)
})

// What is heard stays in sight while it plays, unless somebody writes.
watch(heardAt, index => {
  const isWriting = document.activeElement instanceof HTMLTextAreaElement && box.value?.contains(document.activeElement)
  if (index >= 0 && playing.player?.isPlaying && !isWriting) virtual.value.scrollToIndex(index, { align: 'auto' })
})

async function bring(file: Blob, name: string): Promise<void> {
  await attempt(async () => {
    await transcript.bring(language.value, file, name)
    isAdding.value = false
  })
}
async function attempt(act: () => Promise<unknown>): Promise<void> {
  busy.value = true
  bringProblem.value = ''
  try {
    await act()
  } catch (error) {
    bringProblem.value = problemOf(error, 'The transcript was left as it is.').detail
  } finally {
    busy.value = false
  }
}
const remove = (): Promise<void> =>
  attempt(async () => {
    removed.value = await transcript.remove()
  })
const restore = (id: string): Promise<void> =>
  attempt(async () => {
    await transcript.restore(id)
    removed.value = null
  })
const formatNames = { vtt: 'WebVTT', srt: 'SubRip', json: 'JSON', html: 'HTML', txt: 'text' } as const
const savingWords = computed(
  () =>
    ({ saved: 'Saved', unsaved: 'Saving …', waiting: 'Not saved yet; it is tried again', refused: 'Not saved' })[
      saving.value
    ],
)
defineExpose({ bring, goTo })
</script>

<template>
  <div class="transcript-part" data-draft @keydown.capture="onUndo">
    <datalist id="transcript-speakers"><option v-for="name in speakers" :key="name" :value="name" /></datalist>
    <p v-if="removed" class="note" role="status">
      The transcript was removed.
      <button type="button" class="link-button" @click="restore(removed)">Bring it back</button>
    </p>
    <template v-if="open && !isAdding">
      <div class="line">
        <span class="languages" role="group" aria-label="Languages">
          <button
            v-for="each in list"
            :key="each.id"
            type="button"
            class="language"
            :aria-pressed="each.id === open.id"
            @click="transcript.show(each.id)"
          >
            {{ languageName(each.language) }}{{ each.isSpoken ? ', spoken' : '' }}
          </button>
          <button type="button" class="link-button small" @click="isAdding = true">Another file or language</button>
        </span>
        <span class="small quiet figures" role="status" data-testid="cues-saving"
          >{{ cues.length === 1 ? 'One cue' : `${cues.length.toLocaleString('en')} cues` }} · {{ savingWords }}</span
        >
        <button type="button" class="link-button small" :disabled="!canUndo" @click="transcript.undo">Undo</button>
        <button type="button" class="link-button small" :disabled="!canRedo" @click="transcript.redo">Redo</button>
      </div>
      <div v-if="!open.fits" class="note needs-you">
        <h3>The audio is another one now</h3>
        <p>
          The times are those of the audio before. Have them laid anew, move or stretch them, or say that they are
          right.
        </p>
        <div class="actions">
          <Button size="small" label="Lay it anew" :disabled="busy" @click="attempt(transcript.lay)" />
          <Button size="small" outlined label="Move the times" @click="tool = 'times'" />
          <Button
            size="small"
            text
            label="They are right"
            @click="attempt(() => transcript.changeFacts({ fits: true }))"
          />
        </div>
      </div>
      <p v-if="open.laying === 'working'" class="note" role="status">
        It is being laid over the speech: spoken by a machine, and both compared. An hour takes about a minute.
      </p>
      <p v-else-if="open.laying === 'failed'" class="note needs-you" role="alert">
        It could not be laid over the speech. Is it of this audio? The times are as they were; try again.
      </p>
      <p v-else-if="open.laying === 'overtaken'" class="note needs-you" role="alert">
        Something was written while it was being laid, and stands as it is. Lay it again.
      </p>
      <div v-if="open.isUnread" class="note needs-you">
        <h3>A draft that nobody has read</h3>
        <p>
          {{ doubtfulCount === 1 ? 'One place is' : `${doubtfulCount} places are` }} doubtful. Alt N leads from one to
          the next and plays it.
        </p>
        <div class="actions">
          <Button size="small" label="Next doubtful place" :disabled="!doubtfulCount" @click="nextDoubtful" />
          <Button
            size="small"
            text
            label="I have read it"
            @click="attempt(() => transcript.changeFacts({ isUnread: false }))"
          />
        </div>
      </div>
      <p v-for="remark in remarks" :key="remark" class="small quiet" role="status">{{ remark }}</p>
      <p v-if="lost.length" class="note needs-you" role="status">
        Another window changed {{ lost.length === 1 ? 'a cue' : `${lost.length} cues` }} that you changed, too. Yours
        stand. Theirs: “{{
          lost
            .map(({ text }) => text)
            .join(' ')
            .slice(0, 300)
        }}”
      </p>
      <div class="line tools">
        <span class="actions">
          <Button
            size="small"
            :outlined="tool !== 'find'"
            label="Find"
            :aria-expanded="tool === 'find'"
            @click="tool = tool === 'find' ? null : 'find'"
          />
          <Button
            size="small"
            :outlined="tool !== 'times'"
            label="Move times"
            :aria-expanded="tool === 'times'"
            @click="tool = tool === 'times' ? null : 'times'"
          />
          <Button
            size="small"
            :outlined="tool !== 'speakers'"
            label="Who speaks"
            :aria-expanded="tool === 'speakers'"
            @click="tool = tool === 'speakers' ? null : 'speakers'"
          />
          <Button
            v-if="source && !source.address"
            size="small"
            :outlined="open.isTimed"
            :label="open.isTimed ? 'Lay it anew' : 'Lay it over the speech'"
            title="Finds when each sentence is said; what somebody has set stays"
            :loading="open.laying === 'working'"
            :disabled="busy || open.laying === 'working'"
            @click="attempt(transcript.lay)"
          />
          <button v-if="findings.length" type="button" class="link-button small" @click="nextFinding">
            {{ findings.length === 1 ? 'One place' : `${findings.length} places` }} worth a look
          </button>
        </span>
        <span class="small files">
          Take along:
          <a v-for="format in formats" :key="format" :href="`/api/v1/transcripts/${open.id}/file.${format}`" download>{{
            formatNames[format]
          }}</a>
          <button v-if="open.hasBefore" type="button" class="link-button" @click="attempt(transcript.bringBefore)">
            What was here before
          </button>
          <button
            v-if="!open.isSpoken"
            type="button"
            class="link-button"
            @click="attempt(() => transcript.changeFacts({ isSpoken: true }))"
          >
            This is spoken
          </button>
          <button type="button" class="link-button" @click="remove">Remove</button>
        </span>
      </div>
      <FindWords v-if="tool === 'find'" :cues="cues" @look="goTo" @change="all => transcript.change(all)" />
      <MoveTimes
        v-if="tool === 'times'"
        :cues="cues"
        :chosen-id="chosenId"
        :at-ms="playing.atMs"
        @change="all => transcript.change(all)"
      />
      <SpeakerNames v-if="tool === 'speakers'" :cues="cues" @change="all => transcript.change(all)" />
      <p v-if="problem || bringProblem" class="fault" role="alert">{{ problem || bringProblem }}</p>
      <div ref="box" class="cues" role="list" aria-label="Cues" tabindex="-1">
        <div :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
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
              :is-heard="row.index === heardAt"
              :codes="codesOf.get(cues[row.index]!.id) ?? []"
              @change="(part, what) => change(cues[row.index]!.id, part, what)"
              @split="offset => split(row.index, offset)"
              @join="join(row.index)"
              @remove="transcript.change(cues.filter((_cue, index) => index !== row.index))"
              @hear="hear(cues[row.index]!)"
              @leave="
                towards => focusAt(row.index + (towards === 'after' ? 1 : -1), towards === 'after' ? 'start' : 'end')
              "
              @shift="tool = 'times'"
            />
          </div>
        </div>
      </div>
      <p class="small quiet keys">
        Enter splits, Backspace at the beginning joins, Shift Enter breaks a line<template
          v-if="isTimedAny && playing.player"
          >; Alt P plays and pauses, Alt B goes back 3 s, Alt S is slower ({{ playing.player.rate }}×), Alt N leads to
          the next doubtful place</template
        >.
      </p>
    </template>
    <template v-else>
      <button v-if="isAdding" type="button" class="link-button small back" @click="isAdding = false">
        Back to the transcript
      </button>
      <NewTranscript v-model:language="language" :busy="busy" :problem="bringProblem" @file="bring" />
    </template>
  </div>
</template>

<style scoped>
.transcript-part {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-2);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-3);
  align-items: center;
}
.languages {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-2);
  align-items: center;
}
.language {
  min-height: 28px;
  padding: 0 var(--space-2);
  border: 1px solid var(--edge);
  border-radius: var(--round);
  background: none;
  color: inherit;
  cursor: pointer;
}
.language[aria-pressed='true'] {
  border-color: var(--accent);
  background: var(--accent-wash);
  font-weight: 600;
}
.tools {
  justify-content: space-between;
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-2);
  align-items: baseline;
}
.cues {
  height: max(18rem, calc(100vh - 30rem));
  overflow-y: auto;
  border: 1px solid var(--edge);
  border-radius: var(--round);
  background: var(--sheet);
  overflow-anchor: none;
}
.row {
  position: absolute;
  inset-inline: 0;
  top: 0;
}
.keys {
  color: var(--ink-soft);
}
.back {
  justify-self: start;
}
</style>
