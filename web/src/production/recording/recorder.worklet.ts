import type { Heard } from './takes'

declare const registerProcessor: (name: string, processor: new (options: AudioWorkletNodeOptions) => unknown) => void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

/** About a twentieth of a second. */
const blockFrames = 2_048

/** Hands on what the microphone hears, in blocks. */
class Recorder extends AudioWorkletProcessor {
  private readonly channels: number
  private block: Float32Array<ArrayBuffer>
  private at = 0

  constructor({ channelCount = 1 }: AudioWorkletNodeOptions) {
    super()
    this.channels = channelCount
    this.block = new Float32Array(blockFrames * channelCount)
  }

  process([input]: readonly (readonly Float32Array[])[]): boolean {
    const frames = input?.[0]?.length ?? 0
    for (let i = 0; i < frames; i++) {
      for (let channel = 0; channel < this.channels; channel++) this.block[this.at++] = input![channel]![i]!
      if (this.at === this.block.length) this.hand()
    }
    return true
  }

  private hand(): void {
    this.port.postMessage(this.block satisfies Heard, [this.block.buffer])
    this.block = new Float32Array(blockFrames * this.channels)
    this.at = 0
  }
}

registerProcessor('recorder', Recorder)
