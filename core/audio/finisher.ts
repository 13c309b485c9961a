import { amplitude } from './decibels'
import { fade, type Fades } from './fades'
import { Leveller } from './leveller'
import { Limiter } from './limiter'

/** A recipe worked out for one source: all places in frames of the decoded sound. */
export interface FinishPlan {
  sampleRateHz: number
  channels: 1 | 2
  fromFrame: number
  /** The frame before which it ends. */
  toFrame: number
  fades: Omit<Fades, 'frames'>
  /** Gain before levelling, so that the threshold means the same for every recording. */
  gainBeforeDb: number
  levelling: number
  gainDb: number
  /** Null leaves peaks alone. */
  ceilingDbtp: number | null
}

/** Turns decoded sound into finished sound as it streams through: trim, levelling, gain, fades, true-peak limiting. */
export class Finisher {
  private readonly leveller: Leveller | null
  private readonly limiter: Limiter | null
  private place = 0
  private taken = 0

  constructor(private readonly plan: FinishPlan) {
    const { sampleRateHz, channels, levelling, ceilingDbtp } = plan
    this.leveller = levelling > 0 ? new Leveller(sampleRateHz, channels, levelling) : null
    this.limiter = ceilingDbtp === null ? null : new Limiter(sampleRateHz, channels, ceilingDbtp)
  }

  /** Takes interleaved frames, which it may change, and answers those that are ready. */
  push(interleaved: Float32Array): Float32Array {
    const { channels, fromFrame, toFrame, fades, gainBeforeDb, gainDb } = this.plan
    const kept = this.cut(interleaved)
    const start = this.taken
    this.taken += kept.length / channels
    if (this.leveller) {
      scale(kept, amplitude(gainBeforeDb))
      this.leveller.process(kept)
    }
    scale(kept, amplitude(this.leveller ? gainDb : gainBeforeDb + gainDb))
    fade(kept, channels, start, { ...fades, frames: toFrame - fromFrame })
    return this.limiter ? this.limiter.push(kept) : kept
  }

  /** The frames between the ends. */
  private cut(interleaved: Float32Array): Float32Array {
    const { channels, fromFrame, toFrame } = this.plan
    const frames = interleaved.length / channels
    const first = Math.min(Math.max(fromFrame - this.place, 0), frames)
    const end = Math.min(Math.max(toFrame - this.place, first), frames)
    this.place += frames
    return interleaved.subarray(first * channels, end * channels)
  }

  finish(): { rest: Float32Array; limitedByDb: number; reductionsDb: number[] } {
    const rest = this.limiter?.finish() ?? new Float32Array()
    return { rest, limitedByDb: -(this.limiter?.deepestDb ?? 0), reductionsDb: this.leveller?.reductionsDb ?? [] }
  }
}

function scale(sound: Float32Array, gain: number): void {
  if (gain === 1) return
  for (let i = 0; i < sound.length; i++) sound[i]! *= gain
}
