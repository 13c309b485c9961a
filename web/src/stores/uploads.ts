import { del, entries, set } from 'idb-keyval'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { DetailedError, Upload } from 'tus-js-client'
import type { Problem } from '@contract/problem'
import { pace, type Progress, recent } from '@core/upload/pace'
import { amount } from '@core/words/amounts'
import { useSession } from './session'

/** An upload that this window sends. */
export interface Sending {
  episodeId: string
  fileName: string
  bytes: number
  sentBytes: number
  pace: { bytesPerSecond: number; secondsLeft: number } | null
  state: 'sending' | 'paused' | 'waiting' | 'sent' | 'refused'
  problem: { title: string; detail: string; todo: string } | null
}

/** What is kept in the browser so that a reload goes on with it: the file itself and where it is being sent. */
interface Kept { episodeId: string; file: File; uploadUrl: string | null }

const keyOf = (episodeId: string): string => `lake-letter:upload:${episodeId}`
const retryMs = [0, 1000, 2000, 4000, 8000, ...Array<number>(200).fill(10_000)]

/** Uploads by the tus protocol: they go on after a cut line, a reload, a closed lid. */
export const useUploads = defineStore('uploads', () => {
  const sendings = ref<Record<string, Sending>>({})
  const running = new Map<string, Upload>()

  const patch = (episodeId: string, change: Partial<Sending>): void => {
    const known = sendings.value[episodeId]
    if (known) sendings.value = { ...sendings.value, [episodeId]: { ...known, ...change } }
  }

  /** Begins to send a file as the audio of an episode; refused here where its size can be. */
  async function begin(episodeId: string, file: File): Promise<void> {
    await cancel(episodeId)
    const most = useSession().session?.maxUploadBytes ?? Infinity
    const problem = sizeProblem(file, most)
    sendings.value = { ...sendings.value, [episodeId]: sendingOf(episodeId, file, problem ? 'refused' : 'sending', problem) }
    if (problem) return
    const kept: Kept = { episodeId, file, uploadUrl: null }
    // Where the browser has no room to keep the file, the upload works all the same, and a reload asks for the file again.
    await set(keyOf(episodeId), kept).catch(() => undefined)
    await run(kept)
  }

  /** Goes on with what an earlier page of this browser had begun, unless another window does. */
  async function resumeAll(): Promise<void> {
    const found = await entries<string, Kept>().catch(() => [])
    for (const [key, kept] of found) {
      if (!key.startsWith('lake-letter:upload:') || running.has(kept.episodeId)) continue
      void run(kept)
    }
  }

  async function run(kept: Kept): Promise<void> {
    if (!navigator.locks) return send(kept)
    await navigator.locks.request(keyOf(kept.episodeId), { ifAvailable: true }, lock => lock ? send(kept) : undefined)
  }

  function send({ episodeId, file, uploadUrl }: Kept): Promise<void> {
    sendings.value = { ...sendings.value, [episodeId]: sendingOf(episodeId, file, 'sending', null) }
    let history: Progress[] = []
    return new Promise(resolve => {
      const upload = new Upload(file, {
        endpoint: '/api/v1/uploads',
        uploadUrl,
        metadata: { episodeId, filename: file.name },
        retryDelays: retryMs,
        storeFingerprintForResuming: false,
        onUploadUrlAvailable: () => void set(keyOf(episodeId), { episodeId, file, uploadUrl: upload.url } satisfies Kept).catch(() => undefined),
        onProgress(sentBytes) {
          history = recent([...history, { atMs: Date.now(), sentBytes }])
          patch(episodeId, { state: 'sending', sentBytes, pace: pace(history, file.size) })
        },
        onShouldRetry(error) {
          const status = (error as DetailedError).originalResponse?.getStatus() ?? 0
          const willPass = status === 0 || status === 423 || status === 401 || status >= 500
          if (willPass) patch(episodeId, { state: 'waiting', pace: null })
          return willPass
        },
        onError(error) {
          void forget(episodeId)
          patch(episodeId, { state: 'refused', problem: problemOf(error) })
          resolve()
        },
        onSuccess() {
          void forget(episodeId)
          patch(episodeId, { state: 'sent', sentBytes: file.size })
          resolve()
        },
      })
      running.set(episodeId, upload)
      upload.start()
    })
  }

  async function pause(episodeId: string): Promise<void> {
    await running.get(episodeId)?.abort()
    patch(episodeId, { state: 'paused', pace: null })
  }

  function goOn(episodeId: string): void {
    patch(episodeId, { state: 'sending' })
    running.get(episodeId)?.start()
  }

  /** Gives an upload up, here and on the server. */
  async function cancel(episodeId: string): Promise<void> {
    const upload = running.get(episodeId)
    await forget(episodeId)
    drop(episodeId)
    await upload?.abort(true).catch(() => undefined)
  }

  async function forget(episodeId: string): Promise<void> {
    running.delete(episodeId)
    await del(keyOf(episodeId)).catch(() => undefined)
  }

  function drop(episodeId: string): void {
    const { [episodeId]: _dropped, ...rest } = sendings.value
    sendings.value = rest
  }

  return { sendings, begin, resumeAll, pause, goOn, cancel, drop }
})

function sendingOf(episodeId: string, file: File, state: Sending['state'], problem: Sending['problem']): Sending {
  return { episodeId, fileName: file.name, bytes: file.size, sentBytes: 0, pace: null, state, problem }
}

function sizeProblem(file: File, mostBytes: number): Sending['problem'] {
  if (file.size === 0) return { title: 'The file is empty', detail: `${file.name} holds 0 bytes.`, todo: 'Look whether the export has finished, then choose it again.' }
  if (file.size <= mostBytes) return null
  return { title: 'The file is too large', detail: `${file.name} has ${amount(file.size)}; at most ${amount(mostBytes)} are taken.`, todo: 'Export it as MP3 at 128 kbit/s; that is plenty.' }
}

function problemOf(error: Error | DetailedError): Sending['problem'] {
  try {
    const { title, detail, todo } = JSON.parse((error as DetailedError).originalResponse!.getBody()) as Problem
    return { title, detail, todo }
  } catch {
    return { title: 'The upload could not go on', detail: 'The server does not know it any more.', todo: 'Choose the file again.' }
  }
}
