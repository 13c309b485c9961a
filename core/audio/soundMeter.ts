import { ClipFinder, mayClip } from './clips'
import { level } from './decibels'
import { kWeighting } from './kWeighting'
import { LoudnessHistory } from './loudness'
import type { Measurement } from './measurement'
import { PyramidBuilder } from './pyramid'
import { SilenceFinder } from './silences'
import { SoundBlocks } from './soundBlocks'
import { marginFrames, type SoundKernel, soundKernel, windowFrames } from './soundKernel'
import { truePeakBound } from './truePeakFilter'

/** Sides that have less in common than this share of their power are each other turned over. */
const antiphase = -0.9

/** Both sides differ where any two samples differ by more; coding alone makes less of a difference. */
const sidesDiffer = 0.004

/**
 * Measures decoded sound in one streaming pass: loudness, true peak, clipping, silences, the stereo image and the
 * waveform. Memory grows by 16 bytes for each 100 ms.
 *
 * @example
 * const meter = new SoundMeter(44100, 2)
 * meter.push(interleaved) // Float32Array, full scale 1, as often as there is some
 * const { measurement, waveform } = meter.finish()
 */
export class SoundMeter {
  private readonly kernel: SoundKernel = soundKernel()
  private readonly blocks: SoundBlocks
  private readonly history = new LoudnessHistory()
  private readonly pyramid = new PyramidBuilder()
  private readonly clips: ClipFinder
  private readonly silences: SilenceFinder
  /** Frames that were worked on in blocks before. */
  private place = 0
  private samplePeak = 0
  private truePeak = 0
  private readonly sides = [0, 0]
  private differs = false
  private common = 0
  private power = 0
  /** The stretch of 100 ms under way: its number, its energy so far. */
  private stretch = 0
  private energy = 0

  /**
   * @param channels 1 or 2, weighted alike as BS.1770-5 weights left and right
   * @param onStretch is told the mean square of each 100 ms, all channels summed, after K-weighting
   */
  constructor(
    private readonly sampleRateHz: number,
    private readonly channels: 1 | 2,
    private readonly onStretch?: (meanSquare: number) => void,
  ) {
    this.kernel.weighting.set(kWeighting(sampleRateHz))
    this.blocks = new SoundBlocks(this.kernel, channels, frames => this.work(frames))
    this.clips = new ClipFinder(channels, sampleRateHz)
    this.silences = new SilenceFinder(sampleRateHz)
  }

  /** Takes interleaved frames; full scale is 1. */
  push(interleaved: Float32Array): void {
    this.blocks.push(interleaved)
  }

  finish(): { measurement: Measurement; waveform: Uint8Array } {
    const { channels, sampleRateHz } = this
    this.blocks.finish()
    const measurement: Measurement = {
      durationMs: (this.place / sampleRateHz) * 1000,
      sampleRateHz,
      channels,
      ...this.history.report(),
      truePeakDbtp: level(this.truePeak),
      samplePeakDbfs: level(this.samplePeak),
      ...this.clips.finish(this.place),
      ...this.silences.finish(this.place),
      image: this.image(),
    }
    return { measurement, waveform: this.pyramid.finish(this.place, sampleRateHz, this.history.curve()) }
  }

  /** Works on the first `frames` frames of the block. */
  private work(frames: number): void {
    const { channels, kernel } = this
    this.weigh(frames)
    kernel.scan(frames, channels)
    this.truePeak = kernel.truePeak(frames, channels, this.truePeak, truePeakBound)
    if (channels === 2) {
      this.differs ||= kernel.sidesDiffer(frames, sidesDiffer) !== 0
      this.common += kernel.common(frames)
      this.power += kernel.power(frames, channels)
    }
    for (let window = 0; window * windowFrames < frames; window++)
      this.note(window, Math.min(windowFrames, frames - window * windowFrames))
    this.place += frames
  }

  /** Sums the K-weighted energy into stretches of 100 ms, whose ends fall on the nearest sample. */
  private weigh(frames: number): void {
    for (let done = 0; done < frames;) {
      const stretchEnd = Math.round(((this.stretch + 1) * this.sampleRateHz) / 10)
      const to = Math.min(frames, stretchEnd - this.place)
      this.energy += this.kernel.energy(done, to, this.channels)
      done = to
      if (this.place + to < stretchEnd) continue
      const meanSquare = this.energy / (stretchEnd - Math.round((this.stretch * this.sampleRateHz) / 10))
      this.history.add(meanSquare)
      this.onStretch?.(meanSquare)
      this.energy = 0
      this.stretch++
    }
  }

  /** Writes down what the extremes of a window tell. */
  private note(window: number, frames: number): void {
    const { extremes } = this.kernel
    const at = window * 4
    const left = Math.max(-extremes[at]!, extremes[at + 2]!)
    const right = Math.max(-extremes[at + 1]!, extremes[at + 3]!)
    const peak = Math.max(left, right)
    const place = this.place + window * windowFrames
    if (left > this.sides[0]!) this.sides[0] = left
    if (right > this.sides[1]!) this.sides[1] = right
    if (peak > this.samplePeak) this.samplePeak = peak
    this.silences.add(place, peak)
    this.pyramid.add(Math.min(extremes[at]!, extremes[at + 1]!), Math.max(extremes[at + 2]!, extremes[at + 3]!))
    if (!mayClip(peak)) this.clips.pass(place)
    else this.clips.look(this.kernel.sound, marginFrames + window * windowFrames, frames, place)
  }

  private image(): Measurement['image'] {
    if (this.channels === 1) return 'mono'
    if (!this.differs) return 'dual mono'
    if (Math.min(...this.sides) < sidesDiffer) return 'one side only'
    return this.common < antiphase * this.power ? 'antiphase' : 'stereo'
  }
}
