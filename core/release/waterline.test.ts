import { describe, expect, it } from 'vitest'
import { lanesOf, reachAround, shareOf } from './waterline'

const now = new Date('2026-12-01T12:00:00Z')
const inDays = (days: number): Date => new Date(+now + days * 24 * 3600_000)

describe('a waterline', () => {
  it('reaches over the last few and the next few, and a little farther', () => {
    const gone = [-1, -15, -29, -43, -400].map(inDays)
    const coming = [2, 16, 30, 44, 58, 72].map(inDays)
    const reach = reachAround(now, gone, coming)
    const seen = (at: Date): boolean => shareOf(reach, at) > 0.02 && shareOf(reach, at) < 0.98
    expect(gone.filter(seen)).toEqual(gone.slice(0, 3))
    expect(coming.filter(seen)).toEqual(coming.slice(0, 5))
  })

  it('of an empty show still shows the weeks around now', () => {
    const reach = reachAround(now, [], [])
    expect(shareOf(reach, now)).toBeCloseTo(0.28, 1)
    expect(shareOf(reach, inDays(21))).toBeLessThan(1)
  })

  it('is not stretched by what lies years away, nor by what is dated wrongly', () => {
    const reach = reachAround(now, [inDays(-5000), inDays(3)], [inDays(5000), inDays(-3)])
    expect(reach).toEqual(reachAround(now, [], []))
  })

  it('puts what would lie over each other on lines of their own', () => {
    expect(lanesOf([0, 50, 60, 100, 200], 100)).toEqual([0, 1, 2, 0, 0])
    expect(lanesOf([], 100)).toEqual([])
  })
})
