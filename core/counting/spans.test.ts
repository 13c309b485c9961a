import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { coveredBytes, mostSpans, type Span, withSpan } from './spans'

const put = (spans: readonly Span[]): readonly Span[] => spans.reduce<readonly Span[]>(withSpan, [])

describe('spans of a file', () => {
  it.each<[string, Span[], Span[]]>([
    ['one', [[0, 9]], [[0, 9]]],
    [
      'two apart',
      [
        [20, 29],
        [0, 9],
      ],
      [
        [0, 9],
        [20, 29],
      ],
    ],
    [
      'two that overlap',
      [
        [0, 9],
        [5, 14],
      ],
      [[0, 14]],
    ],
    [
      'two that touch',
      [
        [0, 9],
        [10, 19],
      ],
      [[0, 19]],
    ],
    [
      'one that joins three',
      [
        [0, 9],
        [20, 29],
        [40, 49],
        [5, 45],
      ],
      [[0, 49]],
    ],
    [
      'one within another',
      [
        [0, 99],
        [10, 19],
      ],
      [[0, 99]],
    ],
    ['one that runs backwards', [[9, 0]], []],
  ])('%s', (_what, given, wanted) => expect(put(given)).toEqual(wanted))

  it('cover the bytes that a set of them covers, in whatever order they come', () => {
    const span = fc.tuple(fc.nat(60), fc.nat(60))
    fc.assert(
      fc.property(fc.array(span, { maxLength: mostSpans }), span, (given, [from, to]) => {
        const bytes = new Set(
          given.flatMap(([first, last]) => Array.from({ length: Math.max(0, last - first + 1) }, (_, n) => first + n)),
        )
        const wanted = [...bytes].filter(byte => byte >= from && byte <= to).length
        expect(coveredBytes(put(given), [from, to])).toBe(wanted)
        expect(put(given.toReversed())).toEqual(put(given))
      }),
    )
  })

  it('are so many and no more, and one that meets another still counts', () => {
    const many = put(Array.from({ length: 10_000 }, (_, n): Span => [n * 10, n * 10 + 1]))
    expect(many).toHaveLength(mostSpans)
    expect(withSpan(many, [2, 9])[0]).toEqual([0, 11])
  })
})
