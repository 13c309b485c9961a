import { describe, expect, it } from 'vitest'
import { oneCut, timelineOf } from '../audio/timeline'
import { fields, type Soundbite } from '../episode/fields'
import { deliveredSoundbites, movedEdge, soundbiteFrom, soundbiteWants } from './soundbites'

const bite = (fromMs: number, toMs: number, title = ''): Soundbite => ({ id: `b${fromMs}`, fromMs, toMs, title })

describe('a soundbite that is made with one press', () => {
  it.each([
    ['in the middle', 20_000, 100_000, 20_000, 50_000],
    ['near the end', 90_000, 100_000, 90_000, 100_000],
    ['at the very end', 100_000, 100_000, 99_000, 100_000],
    ['before the beginning', -5, 100_000, 0, 29_995],
  ])('%s', (_where, atMs, endMs, fromMs, toMs) =>
    expect(soundbiteFrom('a', atMs, endMs)).toMatchObject({ fromMs, toMs }),
  )
})

describe('an edge that is moved', () => {
  it.each([
    ['goes where it is put', 'fromMs', 25_000.4, 25_000],
    ['stops a second before the other', 'fromMs', 90_000, 39_000],
    ['stops a second behind the other', 'toMs', 0, 21_000],
    ['stops at the end of the sound', 'toMs', 9e6, 500_000],
    ['stops at its beginning', 'fromMs', -5, 0],
  ] as const)('%s', (_what, edge, ms, wanted) =>
    expect(movedEdge(bite(20_000, 40_000), edge, ms, 500_000)).toBe(wanted),
  )
  it('goes no farther than ten minutes from the other', () =>
    expect(movedEdge(bite(0, 20_000), 'toMs', 9e6, 9e6)).toBe(600_000))
})

describe('soundbites of a sound that was cut', () => {
  const cut = oneCut(10_000, 60_000)
  it.each([
    ['go by its clock', bite(20_000, 40_000), [10_000, 30_000]],
    ['lose what hangs over its beginning', bite(5_000, 25_000), [0, 15_000]],
    ['lose what hangs over its end', bite(60_000, 80_000), [50_000, 60_000]],
    ['fall away before it', bite(0, 10_900), null],
    ['fall away behind it', bite(69_500, 90_000), null],
  ])('%s', (_what, given, wanted) =>
    expect(deliveredSoundbites([given], cut).map(({ fromMs, toMs }) => [fromMs, toMs])).toEqual(wanted ? [wanted] : []),
  )
  it('are shorter by what was cut out of them', () => {
    const timeline = timelineOf([
      { fromMs: 0, toMs: 30_000 },
      { fromMs: 40_000, toMs: 80_000 },
    ])
    expect(deliveredSoundbites([bite(20_000, 60_000)], timeline)).toMatchObject([{ fromMs: 20_000, toMs: 50_000 }])
    expect(deliveredSoundbites([bite(31_000, 39_000)], timeline)).toEqual([])
  })
  it('come in the order of their beginnings', () =>
    expect(deliveredSoundbites([bite(40_000, 60_000), bite(20_000, 30_000)], cut).map(({ id }) => id)).toEqual([
      'b20000',
      'b40000',
    ]))
})

// podcast namespace, soundbite: 15 to 120 seconds; from memory.
describe('what is worth a look in soundbites', () => {
  const kept = { fromMs: 10_000, toMs: 300_000 }
  it.each([
    ['of 15 seconds', bite(20_000, 35_000), []],
    ['of two minutes', bite(20_000, 140_000), []],
    ['of 14.9 seconds', bite(20_000, 34_900), ['soundbite-short']],
    ['of more than two minutes', bite(20_000, 140_100), ['soundbite-long']],
    ['that is cut into', bite(5_000, 35_000), ['soundbite-cut-into']],
    ['that is cut off', bite(0, 10_000), ['soundbite-cut-off']],
  ])('one %s', (_which, given, codes) => expect(soundbiteWants([given], kept).map(({ code }) => code)).toEqual(codes))
})

describe('what may be written of one', () => {
  it.each([
    ['that ends before it begins', [bite(5_000, 4_000)], 'It ends a second or more after it begins.'],
    ['of eleven minutes', [bite(0, 660_000)], 'At most ten minutes long.'],
    ['twice', [bite(0, 20_000), bite(0, 30_000)], 'Each of the soundbites once.'],
    ['too many', Array.from({ length: 31 }, (_each, at) => bite(at, at + 20_000)), 'At most 30 soundbites.'],
    ['with half a moment', [bite(0.5, 20_000)], 'A whole number.'],
  ])('not one %s', (_which, given, rule) =>
    expect(fields.soundbites.schema.safeParse(given).error?.issues.map(({ message }) => message)).toContain(rule),
  )
})
