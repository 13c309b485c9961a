import type { Stretch } from './measurement'

/** Full scale less half a step of 16 bit, so that a value cut off at the top of any coding counts. */
const fullScale = 1 - 1 / 65_536
/** So many samples at full scale in a row can have been cut off; fewer can be a peak that just fits. */
const leastInRow = 3
/** A top that was cut off is flat: values in it differ by nothing but rounding. */
const flat = 1 / 1_048_576
/**
 * And it has an edge: a low tone that just fits stands flat too once it is rounded to 16 bit, but leaves the top slowly. Where
 * three or more samples of a rounded curve are alike, the next one lies at most three steps lower.
 */
const leastEdge = 8 / 32_768
/** No tone that is heard stands alike for so long. */
const surelyInRow = 32
const drawnTogetherMs = 100
const mostKept = 200

interface Run {
  length: number
  top: number
  hasEdge: boolean
  last: number
}

/**
 * Finds flat tops at full scale, stretch by stretch as they come. A value over full scale is none: floating point and lossy
 * codings hold it well.
 */
export class ClipFinder {
  private readonly clips: Stretch[] = []
  private count = 0
  private readonly runs: Run[]

  constructor(
    channels: number,
    private readonly sampleRateHz: number,
  ) {
    this.runs = Array.from({ length: channels }, () => ({ length: 0, top: 0, hasEdge: false, last: Number.NaN }))
  }

  /** Looks at `frames` interleaved frames from a frame on, the first of which has the given place in the sound. */
  look(interleaved: Float32Array, from: number, frames: number, place: number): void {
    const channels = this.runs.length
    for (const [channel, run] of this.runs.entries()) {
      for (let i = 0; i < frames; i++) this.take(run, interleaved[(from + i) * channels + channel]!, place + i)
    }
  }

  /** A stretch from a place on without a sample at full scale: whatever run there was ends before it. */
  pass(place: number): void {
    for (const run of this.runs) {
      this.end(run, place, Number.NaN)
      run.last = Number.NaN
    }
  }

  finish(place: number): { clips: Stretch[]; clipCount: number } {
    this.pass(place)
    return { clips: this.clips, clipCount: this.count }
  }

  private take(run: Run, value: number, place: number): void {
    if (run.length > 0 && Math.abs(value - run.top) <= flat) run.length++
    else {
      this.end(run, place, value)
      if (mayClip(Math.abs(value)))
        Object.assign(run, { length: 1, top: value, hasEdge: Math.abs(value) - Math.abs(run.last) > leastEdge })
    }
    run.last = value
  }

  /** Ends a run before a place, behind which stands `next`. */
  private end(run: Run, place: number, next: number): void {
    const hasEdge = run.hasEdge || Math.abs(run.top) - Math.abs(next) > leastEdge
    if (run.length >= leastInRow && (hasEdge || run.length >= surelyInRow)) this.add(place - run.length, place)
    run.length = 0
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
