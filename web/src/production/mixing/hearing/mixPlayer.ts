import { onScopeDispose, ref, watch } from 'vue'
import { planOf } from '@core/mix/plan'
import type { MixLayout } from '@core/mix/layout'
import type { AudioFile } from '@contract/sound'
import type { HeardFile, MixerFailure, MixerRequest, Played } from './messages'
import playerAddress from './player.worklet?worker&url'

/** The rate of a mix is that of the best of its files, and no higher than this. */
const mostHz = 48_000
/** After a change it goes on with what is heard so much later, when the new sound is here. */
const changedAfterMs = 150

interface Heard {
  layout: MixLayout
  files: ReadonlyMap<string, AudioFile>
}

/** Plays a mix as it is laid out at the moment; what is changed meanwhile is heard at once. */
export function useMixPlayer(heard: () => Heard) {
  const atMs = ref(0)
  const isPlaying = ref(false)
  /** It was asked for sound, and none has come yet. */
  const isWaiting = ref(false)
  const failed = ref(false)
  /** An audio thread is there on pages that came by HTTPS or from this machine (W3C Web Audio, AudioWorklet: secure contexts). */
  const isPossible = typeof AudioWorkletNode !== 'undefined'
  let thread: Thread | null = null
  let turn = 0
  let fromMs = 0
  let frame = 0

  async function begin(from: number): Promise<void> {
    const { layout, files } = heard()
    const sampleRateHz = Math.min(mostHz, Math.max(8_000, ...[...files.values()].map(file => file.sampleRateHz)))
    if (thread?.sampleRateHz !== sampleRateHz) {
      await thread?.close()
      thread = await openThread(sampleRateHz, follow, fail)
    }
    await thread.resume()
    fromMs = from
    const lengthOf = (id: string): number => files.get(id)?.durationMs ?? 0
    const plan = planOf(layout, { sampleRateHz, channels: 2 }, lengthOf)
    thread.mix({
      turn: ++turn,
      plan,
      files: Object.fromEntries([...files.values()].map(heardFile)),
      from: Math.min(plan.frames, Math.round((from / 1000) * sampleRateHz)),
    })
  }

  function follow({ turn: of, frames, isEnded }: Played): void {
    if (of !== turn || !isPlaying.value) return
    if (frames > 0) isWaiting.value = false
    atMs.value = Math.min(heard().layout.durationMs, fromMs + (frames / thread!.sampleRateHz) * 1000)
    if (isEnded) pause()
  }
  function fail(of: number): void {
    if (of !== turn) return
    failed.value = true
    pause()
  }

  function play(from: number): void {
    const { durationMs } = heard().layout
    failed.value = false
    isPlaying.value = isWaiting.value = true
    // What has ended begins again.
    atMs.value = from >= durationMs ? 0 : Math.max(0, from)
    begin(atMs.value).catch((error: unknown) => {
      console.warn(error)
      failed.value = true
      pause()
    })
  }
  function pause(): void {
    isPlaying.value = isWaiting.value = false
    turn++
    void thread?.pause()
  }
  function toggle(): void {
    if (isPlaying.value) pause()
    else play(atMs.value)
  }
  function seek(ms: number): void {
    const within = Math.min(Math.max(0, ms), heard().layout.durationMs)
    if (isPlaying.value) play(within)
    else atMs.value = within
  }

  watch(
    () => heard().layout,
    ({ durationMs }) => {
      if (atMs.value > durationMs) atMs.value = durationMs
      // Many changes in a row, as while something is dragged, are one.
      clearTimeout(frame)
      if (isPlaying.value) frame = window.setTimeout(() => isPlaying.value && play(atMs.value), changedAfterMs)
    },
  )
  onScopeDispose(() => {
    clearTimeout(frame)
    turn++
    void thread?.close()
  })
  return { atMs, isPlaying, isWaiting, isPossible, failed, toggle, seek }
}

const heardFile = ({ id, channels, framesAddress }: AudioFile): [string, HeardFile] => [
  id,
  { channels: channels === 1 ? 1 : 2, framesAddress },
]

interface Thread {
  sampleRateHz: number
  resume(): Promise<void>
  pause(): Promise<void>
  mix(request: Extract<MixerRequest, { turn: number }>): void
  close(): Promise<void>
}

/** A worker that mixes, and an audio thread that plays what it makes; between them the window has no part. */
async function openThread(
  sampleRateHz: number,
  onPlayed: (played: Played) => void,
  onFailure: (turn: number) => void,
): Promise<Thread> {
  const context = new AudioContext({ sampleRate: sampleRateHz, latencyHint: 'interactive' })
  await context.audioWorklet.addModule(playerAddress)
  const player = new AudioWorkletNode(context, 'mix-player', { numberOfInputs: 0, outputChannelCount: [2] })
  player.connect(context.destination)
  const mixer = new Worker(new URL('./mixer.worker.ts', import.meta.url), { type: 'module' })
  const { port1, port2 } = new MessageChannel()
  const ask = (request: MixerRequest, transfer: Transferable[] = []): void => mixer.postMessage(request, transfer)
  ask({ port: port1 }, [port1])
  player.port.postMessage({ port: port2 }, [port2])
  player.port.onmessage = ({ data }: MessageEvent<Played>) => onPlayed(data)
  mixer.onmessage = ({ data }: MessageEvent<MixerFailure>) => onFailure(data.turn)
  const stop = (): void => {
    ask({ stop: true })
    player.port.postMessage({ stop: true })
  }
  return {
    sampleRateHz,
    resume: () => context.resume(),
    pause: () => {
      stop()
      return context.suspend()
    },
    mix: ask,
    close: () => {
      stop()
      mixer.terminate()
      return context.close()
    },
  }
}
