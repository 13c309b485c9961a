import { amplitude } from './decibels'
import type { Stretch } from './measurement'

/**
 * Common practice, no source: a light for clipping comes on at three samples in a row at full scale. What a browser hands on has
 * often been brought to another rate, after which no top is flat any more; so all that comes this near counts.
 */
const fullScale = amplitude(-0.1)
const leastInRow = 3
const drawnTogetherMs = 500
const mostKept = 200

/** Finds where a recording is too loud for what it goes through, while it comes. */
export class OverloadFinder {
  readonly found: Stretch[] = []
  private readonly inRow: number[]

  constructor(
    private readonly channels: number,
    private readonly sampleRateHz: number,
  ) {
    this.inRow = Array<number>(channels).fill(0)
  }

  /** Looks at interleaved samples, the first frame of which has the given place in the sound. */
  look(interleaved: Float32Array, place: number): void {
    for (let i = 0; i < interleaved.length; i++) {
      const channel = i % this.channels
      this.inRow[channel] = Math.abs(interleaved[i]!) >= fullScale ? this.inRow[channel]! + 1 : 0
      if (this.inRow[channel]! >= leastInRow) this.add(place + (i - channel) / this.channels, this.inRow[channel]!)
    }
  }

  private add(lastFrame: number, inRow: number): void {
    const fromMs = ((lastFrame + 1 - inRow) / this.sampleRateHz) * 1000
    const toMs = ((lastFrame + 1) / this.sampleRateHz) * 1000
    const last = this.found.at(-1)
    if (last && fromMs - last.toMs <= drawnTogetherMs) last.toMs = toMs
    else if (this.found.length < mostKept) this.found.push({ fromMs, toMs })
  }
}
