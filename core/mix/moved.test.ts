import { describe, expect, it } from 'vitest'
import type { MixDocument } from './document'
import { layoutOf } from './layout'
import { bedOf, fileOf, mixOf, pieceOf } from './mix.fixture'
import { movedTo } from './moved'

const laid = (mix: MixDocument) => layoutOf(mix, () => 600_000)
const [intro, body] = [pieceOf(1, [[0, 10_000]]), pieceOf(2, [[0, 60_000]])]
const opening = bedOf(3, 1, 15_000, { offsetMs: -11_000 })
const before = laid(mixOf([intro, body], [opening]))

describe('a moment of a sound, once it is mixed anew', () => {
  const cut = pieceOf(2, [
    [0, 20_000],
    [25_000, 60_000],
  ])
  it.each([
    ['stays where nothing moved', mixOf([intro, body], [opening]), 31_000, 31_000],
    ['comes earlier by what was cut before it', mixOf([intro, cut], [opening]), 51_000, 46_000],
    ['goes to the cut where it was cut out', mixOf([intro, cut], [opening]), 43_000, 41_000],
    ['goes with its piece', mixOf([body, intro], [opening]), 31_000, 10_000],
    [
      'goes to the half of its piece in which it is heard',
      mixOf(
        [
          intro,
          { ...body, kept: [{ fromMs: 0, toMs: 30_000 }] },
          { ...pieceOf(5, [[30_000, 60_000]], { overlapMs: -4_000 }), fileId: fileOf(2) },
        ],
        [opening],
      ),
      61_000,
      65_000,
    ],
    [
      'stays as long before the voice in the music that leads to it',
      mixOf([intro, body], [{ ...opening, offsetMs: -5_000 }]),
      8_000,
      2_000,
    ],
    ['is never before the beginning', mixOf([intro, body]), 3_000, 0],
    ['goes to the next piece where its own is gone', mixOf([body]), 15_000, 0],
  ])('%s', (_name, mix, ms, wanted) => expect(movedTo(before, laid(mix))(ms)).toBeCloseTo(wanted, 6))

  it('is found in the piece that is of its file', () => {
    const to = movedTo({ fileId: fileOf(2) }, laid(mixOf([intro, cut], [opening])))
    expect([0, 19_000, 22_000, 40_000].map(to)).toEqual([21_000, 40_000, 41_000, 56_000])
  })
  it('behind all pieces stays as long behind them', () => {
    const closing = bedOf(4, 2, 20_000, { offsetFrom: 'end', offsetMs: -8_000 })
    const [long, short] = [laid(mixOf([intro, body], [closing])), laid(mixOf([intro, cut], [closing]))]
    expect(movedTo(long, short)(75_000)).toBe(70_000)
  })
  it('is not known where nothing of the sound is left', () => {
    expect(movedTo({ fileId: fileOf(9) }, before)(1_000)).toBeNull()
    expect(movedTo(before, laid(mixOf([pieceOf(9, [[0, 1_000]])])))(1_000)).toBeNull()
  })
})
