import { onScopeDispose, ref, watch } from 'vue'
import type { MixDocument } from '@core/mix/document'
import type { AudioFile } from '@contract/sound'
import { type AudioThread, openAudioThread } from './audioThread'
import type { HeardFile, Played } from './messages'

/** The rate of a mix is that of the best of its files, and no higher than this. */
const mostHz = 48_000
/** Many changes in a row, as while something is dragged, are one. */
const changedAfterMs = 120
/** Where it is playing it goes on as before for so long, until sound of the changed mix is here. */
const changedAheadMs = 250
/** What was heard for so long and then broke off is asked for again: a server ends what nobody reads for a minute. */
const brokeOffAfterMs = 2_000

interface Heard {
  mix: MixDocument | null
  durationMs: number
  files: ReadonlyMap<string, AudioFile>
}

/** Plays a mix as it is at the moment; what is changed meanwhile is heard at once. What may be heard next is made ready before. */
export function useMixPlayer(heard: () => Heard) {
  const atMs = ref(0)
  const isPlaying = ref(false)
  /** It was asked for sound, and none has come yet. */
  const isWaiting = ref(false)
  const failed = ref(false)
  /** An audio thread is there on pages that came by HTTPS or from this machine (W3C Web Audio, AudioWorklet: secure contexts). */
  const isPossible = typeof AudioWorkletNode !== 'undefined'
  const openThread = (): AudioThread => openAudioThread(sampleRateHz, { onPlayed: follow, onFailure: fail })
  let turn = 0
  let begunAt = 0
  let fromMs = 0
  let playedFrames = 0
  let sampleRateHz = 0
  let thread: AudioThread | null = null
  /** Sound from where it stands is here, or on its way. */
  let isReady = false
  let changed = 0

  /** Has sound made from where it stands, to begin once what is heard has come so much further. */
  function begin(aheadMs = 0): void {
    const { mix, files } = heard()
    const rate = Math.min(mostHz, Math.max(8_000, ...[...files.values()].map(file => file.sampleRateHz)))
    if (rate !== sampleRateHz) {
      void thread?.close()
      thread = null
      sampleRateHz = rate
    }
    thread ??= openThread()
    fromMs = atMs.value
    begunAt = performance.now()
    isReady = true
    thread.mix(
      {
        turn: ++turn,
        mix: JSON.stringify(mix),
        files: Object.fromEntries([...files.values()].map(heardFile)),
        sampleRateHz,
        fromMs,
      },
      aheadMs > 0 ? playedFrames + Math.round((aheadMs / 1000) * sampleRateHz) : 0,
    )
    playedFrames = 0
  }

  function follow({ turn: of, frames, isEnded }: Played): void {
    if (of !== turn || !isPlaying.value) return
    playedFrames = frames
    if (frames > 0) isWaiting.value = false
    atMs.value = Math.min(heard().durationMs, fromMs + (frames / sampleRateHz) * 1000)
    if (!isEnded) return
    pause()
    isReady = false
  }
  function fail(of: number): void {
    if (of !== turn) return
    isReady = false
    if (!isPlaying.value) return
    if (performance.now() - begunAt > brokeOffAfterMs) begin()
    else {
      failed.value = true
      pause()
    }
  }

  async function play(): Promise<void> {
    failed.value = false
    isPlaying.value = isWaiting.value = true
    if (atMs.value >= heard().durationMs) {
      atMs.value = 0
      isReady = false
    }
    if (!isReady) {
      thread?.drop()
      begin()
    }
    try {
      await thread!.resume()
    } catch (error) {
      console.warn(error)
      failed.value = true
      pause()
    }
  }
  function pause(): void {
    isPlaying.value = isWaiting.value = false
    void thread?.pause()
  }
  function toggle(): void {
    if (isPlaying.value) pause()
    else void play()
  }
  function seek(ms: number): void {
    atMs.value = Math.min(Math.max(0, ms), heard().durationMs)
    isReady = false
    clearTimeout(changed)
    if (isPlaying.value) begin()
    else changed = window.setTimeout(prepare, changedAfterMs)
  }
  /** Has sound made that may be wanted soon. */
  function prepare(): void {
    if (isReady || isPlaying.value || !isPossible || heard().durationMs === 0) return
    thread?.drop()
    begin()
  }

  watch(
    () => heard().mix,
    () => {
      const { durationMs } = heard()
      if (atMs.value > durationMs) atMs.value = durationMs
      const wasReady = isReady
      isReady = false
      clearTimeout(changed)
      changed = window.setTimeout(() => {
        if (isPlaying.value) {
          atMs.value = Math.min(durationMs, atMs.value + changedAheadMs)
          begin(changedAheadMs)
        } else if (wasReady) prepare()
      }, changedAfterMs)
    },
  )
  onScopeDispose(() => {
    clearTimeout(changed)
    turn++
    void thread?.close()
  })
  return { atMs, isPlaying, isWaiting, isPossible, failed, toggle, seek, prepare }
}

const heardFile = ({ id, channels, durationMs, framesAddress }: AudioFile): [string, HeardFile] => [
  id,
  { channels: channels === 1 ? 1 : 2, durationMs, framesAddress },
]
