import { del, entries, set, setMany } from 'idb-keyval'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { DetailedError, Upload } from 'tus-js-client'
import { v7 as uuidV7 } from 'uuid'
import type { Problem } from '@contract/problem'
import { pace, type Progress, recent } from '@core/upload/pace'
import { amount } from '@core/words/amounts'
import { api } from '../../platform/api'
import { type ApiError, isSignedOut, passes } from '../../platform/api/client'
import { useNews } from '../../platform/news/news'
import { useSession } from '../../people/account/session'
import { t } from './messages'

/** An upload that this window sends; `sent` is read by the server next, `here` is an episode's audio. */
export interface Sending {
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

/** What is kept in the browser so that a reload goes on with it: the file itself and where it is being sent. */
interface Kept {
  episodeId: string
  file: File
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

const keyOf = (episodeId: string): string => `lake-letter:upload:${episodeId}`
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
  /** Files of this window, so that one that was refused can be tried again. */
  const files = new Map<string, File>()
  /** Ends the wait for an upload that is given up, so that the line moves on. */
  const settled = new Map<string, () => void>()
  let active = 0
  /** Files that a reload would lose: the browser has not kept them yet, or has no room for them. */
  const unkept = new Set<string>()
  /** Drafts are begun one after the other, in the order of their files. */
  let beginnings: Promise<unknown> = Promise.resolve()

  const all = computed(() => Object.values(sendings.value))

  const patch = (episodeId: string, change: Partial<Sending>): void => {
    const known = sendings.value[episodeId]
    if (known) sendings.value = { ...sendings.value, [episodeId]: { ...known, ...change } }
  }

  /** Begins to send a file as the audio of an episode; refused here where its size can be. */
  async function begin(episodeId: string, file: File): Promise<void> {
    await cancel(episodeId)
    const most = useSession().session?.maxUploadBytes ?? Infinity
    const problem = sizeProblem(file, most)
    sendings.value = {
      ...sendings.value,
      [episodeId]: sendingOf({ episodeId, file }, problem ? 'refused' : 'sending', problem),
    }
    if (problem) return
    const kept: Kept = { episodeId, file, uploadUrl: null }
    await keep([kept])
    enqueue(kept)
  }

  /**
   * Begins a new episode of a show with each file. All of them are in line, and kept in the browser, before the first draft is
   * there; answers their ids once all drafts are.
   */
  async function beginNew(showId: string, chosen: readonly File[]): Promise<string[]> {
    const brought = chosen.map((file): Kept => ({ episodeId: uuidV7(), file, uploadUrl: null, beginsIn: showId }))
    sendings.value = {
      ...sendings.value,
      ...Object.fromEntries(brought.map(kept => [kept.episodeId, sendingOf(kept, 'queued', null)])),
    }
    await keep(brought)
    await Promise.all(brought.map(beginDraft))
    return brought.map(({ episodeId }) => episodeId)
  }

  /** Keeps files in the browser; where it has no room, the upload works all the same, and leaving asks first. */
  async function keep(all: readonly Kept[]): Promise<void> {
    for (const { episodeId } of all) unkept.add(episodeId)
    await setMany(all.map(kept => [keyOf(kept.episodeId), kept]))
      .then(() => all.forEach(({ episodeId }) => unkept.delete(episodeId)))
      .catch(() => undefined)
  }

  /** Begins the draft of a file, however long the server is away, and puts the file in line. */
  function beginDraft(kept: Kept): Promise<void> {
    const begun = beginnings.then(async () => {
      const refused = await begunDraft(kept)
      // It may have been given up meanwhile.
      if (!sendings.value[kept.episodeId]) return
      const problem = refused ?? sizeProblem(kept.file, useSession().session?.maxUploadBytes ?? Infinity)
      if (problem) {
        await forget(kept.episodeId)
        files.set(kept.episodeId, kept.file)
        return patch(kept.episodeId, { state: 'refused', beginsIn: refused ? kept.beginsIn! : null, problem })
      }
      const there = { ...kept, beginsIn: null }
      await set(keyOf(kept.episodeId), there).catch(() => undefined)
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
    files.set(kept.episodeId, kept.file)
    sendings.value = { ...sendings.value, [kept.episodeId]: sendingOf(kept, 'queued', null) }
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
    const found = await entries<string, Kept>().catch(() => [])
    for (const [key, kept] of found) {
      if (!key.startsWith('lake-letter:upload:') || sendings.value[kept.episodeId]) continue
      if (!kept.beginsIn) {
        enqueue(kept)
        continue
      }
      sendings.value = { ...sendings.value, [kept.episodeId]: sendingOf(kept, 'queued', null) }
      void beginDraft(kept)
    }
  }

  async function run(kept: Kept): Promise<void> {
    if (!navigator.locks) return send(kept)
    await navigator.locks.request(keyOf(kept.episodeId), { ifAvailable: true }, lock =>
      lock ? send(kept) : drop(kept.episodeId),
    )
  }

  function send({ episodeId, file, uploadUrl }: Kept): Promise<void> {
    patch(episodeId, { state: 'sending' })
    let history: Progress[] = []
    return new Promise(resolve => {
      settled.set(episodeId, resolve)
      const upload = new Upload(file, {
        endpoint: '/api/v1/uploads',
        uploadUrl,
        metadata: { episodeId, role: 'source', filename: file.name },
        retryDelays: retryMs,
        storeFingerprintForResuming: false,
        onUploadUrlAvailable() {
          // Given up before the server had answered: it is told now.
          if (isGivenUp()) void upload.abort(true).catch(() => undefined)
          else void set(keyOf(episodeId), { episodeId, file, uploadUrl: upload.url }).catch(() => undefined)
        },
        onProgress(sentBytes) {
          if (isGivenUp()) return
          history = recent([...history, { atMs: Date.now(), sentBytes }])
          patch(episodeId, { state: 'sending', sentBytes, pace: pace(history, file.size) })
        },
        onShouldRetry(error) {
          if (isGivenUp()) return false
          const status = (error as DetailedError).originalResponse?.getStatus() ?? 0
          // Without room it does not pass by itself (RFC 4918 section 11.5).
          const willPass = status === 0 || status === 423 || status === 401 || (status >= 500 && status !== 507)
          if (willPass) patch(episodeId, { state: 'waiting', pace: null })
          return willPass
        },
        onError(error) {
          if (isGivenUp()) return
          void forget(episodeId)
          patch(episodeId, { state: 'refused', problem: problemOf(error) })
          resolve()
        },
        onSuccess() {
          void forget(episodeId)
          patch(episodeId, { state: 'sent', sentBytes: file.size, pace: null })
          awaitReading(episodeId)
          resolve()
        },
      })
      const isGivenUp = (): boolean => running.get(episodeId) !== upload
      running.set(episodeId, upload)
      upload.start()
    })
  }

  /** Follows what the server makes of a file that was sent. */
  function awaitReading(episodeId: string): void {
    atNewsOf(episodeId, async () => {
      if (sendings.value[episodeId]?.state !== 'sent') return 'ends'
      const upload = await api.episode(episodeId).then(
        ({ upload: newest }) => newest,
        () => undefined,
      )
      if (upload === null) patch(episodeId, { state: 'here' })
      if (upload?.state === 'refused') patch(episodeId, { state: 'refused', problem: upload.refusal })
      return sendings.value[episodeId]?.state === 'sent' ? 'goes on' : 'ends'
    })
  }

  /** Takes an upload out of the line; the next one has its place. What was sent stays sent. */
  async function pause(episodeId: string): Promise<void> {
    const upload = running.get(episodeId)
    const kept =
      line.find(waiting => waiting.episodeId === episodeId) ??
      (upload && { episodeId, file: files.get(episodeId)!, uploadUrl: upload.url })
    if (!kept) return
    line = line.filter(waiting => waiting !== kept)
    parked.set(episodeId, kept)
    running.delete(episodeId)
    patch(episodeId, { state: 'paused', pace: null })
    await upload?.abort()
    settled.get(episodeId)?.()
  }

  function goOn(episodeId: string): void {
    const kept = parked.get(episodeId)
    if (!kept) return
    parked.delete(episodeId)
    patch(episodeId, { state: 'queued' })
    line.push(kept)
    next()
  }

  /** Tries a file again that was refused. */
  async function retry(episodeId: string): Promise<void> {
    const [file, beginsIn] = [files.get(episodeId), sendings.value[episodeId]?.beginsIn]
    if (!file) return
    if (!beginsIn) return begin(episodeId, file)
    const kept = { episodeId, file, uploadUrl: null, beginsIn }
    patch(episodeId, { state: 'queued', problem: null })
    await keep([kept])
    await beginDraft(kept)
  }

  /** Gives an upload up, here and on the server. */
  async function cancel(episodeId: string): Promise<void> {
    const upload = running.get(episodeId)
    line = line.filter(kept => kept.episodeId !== episodeId)
    parked.delete(episodeId)
    settled.get(episodeId)?.()
    await forget(episodeId)
    drop(episodeId)
    if (upload?.url) await upload.abort(true).catch(() => undefined)
  }

  async function forget(episodeId: string): Promise<void> {
    running.delete(episodeId)
    unkept.delete(episodeId)
    await del(keyOf(episodeId)).catch(() => undefined)
  }

  function drop(episodeId: string): void {
    const { [episodeId]: _dropped, ...rest } = sendings.value
    sendings.value = rest
  }

  return { sendings, all, begin, beginNew, resumeAll, pause, goOn, cancel, retry, drop }
})

function sendingOf(
  { episodeId, file, beginsIn }: Pick<Kept, 'episodeId' | 'file' | 'beginsIn'>,
  state: Sending['state'],
  problem: Sending['problem'],
): Sending {
  return {
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
