import { describe, expect, it } from 'vitest'
import { historyMs, mayReplace, type Stamp, superfluous } from './thin'

const now = Date.parse('2026-05-04T12:00:00Z')
const minute = 60_000
const hour = 60 * minute
const day = 24 * hour

/** States each so far apart, the newest first. */
const every = (stepMs: number, fromMs: number, untilMs: number, by: string | null = 'one'): Stamp[] =>
  Array.from({ length: Math.floor((untilMs - fromMs) / stepMs) }, (_none, index) => {
    const atMs = now - fromMs - index * stepMs
    return { id: `${by} ${atMs}`, atMs, by, isSent: false }
  })
const left = (states: readonly Stamp[]): Stamp[] => {
  const going = superfluous(states, now)
  return states.filter(({ id }) => !going.has(id))
}

describe('thinning the history of an episode', () => {
  it('leaves every state of the last hour', () => {
    expect(left(every(minute, 0, hour))).toHaveLength(60)
  })

  it('leaves one each ten minutes of a day, each hour of a week, each day of 90', () => {
    expect(left([{ id: 'newest', atMs: now, by: 'one', isSent: false }, ...every(minute, hour, day)])).toHaveLength(
      1 + 23 * 6 + 1,
    )
    const all = left(every(10 * minute, 0, 120 * day))
    expect(all.length).toBeGreaterThan(6 + 23 * 6 + 6 * 24 + 83)
    expect(all.length).toBeLessThan(6 + 23 * 6 + 6 * 24 + 83 + 6)
    expect(Math.min(...all.map(({ atMs }) => atMs))).toBeGreaterThan(now - historyMs)
  })

  it('leaves the last one of each person', () => {
    const both = [...every(minute, 2 * day, 2 * day + hour, 'one'), ...every(minute, 2 * day, 2 * day + hour, 'other')]
    const sorted = both.sort((a, b) => b.atMs - a.atMs)
    expect(new Set(left(sorted.slice(2)).map(({ by }) => by))).toEqual(new Set(['one', 'other']))
  })

  it('leaves what went out, and the newest however old', () => {
    const sent = every(minute, 2 * day, 2 * day + hour).map(state => ({ ...state, isSent: true }))
    expect(left(sent)).toHaveLength(60)
    expect(left(every(minute, 200 * day, 200 * day + 10 * minute))).toHaveLength(1)
  })
})

describe('a state in the place of the one before', () => {
  const before = { atMs: now, by: 'one', isSent: false }
  it.each([
    ['by the same person within the minute', before, { atMs: now + 59_000, by: 'one' }, 0, true],
    ['in the next minute', before, { atMs: now + 61_000, by: 'one' }, 0, false],
    ['by another', before, { atMs: now + 1000, by: 'other' }, 0, false],
    ['that loses a paragraph', before, { atMs: now + 1000, by: 'one' }, 200, false],
    ['after one that went out', { ...before, isSent: true }, { atMs: now + 1000, by: 'one' }, 0, false],
  ])('%s', (_name, one, other, lost, may) => {
    expect(mayReplace(one, other, lost)).toBe(may)
  })
})
