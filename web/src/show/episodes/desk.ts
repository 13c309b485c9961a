import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Episode, Release, WallMoment } from '@contract/episodes'
import type { Fault } from '@contract/problem'
import { mergeTexts } from '@core/episode/merge'
import { differingFields, type EpisodeField, episodeFields, type EpisodeText } from '@core/episode/fields'
import { doneAgain, type Stroke, undone, withStroke } from '@core/episode/strokes'
import { api, type Step } from '../../platform/api'
import { ApiError, isSignedOut, passes } from '../../platform/api/client'
import { oneByOne } from '../../platform/saving/oneByOne'
import { dropUnsent, keepUnsent, takeUnsent } from './outbox'
import { t } from './messages'

/** Where the writing is: on the server, on its way, held up (and tried again), waiting for a choice between two, or refused as it stands. */
export type Saving = 'saved' | 'unsaved' | 'waiting' | 'undecided' | 'refused'

const pauseMs = 500
const longestMs = 1_400
const retryMs = 2_000

/** The episode on the desk: what the server has, what is being written, and the way from one to the other. */
export const useDesk = defineStore('desk', () => {
  const episode = ref<Episode | null>(null)
  const text = ref<EpisodeText | null>(null)
  const saving = ref<Saving>('saved')
  const savedAt = ref<Date | null>(null)
  const faults = ref<Fault[]>([])
  const conflicts = ref<EpisodeField[]>([])
  /** Grows when something other than typing changed the text, so that the editors take it over. */
  const revision = ref(0)

  /** What was done here and can be undone, the last one last; and what was undone. */
  const done = shallowRef<readonly Stroke[]>([])
  const taken = shallowRef<readonly Stroke[]>([])

  let base: EpisodeText
  /** The text as it was last looked at; null while it changes by itself. */
  let seen: EpisodeText | null = null
  let sendTimer: ReturnType<typeof setTimeout> | undefined
  let firstUnsentMs: number | null = null
  let isSending = false
  let turns = 0

  const theirs = computed(() => episode.value?.text ?? null)

  async function open(id: string): Promise<void> {
    close()
    const loaded = await api.episode(id)
    const unsent = takeUnsent(id, Date.now())
    episode.value = unsent ? { ...loaded, text: unsent.serverText, version: unsent.version } : loaded
    base = unsent?.base ?? loaded.text
    takeOver({ ...(unsent?.text ?? loaded.text) })
    done.value = taken.value = []
    saving.value = 'saved'
    savedAt.value = null
    conflicts.value = []
    faults.value = []
    if (unsent) absorb(loaded)
    revision.value++
    noteChanges()
  }

  function close(): void {
    clearTimeout(sendTimer)
    firstUnsentMs = null
    episode.value = null
    text.value = null
  }

  /** Takes over a newer state of the episode from the server; of the text, what only they changed. */
  function absorb(fresh: Episode): void {
    const known = episode.value
    if (!known || !text.value || fresh.id !== known.id || fresh.version < known.version) return
    const moved = new Set(differingFields(known.text, fresh.text))
    const asHere = Object.fromEntries(
      episodeFields.map(field => [field, moved.has(field) ? fresh.text[field] : base[field]]),
    ) as unknown as EpisodeText
    const merge = mergeTexts(base, text.value, asHere)
    const settled = Object.fromEntries(
      episodeFields.map(field => [field, merge.conflicts.includes(field) ? text.value![field] : merge.text[field]]),
    ) as unknown as EpisodeText
    if (moved.size > 0 && differingFields(text.value, settled).length > 0) revision.value++
    conflicts.value = [
      ...new Set([...conflicts.value.filter(field => text.value![field] !== fresh.text[field]), ...merge.conflicts]),
    ]
    base = asHere
    episode.value = fresh
    takeOver(settled)
  }

  /** Puts another text on the desk, which is not something that was done here. */
  function takeOver(other: EpisodeText): void {
    seen = null
    text.value = other
    seen = { ...other }
  }

  function noteStroke(): void {
    if (!text.value || !seen) return
    const strokes = withStroke(done.value, seen, { ...text.value }, Date.now())
    if (strokes === done.value) return
    seen = { ...text.value }
    done.value = strokes
    taken.value = []
  }

  /** Takes back the last thing that was done here, or does again what was taken back; answers the fields of it. */
  function undo(): EpisodeField[] {
    const stroke = done.value.at(-1)
    if (!stroke || !text.value) return []
    done.value = done.value.slice(0, -1)
    taken.value = [...taken.value, stroke]
    return putBack(undone(text.value, stroke), stroke)
  }
  function redo(): EpisodeField[] {
    const stroke = taken.value.at(-1)
    if (!stroke || !text.value) return []
    taken.value = taken.value.slice(0, -1)
    done.value = [...done.value, stroke]
    return putBack(doneAgain(text.value, stroke), stroke)
  }
  function putBack(other: EpisodeText, { fields }: Stroke): EpisodeField[] {
    takeOver(other)
    revision.value++
    return fields
  }

  /** Writes some fields as a whole, such as those of an earlier state. */
  function bring(part: Partial<EpisodeText>): void {
    if (!text.value) return
    text.value = { ...text.value, ...part }
    revision.value++
  }

  function unsentFields(): EpisodeField[] {
    return text.value ? differingFields(text.value, base).filter(field => !conflicts.value.includes(field)) : []
  }

  function noteChanges(): void {
    if (!episode.value || !text.value) return
    const pending = differingFields(text.value, base).length > 0 || conflicts.value.length > 0
    if (!pending) {
      dropUnsent(episode.value.id)
      if (saving.value !== 'saved') saving.value = 'saved'
      faults.value = []
      return
    }
    keepUnsent(episode.value.id, {
      serverText: episode.value.text,
      base,
      text: text.value,
      version: episode.value.version,
      atMs: Date.now(),
    })
    if (unsentFields().length === 0) {
      saving.value = 'undecided'
      return
    }
    if (saving.value !== 'waiting') saving.value = 'unsaved'
    firstUnsentMs ??= Date.now()
    plan(Math.max(0, Math.min(pauseMs, firstUnsentMs + longestMs - Date.now())))
  }

  function plan(ms: number): void {
    clearTimeout(sendTimer)
    sendTimer = setTimeout(() => void send(), ms)
  }

  /** Sends what is unsent; resolves when it is on the server or known not to be. */
  const send = oneByOne(async () => {
    clearTimeout(sendTimer)
    const fields = unsentFields()
    if (!episode.value || !text.value || fields.length === 0) return
    firstUnsentMs = null
    isSending = true
    await sendFields(episode.value, { ...text.value }, fields).finally(() => (isSending = false))
  })

  async function sendFields(target: Episode, sent: EpisodeText, fields: EpisodeField[]): Promise<void> {
    try {
      const changed = Object.fromEntries(fields.map(field => [field, sent[field]])) as Partial<EpisodeText>
      const saved = await api.changeEpisode(target.id, { version: target.version, text: changed })
      if (episode.value?.id !== target.id) return
      base = { ...base, ...changed }
      episode.value = { ...episode.value, ...saved }
      savedAt.value = new Date()
      saving.value = 'saved'
      faults.value = []
    } catch (error) {
      if (episode.value?.id !== target.id) return
      takeFailure(error)
      return
    }
    noteChanges()
  }

  function takeFailure(error: unknown): void {
    if (passes(error) || isSignedOut(error)) {
      saving.value = 'waiting'
      keepUnsent(episode.value!.id, {
        serverText: episode.value!.text,
        base,
        text: text.value!,
        version: episode.value!.version,
        atMs: Date.now(),
      })
      plan(retryMs)
      return
    }
    if (!(error instanceof ApiError)) throw error
    if (error.problem.code === 'version-conflict') {
      absorb(error.problem.current as Episode)
      noteChanges()
      return
    }
    saving.value = 'refused'
    faults.value = error.problem.faults?.map(fault => ({ ...fault, field: fault.field.replace(/^text\./, '') })) ?? [
      { field: 'episode', value: '', rule: error.problem.detail },
    ]
  }

  /** Settles a field that both windows changed. */
  function settle(field: EpisodeField, keep: 'mine' | 'theirs'): void {
    if (!episode.value || !text.value) return
    conflicts.value = conflicts.value.filter(other => other !== field)
    if (keep === 'theirs') {
      // Mine can still be had: by undoing, and from the history.
      void api
        .keepAside(episode.value.id, { version: episode.value.version, text: { [field]: text.value[field] } })
        .catch(() => undefined)
      text.value = { ...text.value, [field]: episode.value.text[field] }
      base = { ...base, [field]: episode.value.text[field] }
      revision.value++
    }
    noteChanges()
  }

  /** Takes over what the server has by now; throws ApiError where that cannot be had. */
  async function refresh(): Promise<void> {
    const { id } = episode.value ?? {}
    if (!id) return
    const turn = ++turns
    const fresh = await api.episode(id)
    // Of answers that overtake each other the one asked for last is the newest.
    if (turn !== turns || isSending || episode.value?.id !== id) return
    if (fresh.version === episode.value.version) episode.value = { ...fresh, text: episode.value.text }
    else absorb(fresh)
    noteChanges()
  }

  /** Saves what is unsent; answers the episode then, or throws ApiError where it could not be saved. */
  async function saved(): Promise<Episode> {
    await send()
    if (!episode.value || saving.value !== 'saved') throw new ApiError(unsavedProblem)
    return episode.value
  }

  /** Saves first, then moves the episode; throws ApiError where it cannot. */
  async function act(move: (id: string, version: number) => Promise<Episode>): Promise<void> {
    const { id, version } = await saved()
    const moved = await move(id, version)
    // A new source may have filled in title and number.
    absorb(moved)
    noteChanges()
  }

  /** Releases or schedules it with the sound that was seen. */
  const release = (when: Release['when'], soundVersion: number): Promise<void> =>
    act((id, version) => api.release(id, { version, soundVersion, when }))
  const redate = (when: WallMoment): Promise<void> => act((id, version) => api.redate(id, { version, when }))
  /** Takes it out of the feed, at once where no time is given. */
  const retire = (when: WallMoment | null, keepsPage: boolean): Promise<void> =>
    act((id, version) => api.retire(id, { version, keepsPage, ...(when && { when }) }))
  const bringFrom = (address: string): Promise<void> => act(id => api.useAddress(id, address))
  const bringFromShelf = (fileId: string): Promise<void> => act(id => api.useFile(id, fileId))
  const step = (name: Step, soundVersion: number): Promise<void> =>
    act((id, version) => api.step(id, name, { version, soundVersion }))

  /** Takes a draft off the list; throws ApiError where it is none any more. */
  const remove = (id: string): Promise<void> => api.removeEpisode(id)

  const onChange = (): void => {
    noteStroke()
    noteChanges()
  }
  watch(text, onChange, { deep: true, flush: 'sync' })

  return {
    episode,
    text,
    theirs,
    saving,
    savedAt,
    faults,
    conflicts,
    revision,
    open,
    close,
    send,
    saved,
    settle,
    done,
    taken,
    undo,
    redo,
    bring,
    refresh,
    release,
    step,
    redate,
    retire,
    bringFrom,
    bringFromShelf,
    remove,
  }
})

const unsavedProblem = {
  type: 'about:blank',
  code: 'not-saved',
  title: t('notAllSavedTitle'),
  status: 0,
  detail: t('notAllSaved'),
  todo: t('notAllSavedFix'),
}
