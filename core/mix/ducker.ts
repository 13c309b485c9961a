import { amplitude } from '../audio/decibels'
import type { Ducking } from './document'

const detectorMs = 10
/** Quieter than this is silence. */
const floorDb = -120

/**
 * How much a bed gives way to what is said over it: by as many dB as the voice is over the threshold, and by no more than the
 * depth. It goes down and comes back by time constants, in dB; what it does is worked out each millisecond, with a straight line between.
 */
export class Ducker {
  private readonly hopFrames: number
  private readonly detector: number
  private readonly attack: number
  private readonly release: number
  private inHop = 0
  private energy = 0
  private meanSquare = 0
  private reductionDb = 0
  private gain = 1
  private step = 0

  constructor(
    sampleRateHz: number,
    private readonly settings: Ducking,
  ) {
    this.hopFrames = Math.max(1, Math.round(sampleRateHz / 1000))
    const share = (ms: number): number => 1 - Math.exp((-1000 * this.hopFrames) / (ms * sampleRateHz))
    this.detector = share(detectorMs)
    this.attack = share(settings.attackMs)
    this.release = share(settings.releaseMs)
  }

  /** The factor for the bed at the next frame, from that frame of the voice, or one that comes later by the lookahead. */
  next(left: number, right: number): number {
    this.energy += left * left + right * right
    this.gain += this.step
    if (++this.inHop === this.hopFrames) this.turn()
    return this.gain
  }

  private turn(): void {
    const { thresholdDb, depthDb } = this.settings
    this.meanSquare += (this.energy / (2 * this.hopFrames) - this.meanSquare) * this.detector
    // A level in dB is of peaks here, as that of a sine is: 3 dB over its mean square.
    const levelDb = this.meanSquare < 1e-14 ? floorDb : 10 * Math.log10(2 * this.meanSquare)
    const wantedDb = Math.min(depthDb, Math.max(0, levelDb - thresholdDb))
    this.reductionDb += (wantedDb - this.reductionDb) * (wantedDb > this.reductionDb ? this.attack : this.release)
    this.step = (amplitude(-this.reductionDb) - this.gain) / this.hopFrames
    this.inHop = 0
    this.energy = 0
  }
}
