import { withChannels } from '@core/mix/channels'
import { mixed } from '@core/mix/mixed'
import type { MixDocument } from '@core/mix/document'
import { layoutOf } from '@core/mix/layout'
import { type MixPlan, planOf } from '@core/mix/plan'
import type { OpenDecoder } from '@core/mix/tapes'
import type { HeardFile, MixerFailure, MixerRequest, Played, QueueMessage, Turn } from './messages'

/** So much is mixed ahead of what is heard. */
const aheadSeconds = 1
/** A decoder of the server waits for so long, and goes on over so much; what lies farther off is opened anew. */
const patienceSeconds = 20
const channels = 2

let queue: MessagePort
let stop = new AbortController()
/** What has been heard of the turn, and who waits for more of it to be. */
let heard = { turn: 0, frames: 0 }
let hasRoom = (): void => undefined

self.addEventListener('message', ({ data }: MessageEvent<MixerRequest>) => {
  if ('port' in data) {
    queue = data.port
    queue.onmessage = ({ data: played }: MessageEvent<Played>) => {
      heard = played
      hasRoom()
    }
    return
  }
  stop.abort()
  hasRoom()
  stop = new AbortController()
  void mix(data, stop.signal)
})

async function mix({ turn, mix: document, files, sampleRateHz, fromMs }: Turn, signal: AbortSignal): Promise<void> {
  const lengthOf = (fileId: string): number => files[fileId]?.durationMs ?? 0
  const layout = layoutOf(JSON.parse(document) as MixDocument, lengthOf)
  const plan = planOf(layout, { sampleRateHz, channels }, lengthOf)
  const from = Math.min(plan.frames, Math.round((fromMs / 1000) * sampleRateHz))
  let sent = 0
  try {
    const sounds = mixed(plan, decoderOf(plan, files, signal), { from, patienceFrames: patienceSeconds * sampleRateHz })
    for await (const sound of sounds) {
      if (signal.aborted) return
      // Once it is handed over it has no length here.
      sent += sound.length / channels
      tell({ turn, sound: sound as Float32Array<ArrayBuffer> })
      const isFar = (): boolean => sent - (heard.turn === turn ? heard.frames : 0) > aheadSeconds * sampleRateHz
      while (isFar() && !signal.aborted) await new Promise<void>(resolve => (hasRoom = resolve))
    }
    tell({ turn, isEnd: true })
  } catch (error) {
    if (signal.aborted) return
    console.warn(error)
    self.postMessage({ turn, failed: true } satisfies MixerFailure)
  }
}

const tell = (message: QueueMessage): void =>
  queue.postMessage(message, 'sound' in message ? [message.sound.buffer] : [])

/** Files as the server decodes them, from the frame that is asked for. */
const decoderOf =
  ({ sampleRateHz }: MixPlan, files: Readonly<Record<string, HeardFile>>, signal: AbortSignal): OpenDecoder =>
  (fileId, frame) => {
    const { framesAddress, channels: own } = files[fileId]!
    const address = `${framesAddress}?sampleRateHz=${sampleRateHz}&fromFrame=${frame}`
    return { fromFrame: frame, chunks: withChannels(framesAt(address, own, signal), own, channels) }
  }

/** Interleaved frames of 16 bits, little-endian, as they come in. */
async function* framesAt(address: string, channels: 1 | 2, signal: AbortSignal): AsyncGenerator<Float32Array> {
  const answer = await fetch(address, { signal })
  if (!answer.ok || !answer.body) throw new Error(`${address} answered ${answer.status}.`)
  const reader = answer.body.getReader()
  let odd = new Uint8Array()
  try {
    for (;;) {
      const { done, value } = await reader.read()
      if (done) return
      const bytes = new Uint8Array(odd.length + value.length)
      bytes.set(odd)
      bytes.set(value, odd.length)
      const whole = bytes.length - (bytes.length % (2 * channels))
      odd = bytes.slice(whole)
      yield Float32Array.from(new Int16Array(bytes.buffer, 0, whole / 2), sample => sample / 32_768)
    }
  } finally {
    await reader.cancel().catch(() => undefined)
  }
}
