import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { layoutOf, toMix, toPiece } from './layout'
import { bedOf, mixOf, pieceId, pieceOf } from './mix.fixture'

const minute = (): number => 60_000
const times = (...of: Parameters<typeof layoutOf>): [atMs: number, endMs: number][] =>
  layoutOf(...of).pieces.map(({ atMs, durationMs }) => [atMs, atMs + durationMs])

describe('laid out', () => {
  it('pieces follow each other by their overlaps and gaps', () => {
    const mix = mixOf([
      pieceOf(1, [[0, 10_000]]),
      pieceOf(
        2,
        [
          [5_000, 25_000],
          [30_000, 40_000],
        ],
        { overlapMs: 4_000 },
      ),
      pieceOf(3, [[0, 5_000]], { overlapMs: -2_000 }),
    ])
    expect(times(mix, minute)).toEqual([
      [0, 10_000],
      [6_000, 36_000],
      [38_000, 43_000],
    ])
    expect(layoutOf(mix, minute).durationMs).toBe(43_000)
  })
  // Common practice, no source: the voice enters 10 to 12 s into the opening music.
  it('an opening bed begins before its voice, which moves everything back, and goes where its piece goes', () => {
    const [opening, first, second] = [
      bedOf(3, 1, 20_000, { offsetMs: -11_000 }),
      pieceOf(1, [[0, 9_000]]),
      pieceOf(2, [[0, 9_000]]),
    ]
    const before = layoutOf(mixOf([first, second], [opening]), minute)
    expect([before.beds[0]!.atMs, ...before.pieces.map(({ atMs }) => atMs)]).toEqual([0, 11_000, 20_000])
    const after = layoutOf(mixOf([second, first], [opening]), minute)
    expect([after.beds[0]!.atMs, ...after.pieces.map(({ atMs }) => atMs)]).toEqual([0, 2_000, 11_000])
    expect(after.durationMs).toBe(20_000)
  })
  it('a closing bed goes with the end of its piece, wherever that is cut', () => {
    const closing = bedOf(3, 1, 20_000, { offsetFrom: 'end', offsetMs: -8_000 })
    const endsAt = (toMs: number): number => layoutOf(mixOf([pieceOf(1, [[0, toMs]])], [closing]), minute).durationMs
    expect([endsAt(30_000), endsAt(24_000)]).toEqual([42_000, 36_000])
  })
  it('no overlap is longer than its pieces, and no three pieces are heard together', () => {
    const long = { overlapMs: 50_000 }
    const mix = mixOf([pieceOf(1, [[0, 10_000]]), pieceOf(2, [[0, 100]], long), pieceOf(3, [[0, 10_000]], long)])
    expect(times(mix, minute)).toEqual([
      [0, 10_000],
      [9_900, 10_000],
      [10_000, 20_000],
    ])
  })
  it('of a file that has become shorter what is left is heard, also where that is nothing', () => {
    const mix = mixOf([
      pieceOf(1, [
        [0, 3_000],
        [8_000, 20_000],
      ]),
      pieceOf(2, [[12_000, 15_000]]),
      pieceOf(3, [[0, 1_000]]),
    ])
    expect(times(mix, () => 10_000)).toEqual([
      [0, 5_000],
      [5_000, 5_000],
      [5_000, 6_000],
    ])
  })
  it('nothing lasts nothing', () =>
    expect(layoutOf(mixOf([]), minute)).toEqual({ pieces: [], beds: [], durationMs: 0 }))
})

describe('the clock', () => {
  const mix = mixOf(
    [
      pieceOf(1, [[0, 10_000]]),
      pieceOf(
        2,
        [
          [5_000, 25_000],
          [30_000, 40_000],
        ],
        { overlapMs: 4_000 },
      ),
    ],
    [bedOf(3, 1, 5_000, { offsetMs: -1_000 })],
  )
  const layout = layoutOf(mix, minute)
  it.each([
    ['the beginning of what is kept', 5_000, 7_000],
    ['a moment before the cut', 24_000, 26_000],
    ['one in the cut, heard where the cut is', 27_000, 27_000],
    ['one behind it', 31_000, 28_000],
  ])('leads from a file to the mix: %s', (_what, fileMs, mixMs) =>
    expect(toMix(layout, pieceId(2), fileMs)).toBe(mixMs),
  )
  it('leads back, in an overlap to the piece that begins there, and nowhere where no piece is', () => {
    const at = (mixMs: number) => {
      const found = toPiece(layout, mixMs)
      return found && [found.piece.id, found.fileMs]
    }
    expect(at(6_000)).toEqual([pieceId(1), 5_000])
    expect(at(8_000)).toEqual([pieceId(2), 6_000])
    expect(at(28_000)).toEqual([pieceId(2), 31_000])
    expect(at(500)).toBeNull()
    expect(at(90_000)).toBeNull()
    expect(toMix(layout, pieceId(9), 0)).toBeNull()
  })
  it('leads there and back to the same moment, whatever was cut', () => {
    const cuts = fc.uniqueArray(fc.integer({ min: 0, max: 600 }), { minLength: 2, maxLength: 12 })
    fc.assert(
      fc.property(fc.array(cuts, { minLength: 1, maxLength: 6 }), fc.nat(), (all, seed) => {
        const pieces = all.map((marks, n) => {
          const sorted = marks.toSorted((one, other) => one - other).map(each => each * 100)
          const kept = sorted.flatMap((fromMs, k): [number, number][] =>
            k % 2 === 0 && sorted[k + 1] ? [[fromMs, sorted[k + 1]!]] : [],
          )
          return pieceOf(n, kept)
        })
        const made = layoutOf(mixOf(pieces), minute)
        const mixMs = seed % Math.max(1, made.durationMs)
        const found = toPiece(made, mixMs)!
        expect(toMix(made, found.piece.id, found.fileMs)).toBeCloseTo(mixMs, 6)
      }),
    )
  })
})
