import { amplitude } from './decibels'

export interface Part {
  seconds: number
  dbfs: number
  hz?: number
  phase?: number
}

/** Sines one after the other, the same on all channels, interleaved. */
export function tones(parts: readonly Part[], rate = 48_000, channels: 1 | 2 = 2): Float32Array {
  const lengths = parts.map(({ seconds }) => Math.round(seconds * rate))
  const sound = new Float32Array(lengths.reduce((sum, length) => sum + length, 0) * channels)
  let at = 0
  parts.forEach(({ dbfs, hz = 1000, phase = 0 }, index) => {
    for (let i = 0; i < lengths[index]!; i++) {
      const value = amplitude(dbfs) * Math.sin((2 * Math.PI * hz * i) / rate + phase)
      for (let channel = 0; channel < channels; channel++) sound[at++] = value
    }
  })
  return sound
}

/** Opened and closed slowly, since a tone that breaks off has a higher true peak at the break. */
export const eased = (sound: Float32Array): Float32Array =>
  sound.map((value, i) => value * Math.min(1, i / 20_000, (sound.length - i) / 20_000))

const steady = (seconds: number, ...levels: number[]): Part[] => levels.map(dbfs => ({ seconds, dbfs }))

/** EBU Tech 3341 (2016), table 1, cases 1 to 5, from memory: stereo 1 kHz sines and their integrated loudness, ±0.1 LU. */
export const loudnessCases: readonly [string, Part[], number][] = [
  ['1', steady(20, -23), -23],
  ['2', steady(20, -33), -33],
  ['3', [...steady(10, -36), ...steady(60, -23), ...steady(10, -36)], -23],
  ['4', [...steady(10, -72, -36), ...steady(60, -23), ...steady(10, -36, -72)], -23],
  ['5', [...steady(20, -26), ...steady(20.1, -20), ...steady(20, -26)], -23],
]

/** EBU Tech 3342, minimum requirements, cases 1 to 4, from memory: loudness range, ±1 LU. */
export const rangeCases: readonly [string, Part[], number][] = [
  ['1', steady(20, -20, -30), 10],
  ['2', steady(20, -20, -15), 5],
  ['3', steady(20, -40, -20), 20],
  ['4', steady(20, -50, -35, -20, -35, -50), 15],
]

const sine = (part: number, degrees: number, scale: number): Part[] => [
  { seconds: 2, dbfs: 20 * Math.log10(scale), hz: 48_000 / part, phase: (degrees / 180) * Math.PI },
]

/** EBU Tech 3341, table 1, cases 15 to 19, from memory: true peak, +0.2 / −0.4 dB. To be eased. */
export const truePeakCases: readonly [string, Part[], number][] = [
  ['15', sine(4, 0, 0.5), -6],
  ['16', sine(4, 45, 0.5), -6],
  ['17', sine(6, 60, 0.5), -6],
  ['18', sine(8, 67.5, 0.5), -6],
  ['19', sine(4, 45, 1.41), 3],
]
