import { amplitude } from './decibels'

/** Where levelling of speech begins: common practice, no source. */
const firstThresholdDb = -15
const kneeDb = 6
const attackMs = 8
const releaseMs = 220
const detectorMs = 15

/** What the one knob, 0 (leave) to 1 (even), comes to. */
export const levellingOf = (knob: number): { thresholdDb: number; ratio: number } => ({
  thresholdDb: firstThresholdDb - 12 * knob,
  ratio: 1 + 3 * knob,
})

/** By how many dB a steady level is turned down: nothing under the threshold, a soft knee, then by the ratio. */
export function reductionDb(levelDb: number, knob: number): number {
  const { thresholdDb, ratio } = levellingOf(knob)
  const over = levelDb - thresholdDb
  const slope = 1 - 1 / ratio
  if (over <= -kneeDb / 2) return 0
  return over >= kneeDb / 2 ? slope * over : (slope * (over + kneeDb / 2) ** 2) / (2 * kneeDb)
}

/** Evens out soft and loud by turning the loud down: a compressor that hears all channels together. Works in place. */
export class Leveller {
  /** Deepest reduction in each tenth of a second, in dB. */
  readonly reductionsDb: number[] = []
  private readonly hopFrames: number
  private inHop = 0
  private hopEnergy = 0
  private meanSquare = 0
  private reduction = 0
  private gain = 1
  private step = 0
  private hops = 0

  constructor(
    private readonly sampleRateHz: number,
    private readonly channels: number,
    private readonly knob: number,
  ) {
    this.hopFrames = Math.max(1, Math.round(sampleRateHz / 1000))
  }

  process(interleaved: Float32Array): void {
    const { channels, hopFrames } = this
    for (let at = 0; at < interleaved.length; at += channels) {
      let energy = 0
      for (let channel = 0; channel < channels; channel++) {
        const value = interleaved[at + channel]!
        energy = Math.max(energy, value * value)
        interleaved[at + channel] = value * this.gain
      }
      this.gain += this.step
      this.hopEnergy += energy
      if (++this.inHop === hopFrames) this.turn()
    }
  }

  /** Once a millisecond: hears how loud it is, and sets out for the gain that fits. */
  private turn(): void {
    const hopMs = (this.hopFrames / this.sampleRateHz) * 1000
    this.meanSquare += (this.hopEnergy / this.hopFrames - this.meanSquare) * (1 - Math.exp(-hopMs / detectorMs))
    const wanted = reductionDb(10 * Math.log10(this.meanSquare + 1e-12), this.knob)
    const timeMs = wanted > this.reduction ? attackMs : releaseMs
    this.reduction += (wanted - this.reduction) * (1 - Math.exp(-hopMs / timeMs))
    this.step = (amplitude(-this.reduction) - this.gain) / this.hopFrames
    this.hopEnergy = 0
    this.inHop = 0
    const tenth = Math.floor((this.hops++ * hopMs) / 100)
    this.reductionsDb[tenth] = Math.max(this.reductionsDb[tenth] ?? 0, this.reduction)
  }
}
