import type { Played, QueueMessage, TurnBegins } from './messages'

declare const registerProcessor: (name: string, processor: new () => AudioWorkletProcessor) => void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

/** Sound of one turn that waits to be heard, and how much of it was. */
class Queue {
  private readonly sounds: Float32Array[] = []
  private at = 0
  frames = 0
  isWhole = false

  constructor(readonly turn: number) {}

  push(sound: Float32Array): void {
    this.sounds.push(sound)
  }
  get isEmpty(): boolean {
    return this.sounds.length === 0
  }
  get isEnded(): boolean {
    return this.isWhole && this.isEmpty
  }
  /** Adds what comes next to an output of so many channels, each frame with the gain of its place; what is not here is silence. */
  addTo(output: readonly Float32Array[], gainAt: (place: number) => number): void {
    const length = output[0]!.length
    for (let place = 0; place < length && this.sounds.length > 0; place++) {
      const sound = this.sounds[0]!
      for (const [channel, samples] of output.entries()) samples[place]! += sound[this.at + channel]! * gainAt(place)
      this.at += output.length
      this.frames++
      if (this.at < sound.length) continue
      this.sounds.shift()
      this.at = 0
    }
  }
}

/** The window hears where it is so many times in a second. */
const tellsPerSecond = 20
declare const sampleRate: number
declare const currentFrame: number

/** Plays what the worker mixes. A turn goes on until sound of the next one is here and due, and the two are crossfaded. */
class Player extends AudioWorkletProcessor {
  private queue: Queue | null = null
  private next: Queue | null = null
  private mixer: MessagePort | null = null
  private told = 0
  private begins: TurnBegins = { turn: 0, afterFrames: 0 }

  constructor() {
    super()
    this.port.onmessage = ({ data }: MessageEvent<{ port: MessagePort } | TurnBegins | { stop: true }>) => {
      if ('stop' in data) this.queue = this.next = null
      else if ('turn' in data) this.begins = data
      else {
        this.mixer = data.port
        this.mixer.onmessage = ({ data: message }: MessageEvent<QueueMessage>) => this.take(message)
      }
    }
  }

  private take(message: QueueMessage): void {
    const { turn } = message
    const newest = this.next ?? this.queue
    if (newest && turn < newest.turn) return
    if (newest?.turn !== turn) this.next = new Queue(turn)
    const queue = this.next ?? this.queue!
    if ('sound' in message) queue.push(message.sound)
    else queue.isWhole = true
  }

  process(_inputs: unknown, [output]: Float32Array[][]): boolean {
    const samples = output!
    const { length } = samples[0]!
    if (this.next && this.isDue(this.next)) {
      this.queue?.addTo(samples, place => 1 - place / length)
      this.next.addTo(samples, place => (this.queue ? place / length : 1))
      this.queue = this.next
      this.next = null
    } else this.queue?.addTo(samples, () => 1)
    if (this.queue && currentFrame - this.told >= sampleRate / tellsPerSecond) this.tell(this.queue)
    return true
  }

  private isDue({ turn }: Queue): boolean {
    const { queue, begins } = this
    return !queue || queue.isEmpty || turn !== begins.turn || queue.frames >= begins.afterFrames
  }

  private tell({ turn, frames, isEnded }: Queue): void {
    this.told = currentFrame
    const played: Played = { turn, frames, isEnded }
    this.port.postMessage(played)
    this.mixer?.postMessage(played)
    if (isEnded) this.queue = null
  }
}
registerProcessor('mix-player', Player)
