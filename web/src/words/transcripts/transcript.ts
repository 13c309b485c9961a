import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Transcript, TranscriptFacts, TranscriptSummary } from '@contract/transcripts'
import type { Cue } from '@core/transcript/cue'
import { doubtfulPlaces } from '@core/transcript/doubtful'
import { mergeCues, type Splice, spliceBetween, spliced } from '@core/transcript/splice'
import { api } from '../../platform/api'
import { ApiError, isSignedOut, passes } from '../../platform/api/client'
import { oneByOne } from '../../platform/saving/oneByOne'
import { unsentBox } from '../../platform/saving/unsent'
import type { Saving } from '../../show/episodes/desk'
import { t } from './messages'

const pauseMs = 700
const retryMs = 2_000
/** Typing in one cue is one thing to undo, as long as it goes on. */
const togetherMs = 1_500
const mostUndone = 300

const unsent = unsentBox<Splice & { version: number; atMs: number }>('lake-letter:unsent-cues')

/** The transcripts of the episode on the desk, and the one of them that is open. */
export const useTranscript = defineStore('transcript', () => {
  const list = shallowRef<readonly TranscriptSummary[]>([])
  const open = shallowRef<TranscriptSummary | null>(null)
  const cues = shallowRef<readonly Cue[]>([])
  const saving = ref<Exclude<Saving, 'undecided'>>('saved')
  const problem = ref('')
  /** What was found while a file was read, and cues of another window that lost to the ones here. */
  const remarks = shallowRef<readonly string[]>([])
  const lost = shallowRef<readonly Cue[]>([])
  /** The cue that somebody was at last. */
  const chosenId = ref<string>()
  const done = shallowRef<readonly (readonly Cue[])[]>([])
  const taken = shallowRef<readonly (readonly Cue[])[]>([])

  /** What the machine was not sure of. */
  const doubtful = computed(() => doubtfulPlaces(cues.value))
  /** How many things want the person. */
  const wants = computed(
    () => doubtful.value.length + [open.value && !open.value.fits, open.value?.isUnread].filter(Boolean).length,
  )

  /** Whether it is known what transcripts the episode has. */
  const isLoaded = ref(false)
  let episodeId: string | null = null
  let base: readonly Cue[] = []
  let lastStroke = { what: '', atMs: 0 }
  let timer: ReturnType<typeof setTimeout> | undefined
  let isSending = false

  async function load(id: string): Promise<void> {
    if (id !== episodeId) close()
    episodeId = id
    const fresh = await api.transcripts(id)
    if (id !== episodeId) return
    list.value = fresh
    const here = open.value && fresh.find(each => each.id === open.value!.id)
    if (!here) {
      await (fresh[0] ? show(fresh[0].id) : Promise.resolve(put(null)))
      isLoaded.value ||= id === episodeId
      return
    }
    if (here.version > open.value!.version && !isSending) {
      const newer = await api.transcript(here.id)
      // What was saved here meanwhile is newer still.
      if (newer.id === open.value?.id && newer.version > open.value.version) await takeNewer(newer)
    } else open.value = { ...here, version: open.value!.version }
  }

  function close(): void {
    clearTimeout(timer)
    episodeId = null
    list.value = []
    isLoaded.value = false
    put(null)
  }

  function put(whole: Transcript | null): void {
    open.value = whole
    cues.value = base = whole?.cues ?? []
    done.value = taken.value = []
    remarks.value = []
    lost.value = []
    chosenId.value = undefined
    problem.value = ''
    saving.value = 'saved'
  }

  async function show(id: string): Promise<void> {
    await send()
    const whole = await api.transcript(id)
    put(whole)
    const left = unsent.take(id, Date.now())
    if (!left) return
    if (left.version === whole.version) change(spliced(whole.cues, left), t('unsentPlace'))
    else remarks.value = [t('keptAside')]
  }

  /** Changes the cues; what is done under one name in a row is undone together. */
  function change(to: readonly Cue[], what = ''): void {
    if (to === cues.value) return
    const now = Date.now()
    const isGoingOn = what !== '' && what === lastStroke.what && now - lastStroke.atMs < togetherMs
    if (!isGoingOn) done.value = [...done.value.slice(-mostUndone), cues.value]
    lastStroke = { what, atMs: now }
    taken.value = []
    cues.value = to
    plan(pauseMs)
  }

  function undo(): void {
    const before = done.value.at(-1)
    if (!before) return
    done.value = done.value.slice(0, -1)
    taken.value = [...taken.value, cues.value]
    lastStroke = { what: '', atMs: 0 }
    cues.value = before
    plan(pauseMs)
  }
  function redo(): void {
    const after = taken.value.at(-1)
    if (!after) return
    taken.value = taken.value.slice(0, -1)
    done.value = [...done.value, cues.value]
    cues.value = after
    plan(pauseMs)
  }

  function plan(ms: number): void {
    const splice = spliceBetween(base, cues.value)
    clearTimeout(timer)
    if (!open.value) return
    if (!splice) {
      unsent.drop(open.value.id)
      saving.value = 'saved'
      return
    }
    if (saving.value !== 'waiting') saving.value = 'unsaved'
    keep(open.value, splice)
    timer = setTimeout(() => void send(), ms)
  }

  function keep({ id, version }: TranscriptSummary, splice: Splice): void {
    try {
      unsent.keep(id, { ...splice, version, atMs: Date.now() })
    } catch {
      // A browser has room for a few megabytes; what is larger is with the server in a moment.
    }
  }

  const send = oneByOne(async () => {
    clearTimeout(timer)
    const target = open.value
    const splice = spliceBetween(base, cues.value)
    if (!target || !splice) return
    isSending = true
    await sendSplice(target, splice, cues.value).finally(() => (isSending = false))
  })

  async function sendSplice(target: TranscriptSummary, splice: Splice, sent: readonly Cue[]): Promise<void> {
    try {
      const { cues: _cues, ...saved } = await api.changeCues(target.id, { version: target.version, ...splice })
      if (open.value?.id !== target.id) return
      base = sent
      takeSummary(saved)
      problem.value = ''
      plan(pauseMs)
    } catch (error) {
      if (open.value?.id !== target.id) return
      if (passes(error) || isSignedOut(error)) {
        saving.value = 'waiting'
        timer = setTimeout(() => void send(), retryMs)
      } else if (!(error instanceof ApiError)) throw error
      else if (error.problem.code === 'version-conflict') await takeNewer(error.problem.current as Transcript)
      else {
        saving.value = 'refused'
        problem.value = error.problem.faults?.[0]?.rule ?? error.problem.detail
      }
    }
  }

  /** Takes over what another window has made of it, with what is unsent here. */
  async function takeNewer(fresh: Transcript): Promise<void> {
    const merged = mergeCues(base, cues.value, fresh.cues)
    base = fresh.cues
    const { cues: _cues, ...summary } = fresh
    takeSummary(summary)
    cues.value = spliceBetween(base, merged.cues) ? merged.cues : base
    // What was done before that did not know of theirs, and would take it away.
    done.value = taken.value = []
    lost.value = merged.lost
    plan(0)
  }

  function takeSummary(summary: TranscriptSummary): void {
    open.value = summary
    list.value = list.value.map(each => (each.id === summary.id ? summary : each))
  }

  /** Reads a file into a language; throws ApiError where it is no transcript. */
  async function bring(language: string, file: Blob, name: string): Promise<void> {
    await send()
    const { remarks: said, ...whole } = await api.bringTranscript(episodeId!, language, file, name)
    put(whole)
    remarks.value = said
    list.value = await api.transcripts(episodeId!)
  }

  async function act(ask: (id: string, version: number) => Promise<Transcript>): Promise<void> {
    await send()
    const { id, version } = open.value!
    put(await ask(id, version))
    list.value = await api.transcripts(episodeId!)
  }
  const changeFacts = (facts: Omit<TranscriptFacts, 'version'>): Promise<void> =>
    act((id, version) => api.changeTranscript(id, { version, ...facts }))
  /** Has everything laid over the speech; what comes of it is told by the news. */
  const align = (): Promise<void> => act(id => api.alignTranscript(id))
  const bringBefore = (): Promise<void> => act(id => api.transcriptBefore(id))

  /** Takes it away; answers its id, by which it comes back. */
  async function remove(): Promise<string> {
    await send()
    const { id } = open.value!
    await api.removeTranscript(id)
    put(null)
    await load(episodeId!)
    return id
  }
  async function restore(id: string): Promise<void> {
    put(await api.restoreTranscript(id))
    list.value = await api.transcripts(episodeId!)
  }

  return {
    list: computed(() => list.value),
    open: computed(() => open.value),
    cues: computed(() => cues.value),
    saving,
    problem,
    remarks: computed(() => remarks.value),
    lost: computed(() => lost.value),
    chosenId,
    doubtful,
    wants,
    isLoaded,
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => taken.value.length > 0),
    load,
    close,
    show,
    change,
    undo,
    redo,
    send,
    bring,
    changeFacts,
    bringBefore,
    align,
    remove,
    restore,
  }
})
