import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { orderFindings, type Placed } from './order'

const episode = (number: number | null, day: string, more: Partial<Placed> = {}): Placed => ({
  id: `${number}-${day}`,
  title: `No. ${number}`,
  number,
  season: null,
  kind: 'full',
  at: new Date(`${day}T05:00:00Z`),
  ...more,
})
const found = (episodes: readonly Placed[]) =>
  orderFindings(episodes).findings.map(({ kind, episodes: those }) => [kind, ...those.map(({ number }) => number)])

describe('the order of episodes', () => {
  it('is right where dates follow the numbers, whatever order they come in', () => {
    expect(found([episode(3, '2026-03-03'), episode(1, '2026-03-01'), episode(2, '2026-03-02')])).toEqual([])
  })
  it('finds 12 dated after 13', () => {
    expect(found([episode(11, '2026-03-01'), episode(12, '2026-03-17'), episode(13, '2026-03-10')])).toEqual([
      ['out of order', 12, 13],
    ])
  })
  it('tells each that comes late once, with the one that it should stand before', () => {
    const all = [episode(20, '2026-03-01'), episode(3, '2026-03-02'), episode(4, '2026-03-03')]
    expect(found(all)).toEqual([
      ['out of order', 3, 20],
      ['out of order', 4, 20],
    ])
  })
  it('counts by season first; trailers and what has no number stand where they like', () => {
    const all = [
      episode(8, '2026-03-01', { season: 1 }),
      episode(1, '2026-03-02', { season: 2 }),
      episode(0, '2026-03-03', { kind: 'trailer' }),
      episode(null, '2026-03-04'),
    ]
    expect(found(all)).toEqual([])
    expect(found([...all, episode(7, '2026-03-05', { season: 1 })])).toEqual([['out of order', 7, 8]])
  })
  it('finds what goes out in the same minute, all of it together', () => {
    const late = { at: new Date('2026-03-01T05:00:40Z') }
    const all = [episode(1, '2026-03-01'), episode(2, '2026-03-01', late), episode(3, '2026-03-02')]
    expect(found(all)).toEqual([['same moment', 1, 2]])
  })
  it('is mended by exchanging dates among all that lie between, and nothing is out of order then', () => {
    const all = [4, 2, 5, 1, 3].map((number, day) => episode(number, `2026-03-0${day + 1}`))
    let current = all
    for (let round = 0; round < 10; round++) {
      const [finding] = orderFindings(current).findings
      if (!finding) break
      const dates = finding.fix.map(({ at }) => at).toSorted((one, other) => +one - +other)
      const sorted = finding.fix.toSorted((one, other) => one.number! - other.number!)
      const given = new Map(sorted.map(({ id }, at) => [id, dates[at]!]))
      current = current.map(one => ({ ...one, at: given.get(one.id) ?? one.at }))
    }
    expect(found(current)).toEqual([])
  })
  it('of many is told by the first few, and by how many there are', () => {
    const all = Array.from({ length: 3000 }, (_none, at) =>
      episode(3000 - at, '2026-03-01', { at: new Date(at * 6e6) }),
    )
    const { total, findings } = orderFindings(all, 20)
    expect([total, findings.length]).toEqual([2999, 20])
  })
  it('finds nothing exactly where sorting by date and by number come to the same', () => {
    const some = fc.uniqueArray(fc.record({ number: fc.integer({ min: 1, max: 30 }), minute: fc.nat(10_000) }), {
      selector: ({ minute }) => minute,
      maxLength: 12,
    })
    fc.assert(
      fc.property(some, episodes => {
        const all = episodes.map(({ number, minute }) =>
          episode(number, '2026-03-01', { at: new Date(minute * 60_000) }),
        )
        const numbers = all.toSorted((one, other) => +one.at - +other.at).map(({ number }) => number!)
        const isSorted = numbers.every((number, at) => at === 0 || number >= numbers[at - 1]!)
        expect(orderFindings(all).total === 0).toBe(isSorted)
      }),
    )
  })
})
