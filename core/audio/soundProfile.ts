import { SoundBlocks } from './soundBlocks'
import { soundKernel, windowFrames } from './soundKernel'
import { kWeighting } from './kWeighting'
import { truePeakBound } from './truePeakFilter'

/** A sound as far as a limiter and a loudness meter care: for each window of 64 frames its peak and its energy. */
export interface SoundProfile {
  sampleRateHz: number
  frames: number
  /** The largest magnitude of each window, between samples too where that may matter to a limiter. */
  peaks: Float32Array
  /** The K-weighted energy of each window, all channels summed. */
  energies: Float32Array
}

/** Takes a sound's profile as it streams through; eight bytes for each 64 frames, an hour at 44.1 kHz in 20 MB. */
export class SoundProfiler {
  private readonly kernel = soundKernel()
  private readonly blocks: SoundBlocks
  private peaks = new Float32Array(65_536)
  private energies = new Float32Array(65_536)
  private windows = 0
  private frames = 0

  /** @param lookedInto windows whose peak may lie over this amplitude are looked into between their samples, which takes time */
  constructor(
    private readonly sampleRateHz: number,
    private readonly channels: 1 | 2,
    private readonly lookedInto = 0,
  ) {
    this.kernel.weighting.set(kWeighting(sampleRateHz))
    this.blocks = new SoundBlocks(this.kernel, channels, frames => this.work(frames))
  }

  /** Takes interleaved frames; full scale is 1. */
  push(interleaved: Float32Array): void {
    this.blocks.push(interleaved)
  }

  finish(): SoundProfile {
    this.blocks.finish()
    return {
      sampleRateHz: this.sampleRateHz,
      frames: this.frames,
      peaks: this.peaks.subarray(0, this.windows),
      energies: this.energies.subarray(0, this.windows),
    }
  }

  private work(frames: number): void {
    const { channels, kernel } = this
    kernel.scan(frames, channels)
    for (let from = 0, at = 0; from < frames; from += windowFrames, at += 4) {
      if (this.windows === this.peaks.length) {
        this.peaks = widened(this.peaks)
        this.energies = widened(this.energies)
      }
      const { extremes } = kernel
      const to = Math.min(frames, from + windowFrames)
      const samplePeak = Math.max(-extremes[at]!, -extremes[at + 1]!, extremes[at + 2]!, extremes[at + 3]!)
      this.peaks[this.windows] = samplePeak * truePeakBound > this.lookedInto ? this.truePeak(from, to) : samplePeak
      this.energies[this.windows] = kernel.energy(from, to, channels)
      this.windows++
    }
    this.frames += frames
  }

  private truePeak(from: number, to: number): number {
    this.kernel.peaksOf(from, to, this.channels)
    let most = 0
    for (let i = from; i < to; i++) if (this.kernel.peaks[i]! > most) most = this.kernel.peaks[i]!
    return most
  }
}

function widened(values: Float32Array): Float32Array<ArrayBuffer> {
  const wider = new Float32Array(values.length * 2)
  wider.set(values)
  return wider
}
