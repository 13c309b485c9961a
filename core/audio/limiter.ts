import { amplitude } from './decibels'
import { SoundBlocks } from './soundBlocks'
import { marginFrames, soundKernel, windowFrames } from './soundKernel'
import { truePeakBound } from './truePeakFilter'

export const lookaheadMs = 5
export const releaseMs = 80

/**
 * Holds the true peak under a ceiling. It looks ahead: the gain that a peak needs is reached before the peak by a
 * straight slope, and left behind slowly. Frames come out later than they went in; none are lost.
 *
 * Why it holds: every frame asks for a gain. The least one asked for within the lookahead is taken, released slowly
 * but never above it, and then averaged over the lookahead. Each value in that average saw the frame's own wish, so
 * none is above it, and neither is their mean.
 */
export class Limiter {
  /** The deepest reduction so far, in dB. */
  deepestDb = 0
  private readonly kernel = soundKernel()
  private readonly ceiling: number
  private readonly lookahead: number
  private readonly release: number
  private readonly blocks: SoundBlocks
  private ready: Float32Array[] = []
  /** Frames that wait for the peaks ahead of them, and what each asks for. */
  private waiting: Float32Array
  private wishes: Float32Array
  private released = 1
  private readonly slope: Float32Array
  private slopeAt = 0
  private slopeSum: number
  /** Frames of the silence that stands before the sound, still to be dropped. */
  private lead: number

  constructor(
    sampleRateHz: number,
    private readonly channels: number,
    ceilingDbtp: number,
  ) {
    this.ceiling = amplitude(ceilingDbtp)
    this.blocks = new SoundBlocks(this.kernel, channels, frames => this.work(frames))
    this.lookahead = Math.max(1, Math.round((lookaheadMs / 1000) * sampleRateHz))
    this.release = 1 - Math.exp(-1000 / (releaseMs * sampleRateHz))
    this.waiting = new Float32Array(this.lookahead * channels)
    this.wishes = new Float32Array(this.lookahead).fill(1)
    this.slope = new Float32Array(this.lookahead).fill(1)
    this.slopeSum = this.lookahead
    this.lead = this.lookahead
  }

  /** Takes interleaved frames and answers those that are ready. */
  push(interleaved: Float32Array): Float32Array {
    this.blocks.push(interleaved)
    return this.taken()
  }

  /** Answers the rest. */
  finish(): Float32Array {
    this.blocks.finish()
    this.ready.push(
      this.apply(new Float32Array(this.lookahead * this.channels), new Float32Array(this.lookahead).fill(1)),
    )
    return this.taken()
  }

  private work(frames: number): void {
    const { channels, kernel } = this
    const sound = kernel.sound.slice(marginFrames * channels, (marginFrames + frames) * channels)
    this.ready.push(this.apply(sound, this.wishesOf(frames)))
  }

  private taken(): Float32Array {
    const all = joined(this.ready)
    this.ready = []
    return all
  }

  /** The gain that each frame of the block asks for; 1 without a closer look where a bound shows that it is enough. */
  private wishesOf(frames: number): Float32Array {
    const { channels, kernel, ceiling } = this
    const wishes = new Float32Array(frames).fill(1)
    kernel.scan(frames, channels)
    const windows = Math.ceil(frames / windowFrames)
    // What lies in the next block is not known yet, so the block's edges are always looked at.
    const peakOf = (window: number): number => {
      if (window < 0 || window >= windows) return Infinity
      const [a, b, c, d] = kernel.extremes.subarray(window * 4, window * 4 + 4)
      return Math.max(-a!, -b!, c!, d!)
    }
    for (let window = 0; window < windows; window++) {
      const around = Math.max(peakOf(window - 1), peakOf(window), peakOf(window + 1))
      if (around * truePeakBound <= ceiling) continue
      const from = window * windowFrames
      const to = Math.min(frames, from + windowFrames)
      kernel.peaksOf(from, to, channels)
      for (let i = from; i < to; i++) if (kernel.peaks[i]! > ceiling) wishes[i] = ceiling / kernel.peaks[i]!
    }
    // A peak between two frames belongs to both.
    for (let i = frames - 1; i > 0; i--) if (wishes[i - 1]! < wishes[i]!) wishes[i] = wishes[i - 1]!
    return wishes
  }

  /** Puts new frames and their wishes behind the waiting ones, and lets as many out as came in. */
  private apply(sound: Float32Array, wishes: Float32Array): Float32Array {
    const { channels, lookahead } = this
    const allSound = joined([this.waiting, sound])
    const allWishes = joined([this.wishes, wishes])
    const frames = wishes.length
    const out = allSound.slice(0, frames * channels)
    this.waiting = allSound.slice(frames * channels)
    this.wishes = allWishes.slice(frames)
    if (this.slopeSum < lookahead - 1e-6 || this.released < 1 || allWishes.some(wish => wish < 1))
      this.turnDown(out, leastAhead(allWishes, lookahead))
    const dropped = Math.min(this.lead, frames)
    this.lead -= dropped
    return dropped > 0 ? out.subarray(dropped * channels) : out
  }

  private turnDown(sound: Float32Array, least: Float32Array): void {
    const { channels, lookahead, slope } = this
    let deepest = 1
    for (let i = 0; i < least.length; i++) {
      this.released = Math.min(least[i]!, this.released + (1 - this.released) * this.release)
      if (this.released > 0.999_999) this.released = 1
      this.slopeSum += this.released - slope[this.slopeAt]!
      slope[this.slopeAt] = this.released
      this.slopeAt = (this.slopeAt + 1) % lookahead
      const gain = this.slopeSum / lookahead
      if (gain < deepest) deepest = gain
      for (let channel = 0; channel < channels; channel++) sound[i * channels + channel]! *= gain
    }
    this.deepestDb = Math.min(this.deepestDb, 20 * Math.log10(deepest))
  }
}

/** For each value but the last `ahead` the least of it and the `ahead` that follow. */
function leastAhead(values: Float32Array, ahead: number): Float32Array {
  const least = new Float32Array(values.length - ahead)
  const line = new Int32Array(values.length)
  let first = 0
  let end = 0
  for (let i = 0; i < values.length; i++) {
    while (end > first && values[line[end - 1]!]! >= values[i]!) end--
    line[end++] = i
    if (i < ahead) continue
    while (line[first]! < i - ahead) first++
    least[i - ahead] = values[line[first]!]!
  }
  return least
}

function joined(parts: readonly Float32Array[]): Float32Array {
  if (parts.length === 1) return parts[0]!
  const whole = new Float32Array(parts.reduce((sum, part) => sum + part.length, 0))
  let at = 0
  for (const part of parts) {
    whole.set(part, at)
    at += part.length
  }
  return whole
}
