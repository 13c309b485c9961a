import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { timelineOf } from './timeline'

// From 10 to 20 s, from 30 to 35 s, from 60 s to 61 s.
const cut = timelineOf([
  { fromMs: 10_000, toMs: 20_000 },
  { fromMs: 30_000, toMs: 35_000 },
  { fromMs: 60_000, toMs: 61_000 },
])

describe('a timeline over several cuts', () => {
  it('is as long as what is kept', () => expect(cut.durationMs).toBe(16_000))

  it.each([
    [0, 0, false],
    [10_000, 0, true],
    [15_500, 5_500, true],
    [20_000, 10_000, false],
    [25_000, 10_000, false],
    [30_000, 10_000, true],
    [34_999, 14_999, true],
    [50_000, 15_000, false],
    [60_250, 15_250, true],
    [90_000, 16_000, false],
  ])('hears second %i of the source at %i, kept: %s', (sourceMs, deliveredMs, isKept) => {
    expect([cut.toDelivered(sourceMs), cut.keeps(sourceMs)]).toEqual([deliveredMs, isKept])
  })

  it.each([
    [-5, 10_000],
    [0, 10_000],
    [9_999, 19_999],
    [10_000, 30_000],
    [15_000, 60_000],
    [16_000, 61_000],
    [99_000, 61_000],
  ])('hears at %i what the source has at %i', (deliveredMs, sourceMs) =>
    expect(cut.toSource(deliveredMs)).toBe(sourceMs),
  )

  it('of nothing is empty', () => {
    const none = timelineOf([])
    expect([none.durationMs, none.toDelivered(5), none.toSource(5), none.keeps(0)]).toEqual([0, 0, 0, false])
  })

  it('leads back to where it came from, and never turns round', () => {
    const cuts = fc.array(fc.integer({ min: 1, max: 100_000 }), { minLength: 2, maxLength: 20 }).map(steps => {
      let ms = 0
      const edges = steps.map(step => (ms += step))
      return timelineOf(edges.flatMap((toMs, at) => (at % 2 === 1 ? [{ fromMs: edges[at - 1]!, toMs }] : [])))
    })
    fc.assert(
      fc.property(cuts, fc.double({ min: 0, max: 1, maxExcluded: true, noNaN: true }), (timeline, share) => {
        const deliveredMs = Math.floor(share * timeline.durationMs)
        const sourceMs = timeline.toSource(deliveredMs)
        expect(timeline.toDelivered(sourceMs)).toBe(deliveredMs)
        expect(timeline.keeps(sourceMs)).toBe(true)
        expect(timeline.toDelivered(sourceMs + 1)).toBeGreaterThanOrEqual(deliveredMs)
      }),
    )
  })
})
