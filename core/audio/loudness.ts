import type { Measurement } from './measurement'

/** Loudness of a mean square of K-weighted sound, in LUFS (ITU-R BS.1770-5 annex 1, equation 2). */
const loudness = (meanSquare: number): number => -0.691 + 10 * Math.log10(meanSquare)
const meanSquareOf = (lufs: number): number => 10 ** ((lufs + 0.691) / 10)

/** Silence has no loudness. */
const heard = (lufs: number): number | null => (lufs > -Infinity ? lufs : null)

const absoluteGate = meanSquareOf(-70)

type Loudness = Pick<Measurement, 'integratedLufs' | 'rangeLu' | 'momentaryMaxLufs' | 'shortTermMaxLufs'>

/** Collects the mean squares of stretches of 100 ms, all channels summed, and tells the loudness of all of them, as EBU R 128 reports it. */
export class LoudnessHistory {
  /** Mean squares of 400 ms blocks, one every 100 ms: overlapping by 75 % as BS.1770-5 asks. */
  private readonly momentary = new Series()
  /** Mean squares of 3 s, one every 100 ms. */
  private readonly shortTerm = new Series()
  private readonly last = new Float64Array(30)
  private count = 0

  add(meanSquare: number): void {
    this.last[this.count % 30] = meanSquare
    this.count++
    if (this.count >= 4) this.momentary.push(this.meanOfLast(4))
    if (this.count >= 30) this.shortTerm.push(this.meanOfLast(30))
  }

  report(): Loudness {
    const momentary = this.momentary.values()
    const shortTerm = this.shortTerm.values()
    return {
      integratedLufs: heard(integrated(momentary)),
      rangeLu: range(shortTerm),
      momentaryMaxLufs: heard(loudness(largest(momentary))),
      shortTermMaxLufs: heard(loudness(largest(shortTerm))),
    }
  }

  /** Short-term loudness at the end of each full second, in LUFS. */
  curve(): number[] {
    const values = this.shortTerm.values()
    return Array.from({ length: Math.ceil(values.length / 10) }, (_, second) => loudness(values[second * 10]!))
  }

  private meanOfLast(stretches: number): number {
    let sum = 0
    for (let n = 1; n <= stretches; n++) sum += this.last[(this.count - n) % 30]!
    return sum / stretches
  }
}

/** BS.1770-5 annex 1, equations 5 to 7: gated at −70 LUFS, then at 10 LU under the loudness of what passed. */
function integrated(blocks: Float64Array): number {
  const relativeGate = meanOver(blocks, absoluteGate) / 10
  return loudness(meanOver(blocks, Math.max(absoluteGate, relativeGate)))
}

/** EBU Tech 3342: gated at −70 LUFS and at 20 LU under what passed, then from the 10th to the 95th percentile. */
function range(shortTerm: Float64Array): number {
  const gate = Math.max(absoluteGate, meanOver(shortTerm, absoluteGate) / 100)
  const passed = shortTerm.filter(value => value >= gate).sort()
  if (passed.length === 0) return 0
  const at = (share: number): number => loudness(passed[Math.round((passed.length - 1) * share)]!)
  return at(0.95) - at(0.1)
}

function meanOver(values: Float64Array, gate: number): number {
  let sum = 0
  let passed = 0
  for (const value of values) {
    if (value < gate) continue
    sum += value
    passed++
  }
  return passed === 0 ? 0 : sum / passed
}

function largest(values: Float64Array): number {
  let most = 0
  for (const value of values) if (value > most) most = value
  return most
}

/** Numbers that come in one by one, without the cost of an array of boxed ones. */
class Series {
  private held = new Float64Array(1024)
  private length = 0

  push(value: number): void {
    if (this.length === this.held.length) {
      const wider = new Float64Array(this.length * 2)
      wider.set(this.held)
      this.held = wider
    }
    this.held[this.length++] = value
  }

  values(): Float64Array {
    return this.held.subarray(0, this.length)
  }
}
