import Meyda from 'meyda'

/** Speech is told apart by what lies below 4 kHz. */
export const alignmentRateHz = 8000
const frameSamples = 256
const hopSamples = 320
/** How far apart what is compared stands. */
export const hopMs = (hopSamples / alignmentRateHz) * 1000

/** Cepstral coefficients but the first, which is loudness and is held apart, each with how it changes. */
const coefficients = 10
const told = coefficients + 1
export const dimensions = told * 2

/** How a sound goes on: for each frame the shape of its spectrum and its loudness, brought to one scale. */
export interface Features {
  /** `dimensions` values for each frame. */
  values: Float32Array
  count: number
  /** Loudness of each frame in dB, as it is. */
  levelsDb: Float32Array
}

/** Describes a sound of one channel at `alignmentRateHz` by mel-frequency cepstral coefficients. */
export class FeatureBuilder {
  private readonly values: number[] = []
  private readonly levels: number[] = []
  private rest = new Float32Array(0)

  push(samples: Float32Array): void {
    const all = new Float32Array(this.rest.length + samples.length)
    all.set(this.rest)
    all.set(samples, this.rest.length)
    let at = 0
    for (; at + hopSamples <= all.length; at += hopSamples) this.take(all.subarray(at, at + frameSamples))
    this.rest = all.slice(at)
  }

  finish(): Features {
    const count = this.levels.length
    const levelsDb = Float32Array.from(this.levels)
    return { values: described(Float32Array.from(this.values), levelsDb), count, levelsDb }
  }

  private take(frame: Float32Array): void {
    let sum = 0
    for (const sample of frame) sum += sample * sample
    const level = 10 * Math.log10(sum / frame.length + 1e-9)
    Object.assign(Meyda, {
      bufferSize: frameSamples,
      sampleRate: alignmentRateHz,
      melBands: 24,
      numberOfMFCCCoefficients: coefficients + 1,
    })
    const found = Meyda.extract('mfcc', frame) as unknown as number[]
    for (let at = 1; at <= coefficients; at++) this.values.push(found[at]!)
    this.values.push(level)
    this.levels.push(level)
  }
}

/**
 * Each coefficient with no mean and a spread of one over what is not silent, the loudness between the quiet and the loud of
 * its sound; and of each how it changes over a fifth of a second, by which speech is told from music.
 */
function described(values: Float32Array, levelsDb: Float32Array): Float32Array {
  const count = levelsDb.length
  const sorted = levelsDb.toSorted()
  const quiet = sorted[Math.floor(count * 0.1)] ?? 0
  const span = Math.max(6, (sorted[Math.floor(count * 0.9)] ?? 0) - quiet)
  const isHeard = (at: number): boolean => levelsDb[at]! > quiet + span * 0.4
  for (let at = 0; at < count; at++) {
    const place = at * told + coefficients
    values[place] = Math.max(-1, Math.min(2, (levelsDb[at]! - quiet) / span)) * loudnessWeight
  }
  for (let which = 0; which < coefficients; which++) spreadToOne(values, told, which, isHeard)
  const all = new Float32Array(count * dimensions)
  for (let at = 0; at < count; at++)
    for (let which = 0; which < told; which++) {
      const valueAt = (frame: number): number => values[Math.min(count - 1, Math.max(0, frame)) * told + which]!
      all[at * dimensions + which] = valueAt(at)
      // Regression over five frames (HTK book, section 5.9, from memory).
      all[at * dimensions + told + which] =
        (valueAt(at + 1) - valueAt(at - 1) + 2 * (valueAt(at + 2) - valueAt(at - 2))) / 10
    }
  for (let which = told; which < dimensions; which++) spreadToOne(all, dimensions, which, isHeard)
  return all
}

function spreadToOne(values: Float32Array, stride: number, which: number, isHeard: (at: number) => boolean): void {
  let [sum, squares, heard] = [0, 0, 0]
  for (let at = 0; at * stride < values.length; at++) {
    if (!isHeard(at)) continue
    const value = values[at * stride + which]!
    sum += value
    squares += value * value
    heard++
  }
  const mean = sum / Math.max(1, heard)
  const spread = Math.sqrt(Math.max(1e-6, squares / Math.max(1, heard) - mean * mean))
  for (let at = which; at < values.length; at += stride)
    values[at] = Math.max(-3, Math.min(3, (values[at]! - mean) / spread))
}
const loudnessWeight = 2
