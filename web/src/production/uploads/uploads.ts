import { del, entries, set, setMany } from 'idb-keyval'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { DetailedError, Upload } from 'tus-js-client'
import { v7 as uuidV7 } from 'uuid'
import type { Problem } from '@contract/problem'
import type { Upload as UploadView } from '@contract/sound'
import { pace, type Progress, recent } from '@core/upload/pace'
import { amount } from '@core/words/amounts'
import { api } from '../../platform/api'
import { type ApiError, isSignedOut, passes } from '../../platform/api/client'
import { useNews } from '../../platform/news/news'
import { useSession } from '../../people/account/session'
import { t } from './messages'

/** An upload that this window sends; `sent` is read by the server next, `here` is an episode's audio, or a piece of it. */
export interface Sending {
  /** Of the upload; an episode's own where it is to become its audio. */
  id: string
  episodeId: string
  /** The show in which its draft is still to be begun, under the id that was chosen for it; null where it is there. */
  beginsIn: string | null
  fileName: string
  bytes: number
  sentBytes: number
  pace: { bytesPerSecond: number; secondsLeft: number } | null
  state: 'queued' | 'sending' | 'paused' | 'waiting' | 'sent' | 'here' | 'refused'
  problem: { title: string; detail: string; todo: string } | null
}

/** A piece, before the one at a position counted from 0; or a bed. */
export type Part = { role: 'piece'; position: number } | { role: 'bed' }

/** What is kept in the browser so that a reload goes on with it: the file itself and where it is being sent. */
interface Kept {
  id: string
  episodeId: string
  file: File
  /** Which part it is to be of what the episode is put together of; not there where it is to be its audio. */
  part?: Part
  uploadUrl: string | null
  /** The show in which its draft is still to be begun; null where it is there. */
  beginsIn?: string | null
}

/** Does something now and at each news of an episode, by the clock while no news come; until it is told to end. */
function atNewsOf(episodeId: string, act: () => Promise<'goes on' | 'ends'>): void {
  const news = useNews()
  const look = async (): Promise<void> => {
    if ((await act()) === 'ends') end()
  }
  const timer = setInterval(() => {
    if (!news.isUp) void look()
  }, 1000)
  const deafen = news.listen(each => {
    if (each === 'all' || each.id === episodeId) void look()
  })
  function end(): void {
    clearInterval(timer)
    deafen()
  }
  void look()
}

/** A browser that is told to keep nothing throws at once, where others answer later. */
const inBrowser = async <T>(act: () => Promise<T>): Promise<T> => act()

const keyOf = (id: string): string => `lake-letter:upload:${id}`
/** So many are sent at the same time; the others wait in line. */
const mostAtOnce = 2
/** So long until a draft that could not be begun is tried again. */
const beginAgainMs = 2_000
const retryMs = [0, 1000, 2000, 4000, 8000, ...Array<number>(200).fill(10_000)]

/** Uploads by the tus protocol: they go on after a cut line, a reload, a closed lid. */
export const useUploads = defineStore('uploads', () => {
  const sendings = ref<Record<string, Sending>>({})
  const running = new Map<string, Upload>()
  /** In line, in the order they were chosen. */
  let line: Kept[] = []
  /** Taken out of the line by a pause. */
  const parked = new Map<string, Kept>()
  /** What this window sends, so that one that was refused can be tried again. */
  const files = new Map<string, Kept>()
  /** Ends the wait for an upload that is given up, so that the line moves on. */
  const settled = new Map<string, () => void>()
  let active = 0
  /** Files that a reload would lose: the browser has not kept them yet, or has no room for them. */
  const unkept = new Set<string>()
  /** Drafts are begun one after the other, in the order of their files. */
  let beginnings: Promise<unknown> = Promise.resolve()

  const all = computed(() => Object.values(sendings.value))

  const patch = (id: string, change: Partial<Sending>): void => {
    const known = sendings.value[id]
    if (known) sendings.value = { ...sendings.value, [id]: { ...known, ...change } }
  }

  /** Begins to send a file as the audio of an episode; refused here where its size can be. */
  async function begin(episodeId: string, file: File): Promise<void> {
    await cancel(episodeId)
    await beginToSend({ id: episodeId, episodeId, file, uploadUrl: null })
  }

  /** Begins to send a file as a part of what an episode is put together of; answers the id of the upload. */
  async function beginPart(episodeId: string, file: File, part: Part): Promise<string> {
    const id = uuidV7()
    await beginToSend({ id, episodeId, file, part, uploadUrl: null })
    return id
  }

  async function beginToSend(kept: Kept): Promise<void> {
    const problem = sizeProblem(kept.file, useSession().session?.maxUploadBytes ?? Infinity)
    sendings.value = { ...sendings.value, [kept.id]: sendingOf(kept, problem ? 'refused' : 'sending', problem) }
    files.set(kept.id, kept)
    if (problem) return
    await keep([kept])
    enqueue(kept)
  }

  /**
   * Begins a new episode of a show with each file. All of them are in line, and kept in the browser, before the first draft is
   * there; answers their ids once all drafts are.
   */
  async function beginNew(showId: string, chosen: readonly File[]): Promise<string[]> {
    const brought = chosen.map((file): Kept => {
      const id = uuidV7()
      return { id, episodeId: id, file, uploadUrl: null, beginsIn: showId }
    })
    sendings.value = {
      ...sendings.value,
      ...Object.fromEntries(brought.map(kept => [kept.id, sendingOf(kept, 'queued', null)])),
    }
    await keep(brought)
    await Promise.all(brought.map(beginDraft))
    return brought.map(({ episodeId }) => episodeId)
  }

  /** Keeps files in the browser; where it has no room, the upload works all the same, and leaving asks first. */
  async function keep(all: readonly Kept[]): Promise<void> {
    for (const { id } of all) unkept.add(id)
    await inBrowser(() => setMany(all.map(kept => [keyOf(kept.id), kept])))
      .then(() => all.forEach(({ id }) => unkept.delete(id)))
      .catch(() => undefined)
  }

  /** Begins the draft of a file, however long the server is away, and puts the file in line. */
  function beginDraft(kept: Kept): Promise<void> {
    const begun = beginnings.then(async () => {
      const refused = await begunDraft(kept)
      // It may have been given up meanwhile.
      if (!sendings.value[kept.id]) return
      const problem = refused ?? sizeProblem(kept.file, useSession().session?.maxUploadBytes ?? Infinity)
      if (problem) {
        await forget(kept.id)
        files.set(kept.id, kept)
        return patch(kept.id, { state: 'refused', beginsIn: refused ? kept.beginsIn! : null, problem })
      }
      const there = { ...kept, beginsIn: null }
      await inBrowser(() => set(keyOf(kept.id), there)).catch(() => undefined)
      enqueue(there)
    })
    beginnings = begun
    return begun
  }

  /** Asks for a draft until it is there; asked again under the same id, it is begun once. Answers why it cannot be. */
  async function begunDraft({ episodeId, beginsIn }: Kept): Promise<Sending['problem']> {
    while (sendings.value[episodeId]) {
      try {
        await api.createEpisode(beginsIn!, { id: episodeId })
        return null
      } catch (error) {
        if (!passes(error) && !isSignedOut(error)) return (error as ApiError).problem
        patch(episodeId, { state: 'waiting' })
        await new Promise(resolve => setTimeout(resolve, beginAgainMs))
      }
    }
    return null
  }

  window.addEventListener('beforeunload', event => {
    if (unkept.size > 0) event.preventDefault()
  })

  function enqueue(kept: Kept): void {
    files.set(kept.id, kept)
    sendings.value = { ...sendings.value, [kept.id]: sendingOf(kept, 'queued', null) }
    line.push(kept)
    next()
  }

  function next(): void {
    while (active < mostAtOnce && line.length > 0) {
      active++
      void run(line.shift()!).finally(() => {
        active--
        next()
      })
    }
  }

  /** Goes on with what an earlier page of this browser had begun, unless another window does. */
  async function resumeAll(): Promise<void> {
    const found = await inBrowser(() => entries<string, Kept>()).catch(() => [])
    for (const [key, { id: given, ...rest }] of found) {
      // Those that an earlier edition kept have no id of their own.
      const kept = { ...rest, id: given ?? rest.episodeId }
      if (!key.startsWith('lake-letter:upload:') || sendings.value[kept.id]) continue
      if (!kept.beginsIn) {
        enqueue(kept)
        continue
      }
      sendings.value = { ...sendings.value, [kept.id]: sendingOf(kept, 'queued', null) }
      void beginDraft(kept)
    }
  }

  async function run(kept: Kept): Promise<void> {
    if (!navigator.locks) return send(kept)
    await navigator.locks.request(keyOf(kept.id), { ifAvailable: true }, lock => (lock ? send(kept) : drop(kept.id)))
  }

  function send(kept: Kept): Promise<void> {
    const { id, episodeId, file, part, uploadUrl } = kept
    patch(id, { state: 'sending' })
    let history: Progress[] = []
    return new Promise(resolve => {
      settled.set(id, resolve)
      const upload = new Upload(file, {
        endpoint: '/api/v1/uploads',
        uploadUrl,
        metadata: {
          episodeId,
          filename: file.name,
          role: part?.role ?? 'source',
          ...(part?.role === 'piece' && { position: String(part.position) }),
        },
        retryDelays: retryMs,
        storeFingerprintForResuming: false,
        onUploadUrlAvailable() {
          // Given up before the server had answered: it is told now.
          if (isGivenUp()) void upload.abort(true).catch(() => undefined)
          else void inBrowser(() => set(keyOf(id), { ...kept, uploadUrl: upload.url })).catch(() => undefined)
        },
        onProgress(sentBytes) {
          if (isGivenUp()) return
          history = recent([...history, { atMs: Date.now(), sentBytes }])
          patch(id, { state: 'sending', sentBytes, pace: pace(history, file.size) })
        },
        onShouldRetry(error) {
          if (isGivenUp()) return false
          const status = (error as DetailedError).originalResponse?.getStatus() ?? 0
          // Without room it does not pass by itself (RFC 4918 section 11.5).
          const willPass = status === 0 || status === 423 || status === 401 || (status >= 500 && status !== 507)
          if (willPass) patch(id, { state: 'waiting', pace: null })
          return willPass
        },
        onError(error) {
          if (isGivenUp()) return
          void forget(id)
          patch(id, { state: 'refused', problem: problemOf(error) })
          resolve()
        },
        onSuccess() {
          void forget(id)
          patch(id, { state: 'sent', sentBytes: file.size, pace: null })
          awaitReading(kept, upload.url!)
          resolve()
        },
      })
      const isGivenUp = (): boolean => running.get(id) !== upload
      running.set(id, upload)
      upload.start()
    })
  }

  /** Follows what the server makes of a file that was sent. */
  function awaitReading({ id, episodeId, part }: Kept, url: string): void {
    const asked = (): Promise<UploadView | null | undefined> =>
      part
        ? api.sound(episodeId).then(({ arriving }) => arriving.find(each => url.endsWith(each.id)) ?? null)
        : api.episode(episodeId).then(({ upload }) => upload)
    atNewsOf(episodeId, async () => {
      if (sendings.value[id]?.state !== 'sent') return 'ends'
      const upload = await asked().catch(() => undefined)
      // A part is told where it is one from then on.
      if (upload === null && part) drop(id)
      else if (upload === null) patch(id, { state: 'here' })
      if (upload?.state === 'refused') patch(id, { state: 'refused', problem: upload.refusal })
      return sendings.value[id]?.state === 'sent' ? 'goes on' : 'ends'
    })
  }

  /** Takes an upload out of the line; the next one has its place. What was sent stays sent. */
  async function pause(id: string): Promise<void> {
    const upload = running.get(id)
    const kept = line.find(waiting => waiting.id === id) ?? (upload && { ...files.get(id)!, uploadUrl: upload.url })
    if (!kept) return
    line = line.filter(waiting => waiting !== kept)
    parked.set(id, kept)
    running.delete(id)
    patch(id, { state: 'paused', pace: null })
    await upload?.abort()
    settled.get(id)?.()
  }

  function goOn(id: string): void {
    const kept = parked.get(id)
    if (!kept) return
    parked.delete(id)
    patch(id, { state: 'queued' })
    line.push(kept)
    next()
  }

  /** Tries a file again that was refused. */
  async function retry(id: string): Promise<void> {
    const [known, beginsIn] = [files.get(id), sendings.value[id]?.beginsIn]
    if (!known) return
    const kept: Kept = { ...known, uploadUrl: null }
    if (!beginsIn) return beginToSend(kept)
    patch(id, { state: 'queued', problem: null })
    await keep([{ ...kept, beginsIn }])
    await beginDraft({ ...kept, beginsIn })
  }

  /** Gives an upload up, here and on the server. */
  async function cancel(id: string): Promise<void> {
    const upload = running.get(id)
    line = line.filter(kept => kept.id !== id)
    parked.delete(id)
    settled.get(id)?.()
    await forget(id)
    drop(id)
    if (upload?.url) await upload.abort(true).catch(() => undefined)
  }

  async function forget(id: string): Promise<void> {
    running.delete(id)
    unkept.delete(id)
    await inBrowser(() => del(keyOf(id))).catch(() => undefined)
  }

  function drop(id: string): void {
    const { [id]: _dropped, ...rest } = sendings.value
    sendings.value = rest
  }

  const partsFor = (episodeId: string): Sending[] =>
    all.value.filter(each => each.episodeId === episodeId && each.id !== episodeId)
  /** Gives up all that is sent for an episode. */
  const cancelFor = (episodeId: string): Promise<unknown> =>
    Promise.all([episodeId, ...partsFor(episodeId).map(({ id }) => id)].map(cancel))

  return { sendings, all, partsFor, begin, beginPart, beginNew, resumeAll, pause, goOn, cancel, cancelFor, retry, drop }
})

function sendingOf(
  { id, episodeId, file, beginsIn }: Pick<Kept, 'id' | 'episodeId' | 'file' | 'beginsIn'>,
  state: Sending['state'],
  problem: Sending['problem'],
): Sending {
  return {
    id,
    episodeId,
    beginsIn: beginsIn ?? null,
    fileName: file.name,
    bytes: file.size,
    sentBytes: 0,
    pace: null,
    state,
    problem,
  }
}

function sizeProblem(file: File, mostBytes: number): Sending['problem'] {
  if (file.size === 0)
    return {
      title: t('fileEmptyTitle'),
      detail: t('fileEmpty', { name: file.name }),
      todo: t('fileEmptyFix'),
    }
  if (file.size <= mostBytes) return null
  return {
    title: t('fileTooLargeTitle'),
    detail: t('fileTooLarge', { name: file.name, size: amount(file.size), most: amount(mostBytes) }),
    todo: t('fileTooLargeFix'),
  }
}

function problemOf(error: Error | DetailedError): Sending['problem'] {
  try {
    const { title, detail, todo } = JSON.parse((error as DetailedError).originalResponse!.getBody()) as Problem
    return { title, detail, todo }
  } catch {
    return {
      title: t('uploadEndedTitle'),
      detail: t('uploadEnded'),
      todo: t('chooseAgain'),
    }
  }
}
