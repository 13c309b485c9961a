<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { storeToRefs } from 'pinia'
import { computed, nextTick, onUnmounted, ref, watch } from 'vue'
import { type Cue, isTimed } from '@core/transcript/cue'
import { speakersIn } from '@core/transcript/edit'
import { accepted, placeAfter } from '@core/transcript/doubtful'
import { type CueFinding, cueFindings } from '@core/transcript/findings'
import { formatsOf } from '@core/transcript/formats'
import { useAttempt } from '../../platform/parts/attempt'
import LoadingShape from '../../platform/parts/LoadingShape.vue'
import { usePlaying } from '../../production/sound/playing'
import { useSound } from '../../production/sound/sound'
import { vOpened } from '../../platform/parts/opened'
import CueList from './CueList.vue'
import { useDeskCues } from './deskCues'
import DraftState from './DraftState.vue'
import { useDrafting } from './drafting'
import FindWords from './FindWords.vue'
import MoveTimes from './MoveTimes.vue'
import NewTranscript from './NewTranscript.vue'
import SpeakerNames from './SpeakerNames.vue'
import TranscriptBar from './TranscriptBar.vue'
import TranscriptNotes from './TranscriptNotes.vue'
import TranscriptTools, { type TranscriptTool } from './TranscriptTools.vue'
import { useTranscript } from './transcript'
import { t } from './messages'

/** What is said, corrected against the sound. */
const props = defineProps<{ showLanguage: string; people: readonly string[] }>()
const transcript = useTranscript()
const drafting = useDrafting()
const { open, cues, problem, chosenId } = storeToRefs(transcript)
const { sound } = storeToRefs(useSound())
const playing = usePlaying()
const { pauses } = useDeskCues()

const language = ref(props.showLanguage.toLowerCase())
const isAdding = ref(false)
const tool = ref<TranscriptTool | null>(null)
const { problem: bringProblem, busy, attempt } = useAttempt(t('transcriptUnchanged'))
const removed = ref<string | null>(null)
const cueList = ref<InstanceType<typeof CueList>>()

const source = computed(() => sound.value?.source ?? null)
const speakers = ref<readonly string[]>(props.people)
const formats = computed(() => formatsOf({ cues: cues.value as Cue[] }))
const isTimedAny = computed(() => cues.value.some(isTimed))

// Looking through thousands of cues waits until nobody types.
const findings = ref<readonly CueFinding[]>([])
let lookTimer: ReturnType<typeof setTimeout> | undefined
const lookPauseMs = 400
watch(
  () => [cues.value, source.value?.id, pauses.value] as const,
  () => {
    clearTimeout(lookTimer)
    lookTimer = setTimeout(look, findings.value.length === 0 ? 0 : lookPauseMs)
  },
  { immediate: true },
)
function look(): void {
  speakers.value = [...new Set([...props.people, ...speakersIn(cues.value)])]
  // As long as no transcript is open, there is nothing of which words could be missing.
  findings.value = open.value ? cueFindings(cues.value, source.value?.durationMs ?? null, pauses.value) : []
}
const codesOf = computed(() => {
  const codes = new Map<string, CueFinding['code'][]>()
  for (const { id, code } of findings.value) if (id) codes.set(id, [...(codes.get(id) ?? []), code])
  return codes
})

function goTo(id: string): void {
  cueList.value?.goTo(id)
}
/** Leads to the next place that the machine was not sure of, behind where somebody is, and lets it be heard. */
async function nextDoubtful(): Promise<void> {
  const { index, end } = whereSomebodyIs()
  const place = placeAfter(transcript.doubtful, { index, at: end })
  const cue = place && cues.value[place.index]
  if (!cue) return
  chosenId.value = cue.id
  if (isTimed(cue)) playing.player?.playStretch(Math.max(0, cue.fromMs - 300), cue.toMs + 300)
  await cueList.value?.focusAt(place.index, place)
}
/** Says that what somebody is at is right as it stands, and leads on. */
async function right(): Promise<void> {
  const { index, begin } = whereSomebodyIs()
  const place = transcript.doubtful.find(each => each.index === index && (each.length === 0 || each.at === begin))
  if (place) {
    const part = place.length === 0 ? { sure: undefined } : accepted(cues.value[index]!, place.at)
    cueList.value?.change(cues.value[index]!.id, part, '')
  }
  await nextDoubtful()
}
/** The cue that was chosen last, and what is chosen in its words. */
function whereSomebodyIs(): { index: number; begin: number; end: number } {
  const index = cues.value.findIndex(({ id }) => id === chosenId.value)
  const [begin, end] = cueList.value?.chosenWords() ?? [0, 0]
  // A cue of which nothing is chosen is left behind.
  return begin === end ? { index, begin, end: end + 1 } : { index, begin, end }
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
  KeyR: () => void right(),
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
useEventListener('keydown', onKey)
onUnmounted(() => clearTimeout(lookTimer))

const draft = (wanted: string): Promise<boolean> =>
  attempt(async () => {
    await drafting.begin(wanted)
    isAdding.value = false
  })
async function bring(file: Blob, name: string): Promise<void> {
  await attempt(async () => {
    await transcript.bring(language.value, file, name)
    isAdding.value = false
  })
}
/** Opens the times anew for the cue of a row, also where they are open for another one. */
async function moveTimes(): Promise<void> {
  tool.value = null
  await nextTick()
  tool.value = 'times'
}
const remove = (): Promise<boolean> =>
  attempt(async () => {
    removed.value = await transcript.remove()
  })
const restore = (id: string): Promise<boolean> =>
  attempt(async () => {
    await transcript.restore(id)
    removed.value = null
  })
defineExpose({ bring, goTo })
</script>

<template>
  <div class="stacked" data-draft @keydown.capture="onUndo">
    <datalist id="transcript-speakers"><option v-for="name in speakers" :key="name" :value="name" /></datalist>
    <p v-if="removed" class="note" role="status">
      {{ t('transcriptRemoved') }}
      <button type="button" class="small-button" @click="restore(removed)">{{ t('restoreIt') }}</button>
    </p>
    <DraftState
      v-if="drafting.draft"
      :draft="drafting.draft"
      :busy="busy"
      @again="draft(drafting.draft.language)"
      @stop="attempt(drafting.stop)"
    />
    <template v-if="open && !isAdding">
      <TranscriptBar @add="isAdding = true" />
      <TranscriptNotes
        :open="open"
        :busy="busy"
        @align="attempt(transcript.align)"
        @move="tool = 'times'"
        @next="nextDoubtful"
        @facts="facts => attempt(() => transcript.changeFacts(facts))"
      />
      <TranscriptTools
        v-model="tool"
        :open="open"
        :formats="formats"
        :places="findings.length"
        :can-align="source !== null && !source.address"
        :busy="busy"
        @align="attempt(transcript.align)"
        @next="nextFinding"
        @before="attempt(transcript.bringBefore)"
        @spoken="attempt(() => transcript.changeFacts({ isSpoken: true }))"
        @remove="remove"
      />
      <FindWords
        v-if="tool === 'find'"
        v-opened="() => (tool = null)"
        :cues="cues"
        @look="goTo"
        @change="all => transcript.change(all)"
      />
      <MoveTimes
        v-if="tool === 'times'"
        v-opened="() => (tool = null)"
        :cues="cues"
        :chosen-id="chosenId"
        :at-ms="playing.atMs"
        @change="all => transcript.change(all)"
      />
      <SpeakerNames
        v-if="tool === 'speakers'"
        v-opened="() => (tool = null)"
        :cues="cues"
        @change="all => transcript.change(all)"
      />
      <p v-if="problem || bringProblem" class="fault" role="alert">{{ problem || bringProblem?.detail }}</p>
      <CueList ref="cueList" v-model:chosen-id="chosenId" :codes-of="codesOf" @move="moveTimes" />
      <p class="small quiet">
        {{ isTimedAny && playing.player ? t('cueAndPlayKeys', { rate: playing.player.rate }) : t('cueKeys') }}
      </p>
    </template>
    <LoadingShape v-else-if="!transcript.isLoaded" :what="t('theTranscript')" :lines="8" />
    <template v-else>
      <button v-if="isAdding" type="button" class="small-button justify-self-start" @click="isAdding = false">
        {{ t('backToTheTranscript') }}
      </button>
      <NewTranscript
        v-model:language="language"
        :busy="busy"
        :problem="bringProblem?.detail ?? ''"
        :transcription-host="drafting.draft ? null : drafting.transcriptionHost"
        :has-audio="source !== null"
        @file="bring"
        @draft="draft(language)"
      />
    </template>
  </div>
</template>
