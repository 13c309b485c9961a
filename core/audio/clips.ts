import type { Stretch } from './measurement'

/** Full scale less half a step of 16 bit, so that a value cut off at the top of any coding counts. */
const fullScale = 1 - 1 / 65_536
/** So many samples at full scale in a row were cut off; fewer can be a peak that just fits. */
const leastInRow = 3
const drawnTogetherMs = 100
const mostKept = 200

/** Finds runs of clipped samples, stretch by stretch as they come. */
export class ClipFinder {
  private readonly clips: Stretch[] = []
  private count = 0
  private readonly inRow: number[]

  constructor(channels: number, private readonly sampleRateHz: number) {
    this.inRow = Array.from({ length: channels }, () => 0)
  }

  /** Looks at `frames` interleaved frames from a frame on, the first of which has the given place in the sound. */
  look(interleaved: Float32Array, from: number, frames: number, place: number): void {
    const channels = this.inRow.length
    for (let channel = 0; channel < channels; channel++) {
      let inRow = this.inRow[channel]!
      for (let i = 0; i < frames; i++) {
        if (mayClip(Math.abs(interleaved[(from + i) * channels + channel]!))) inRow++
        else {
          if (inRow >= leastInRow) this.add(place + i - inRow, place + i)
          inRow = 0
        }
      }
      this.inRow[channel] = inRow
    }
  }

  /** A stretch from a place on without a sample at full scale: whatever run there was ends before it. */
  pass(place: number): void {
    for (let channel = 0; channel < this.inRow.length; channel++) {
      const inRow = this.inRow[channel]!
      if (inRow >= leastInRow) this.add(place - inRow, place)
      this.inRow[channel] = 0
    }
  }

  finish(place: number): { clips: Stretch[]; clipCount: number } {
    this.pass(place)
    return { clips: this.clips, clipCount: this.count }
  }

  private add(from: number, to: number): void {
    const fromMs = (from / this.sampleRateHz) * 1000
    const toMs = (to / this.sampleRateHz) * 1000
    const last = this.clips.at(-1)
    if (last && fromMs - last.toMs <= drawnTogetherMs) {
      last.toMs = Math.max(last.toMs, toMs)
      return
    }
    this.count++
    if (this.clips.length < mostKept) this.clips.push({ fromMs, toMs })
  }
}

/** Whether a stretch with this peak can hold a clipped sample. */
export const mayClip = (peak: number): boolean => peak >= fullScale
