import { LoudnessHistory } from './loudness'
import type { Measurement, Stretch } from './measurement'
import { SoundMeter } from './soundMeter'

/** The channels of 5.0 as ffmpeg orders them, by pairs; weighted as ITU-R BS.1770-5 table 3 says: surrounds by 1.41. */
const pairs: readonly { channels: readonly number[]; weight: number }[] = [
  { channels: [0, 1], weight: 1 },
  { channels: [2], weight: 1 },
  { channels: [3, 4], weight: 1.41 },
]
export const surroundChannels = 5

/** Measures sound of five channels (left, right, centre, both surrounds) as `SoundMeter` measures one or two. */
export class SurroundMeter {
  private readonly meters: readonly { channels: readonly number[]; stretches: readonly number[]; meter: SoundMeter }[]

  constructor(private readonly sampleRateHz: number) {
    this.meters = pairs.map(({ channels }) => {
      const stretches: number[] = []
      return {
        channels,
        stretches,
        meter: new SoundMeter(sampleRateHz, channels.length as 1 | 2, meanSquare => stretches.push(meanSquare)),
      }
    })
  }

  push(interleaved: Float32Array): void {
    const frames = interleaved.length / surroundChannels
    for (const { channels, meter } of this.meters) {
      const sound = new Float32Array(frames * channels.length)
      for (let i = 0; i < frames; i++)
        for (const [at, channel] of channels.entries())
          sound[i * channels.length + at] = interleaved[i * surroundChannels + channel]!
      meter.push(sound)
    }
  }

  finish(): { measurement: Measurement; waveform: Uint8Array } {
    const found = this.meters.map(({ meter }) => meter.finish())
    const parts = found.map(({ measurement }) => measurement)
    const history = new LoudnessHistory()
    for (let n = 0; n < this.meters[0]!.stretches.length; n++) {
      history.add(this.meters.reduce((sum, { stretches }, pair) => sum + stretches[n]! * pairs[pair]!.weight, 0))
    }
    const { durationMs } = parts[0]!
    const silences = parts.map(({ headSilenceMs, tailSilenceMs, gaps }) => [
      { fromMs: 0, toMs: headSilenceMs },
      ...gaps,
      { fromMs: durationMs - tailSilenceMs, toMs: durationMs },
    ])
    const common = silences.reduce(overlaps)
    const loudest = parts.reduce(
      (best, part, pair) =>
        (part.integratedLufs ?? -Infinity) > (parts[best]!.integratedLufs ?? -Infinity) ? pair : best,
      0,
    )
    return {
      waveform: found[loudest]!.waveform,
      measurement: {
        durationMs,
        sampleRateHz: this.sampleRateHz,
        channels: surroundChannels,
        ...history.report(),
        truePeakDbtp: highest(parts.map(part => part.truePeakDbtp)),
        samplePeakDbfs: highest(parts.map(part => part.samplePeakDbfs)),
        clips: parts.flatMap(({ clips }) => clips).sort((one, other) => one.fromMs - other.fromMs),
        clipCount: parts.reduce((sum, { clipCount }) => sum + clipCount, 0),
        headSilenceMs: common.find(({ fromMs }) => fromMs === 0)?.toMs ?? 0,
        tailSilenceMs: durationMs - (common.find(({ toMs }) => toMs === durationMs)?.fromMs ?? durationMs),
        gaps: common.filter(({ fromMs, toMs }) => fromMs > 0 && toMs < durationMs && toMs - fromMs >= 3000),
        image: 'surround',
      },
    }
  }
}

const overlaps = (one: Stretch[], other: Stretch[]): Stretch[] =>
  one.flatMap(a =>
    other.flatMap(b => {
      const both = { fromMs: Math.max(a.fromMs, b.fromMs), toMs: Math.min(a.toMs, b.toMs) }
      return both.toMs > both.fromMs ? [both] : []
    }),
  )

function highest(levels: readonly (number | null)[]): number | null {
  const known = levels.filter(level => level !== null)
  return known.length > 0 ? Math.max(...known) : null
}
