import { amplitude } from './decibels'
import type { Stretch } from './measurement'

/** Under this peak a stretch is silence: room tone of a treated room lies lower, a quiet breath above. */
const silent = amplitude(-50)
const leastGapMs = 3000
const mostKept = 100

/** Finds the silence at both ends and long gaps within, from the peaks of short stretches in turn. */
export class SilenceFinder {
  private silentFrom: number | null = 0
  private head: number | null = null
  private readonly gaps: Stretch[] = []

  constructor(private readonly sampleRateHz: number) {}

  /** The next stretch, by its first sample's place and its peak. */
  add(place: number, peak: number): void {
    if (peak < silent) {
      this.silentFrom ??= place
      return
    }
    if (this.head === null) this.head = place
    else if (this.silentFrom !== null) this.gap(this.silentFrom, place)
    this.silentFrom = null
  }

  /** Silent throughout, all of it counts as head. */
  finish(samples: number): { headSilenceMs: number; tailSilenceMs: number; gaps: Stretch[] } {
    if (this.head === null) return { headSilenceMs: this.ms(samples), tailSilenceMs: 0, gaps: [] }
    return {
      headSilenceMs: this.ms(this.head),
      tailSilenceMs: this.silentFrom === null ? 0 : this.ms(samples - this.silentFrom),
      gaps: this.gaps,
    }
  }

  private gap(from: number, to: number): void {
    if (this.ms(to - from) >= leastGapMs && this.gaps.length < mostKept)
      this.gaps.push({ fromMs: this.ms(from), toMs: this.ms(to) })
  }

  private ms(samples: number): number {
    return (samples / this.sampleRateHz) * 1000
  }
}
