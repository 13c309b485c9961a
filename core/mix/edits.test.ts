import { describe, expect, it } from 'vitest'
import { mixDocument } from './document'
import { emptyMix, movedPiece, newBed, newPiece, withBed, withEnds, withoutPiece, withPiece } from './edits'
import { bedOf, fileOf, mixOf, pieceId, pieceOf } from './mix.fixture'

const [one, two, three] = [1, 2, 3].map(n => pieceOf(n, [[0, 10_000]])) as [
  ReturnType<typeof pieceOf>,
  ReturnType<typeof pieceOf>,
  ReturnType<typeof pieceOf>,
]

it('a mix that is begun with a piece and a bed may be written', () => {
  const begun = withPiece(emptyMix, newPiece(pieceId(1), fileOf(1), [{ fromMs: 0, toMs: 60_000 }]))
  const mix = withBed(begun, newBed(pieceId(2), fileOf(2), pieceId(1), 30_000))
  expect(mixDocument.parse(mix)).toEqual(mix)
})

describe('a piece', () => {
  const mix = mixOf([one, two, three], [bedOf(4, 2, 1_000)])
  it.each([
    [1, -1, [2, 1, 3]],
    [0, 2, [2, 3, 1]],
    [0, -1, [1, 2, 3]],
    [2, 9, [1, 2, 3]],
  ])('number %d goes %d places further', (at, by, order) =>
    expect(movedPiece(mix, mix.pieces[at]!.id, by).pieces.map(({ id }) => id)).toEqual(order.map(pieceId)),
  )
  it('that goes leaves its bed to its neighbour, and takes it along where it was the only one', () => {
    expect(withoutPiece(mix, two.id)).toEqual(mixOf([one, three], [bedOf(4, 3, 1_000)]))
    expect(withoutPiece(mixOf([one, two], [bedOf(4, 2, 1_000)]), two.id).beds[0]!.under).toBe(one.id)
    expect(withoutPiece(mixOf([two], [bedOf(4, 2, 1_000)]), two.id)).toEqual(mixOf([]))
  })
})

describe('the ends of what is kept', () => {
  const kept = [
    { fromMs: 1_000, toMs: 5_000 },
    { fromMs: 6_000, toMs: 9_000 },
  ]
  it.each([
    [
      'are put further out',
      0,
      12_000,
      [
        [0, 5_000],
        [6_000, 12_000],
      ],
    ],
    [
      'are put further in',
      2_000,
      8_000,
      [
        [2_000, 5_000],
        [6_000, 8_000],
      ],
    ],
    ['are put behind a cut', 7_000, 9_000, [[7_000, 9_000]]],
    ['are put in front of a cut', 1_000, 4_000, [[1_000, 4_000]]],
    ['are put into what was cut out', 5_200, 5_800, [[5_200, 5_800]]],
    ['leave too little of a stretch to be heard', 4_995, 9_000, [[6_000, 9_000]]],
  ])('%s', (_name, fromMs, toMs, wanted) =>
    expect(withEnds(kept, { fromMs, toMs }).map(each => [each.fromMs, each.toMs])).toEqual(wanted),
  )
})
