import { describe, expect, it } from 'vitest'
import { mixDocument, usualDucking } from './document'
import { bedOf, mixOf, pieceOf } from './mix.fixture'

const whole = pieceOf(1, [[0, 60_000]])

describe('a mix', () => {
  it('is kept as it was written', () => {
    const mix = mixOf(
      [
        whole,
        pieceOf(
          2,
          [
            [500, 9_000],
            [9_000, 9_500],
          ],
          { overlapMs: 2_000, shape: 'equal power' },
        ),
      ],
      [bedOf(3, 2, 20_000, { offsetMs: -11_000, ducking: usualDucking, points: [{ atMs: 0, gainDb: -6 }] })],
    )
    expect(mixDocument.parse(JSON.parse(JSON.stringify(mix)))).toEqual(mix)
  })
  it.each([
    ['a newer house’s', { ...mixOf([whole]), version: 2 }, 'version'],
    [
      'cuts that overlap',
      mixOf([
        pieceOf(1, [
          [0, 5_000],
          [4_999, 8_000],
        ]),
      ]),
      'pieces.0.kept',
    ],
    ['a stretch that ends before it begins', mixOf([pieceOf(1, [[5_000, 4_000]])]), 'pieces.0.kept.0'],
    ['a piece of 9 ms', mixOf([pieceOf(1, [[0, 9]])]), 'pieces.0.kept.0'],
    ['a piece of which nothing is kept', mixOf([pieceOf(1, [])]), 'pieces.0.kept'],
    ['301 pieces', mixOf(Array.from({ length: 301 }, (_, n) => pieceOf(n, [[0, 100]]))), 'pieces'],
    ['two pieces with one id', mixOf([whole, whole]), 'pieces'],
    ['a bed under no piece', mixOf([whole], [bedOf(3, 2, 1_000)]), 'beds'],
    ['a gain that is no number', mixOf([pieceOf(1, [[0, 100]], { gainDb: NaN })]), 'pieces.0.gainDb'],
    ['a gain over all sense', mixOf([pieceOf(1, [[0, 100]], { gainDb: 25 })]), 'pieces.0.gainDb'],
    [
      'points that run back',
      mixOf(
        [whole],
        [
          bedOf(3, 1, 1_000, {
            points: [
              { atMs: 9, gainDb: 0 },
              { atMs: 8, gainDb: 0 },
            ],
          }),
        ],
      ),
      'beds.0.points',
    ],
    ['an id that is none', mixOf([{ ...whole, id: 'first' }]), 'pieces.0.id'],
  ])('of %s is refused, by the field that is wrong', (_what, mix, field) => {
    const { error } = mixDocument.safeParse(mix)
    expect(error?.issues.map(({ path }) => path.join('.'))).toEqual([field])
  })
  it('of nothing is the one that is begun with', () =>
    expect(mixDocument.parse(mixOf([]))).toEqual({ version: 1, pieces: [], beds: [] }))
})
