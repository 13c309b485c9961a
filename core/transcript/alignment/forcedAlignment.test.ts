import { describe, expect, it } from 'vitest'
import type { Cue } from '../cue'
import { FeatureBuilder, type Features, hopMs, alignmentRateHz } from './features'
import { estimate, alignUnits } from './forcedAlignment'
import { unitsOf } from './units'

const cue = (id: string, text: string, rest: Partial<Cue> = {}): Cue => ({
  id,
  fromMs: null,
  toMs: null,
  speaker: 'Tove',
  text,
  ...rest,
})

describe('a script', () => {
  let made = 0
  const units = (...cues: Cue[]) => unitsOf(cues, 'en', () => `new${++made}`)
  it('becomes sentences, each with who says it', () => {
    expect(
      units(cue('a', 'Is it the reed? It is never the reed.')).map(({ text, speaker }) => [text, speaker]),
    ).toEqual([
      ['Is it the reed?', 'Tove'],
      ['It is never the reed.', 'Tove'],
    ])
  })
  it('long sentences become parts of two lines, cut at a comma where one is near', () => {
    const long =
      'Eighteen folds, corners of goat leather, gussets cut on the skew so that they give, and a year of patience.'
    const parts = units(cue('a', long)).map(({ text }) => text)
    expect(parts.join(' ')).toBe(long)
    expect(parts.every(({ length }) => length <= 84)).toBe(true)
    expect(parts[0]!.endsWith(',')).toBe(true)
  })
  it('words without a space are one part, however long', () => expect(units(cue('a', 'x'.repeat(300))).length).toBe(1))
  it('what a file kept of a cue stays with its first part', () => {
    const kept = { name: 'first', notes: ['NOTE to be checked'] }
    expect(units(cue('a', 'One. Two.', { kept })).map(each => each.kept)).toEqual([kept, undefined])
  })
  it('a cue whose time is known stays whole', () => {
    const known = cue('a', 'One. Two.', { fromMs: 0, toMs: 1 })
    expect(units(known)).toEqual([known])
  })
})

/** Tones of other pitches, one after the other, each as long as said. */
function melody(notes: readonly (readonly [hertz: number, seconds: number])[]): Features {
  const builder = new FeatureBuilder()
  for (const [hertz, seconds] of notes)
    builder.push(
      Float32Array.from({ length: seconds * alignmentRateHz }, (_each, at) => {
        const t = at / alignmentRateHz
        return (
          hertz &&
          0.3 * Math.sin(2 * Math.PI * hertz * t) * (1 + Math.sin(2 * Math.PI * 4 * t)) +
            0.1 * Math.sin(2 * Math.PI * hertz * 3 * t)
        )
      }),
    )
  return builder.finish()
}
const notes = [300, 450, 700, 1100, 250, 900].map(hertz => [hertz, 2] as const)
const units = notes.map((_note, at) => ({
  fromMs: at * 2000,
  toMs: at * 2000 + 1900,
  speaker: null,
  pinnedMs: null as number | null,
}))

describe('a sound laid over another', () => {
  it('of the same, later and slower, is found where it is', () => {
    const sound = melody([[0, 3], ...notes.map(([hertz]) => [hertz, 2.5] as const)])
    alignUnits(units, melody(notes), sound).forEach(({ fromMs }, at) => {
      expect(Math.abs(fromMs - (3000 + at * 2500))).toBeLessThan(400)
    })
  })
  it('keeps what is pinned, and lays both sides by themselves', () => {
    const sound = melody([[0, 3], ...notes])
    const pinned = units.map((unit, at) => (at === 3 ? { ...unit, pinnedMs: 9000 } : unit))
    const aligned = alignUnits(pinned, melody(notes), sound)
    expect(Math.abs(aligned[3]!.fromMs - 9000)).toBeLessThanOrEqual(hopMs)
    expect(Math.abs(aligned[4]!.fromMs - 11_000)).toBeLessThan(400)
  })
  it('never goes back, also where nothing fits', () => {
    const aligned = alignUnits(units, melody(notes), melody([[0, 1]]))
    const begins = aligned.map(({ fromMs }) => fromMs)
    expect(begins).toEqual(begins.toSorted((one, other) => one - other))
    expect(aligned.every(({ fromMs, toMs }) => toMs > fromMs)).toBe(true)
  })
  it('of nothing is nothing', () => expect(alignUnits([], melody(notes), melody(notes))).toEqual([]))
})

it('an estimate goes by length and by where something is heard, and is never sure', () => {
  const sound = melody([
    [0, 2],
    [400, 2],
    [0, 4],
    [400, 2],
  ])
  const [one, other] = estimate([50, 50], sound)
  expect(Math.abs(one!.fromMs - 2000)).toBeLessThan(200)
  expect(Math.abs(other!.fromMs - 8000)).toBeLessThan(4100)
  expect(one!.sure).toBeLessThan(0.5)
})
