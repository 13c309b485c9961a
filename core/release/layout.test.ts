import { DateTime } from 'luxon'
import { expect, it } from 'vitest'
import { type Around, type Layout, layOut } from './layout'
import type { Rhythm } from './rhythm'

const everyOtherTuesday: Rhythm = {
  unit: 'week',
  every: 2,
  days: ['TU'],
  nth: null,
  monthDay: null,
  time: '00:05',
  from: '2026-03-03',
  leftOut: [],
}
const around: Around = {
  rhythm: everyOtherTuesday,
  zone: 'Europe/Zurich',
  taken: [],
  now: new Date('2026-03-01T12:00:00Z'),
}
const slots: Layout['step'] = { kind: 'slots' }
const days = (layout: Layout, count: number, of: Partial<Around> = {}): string[] =>
  layOut(layout, { ...around, ...of }, count).map(({ local }) => local)

it('one per slot, from a day on', () => {
  expect(days({ way: 'from', day: '2026-03-04', step: slots }, 3)).toEqual([
    '2026-03-17T00:05',
    '2026-03-31T00:05',
    '2026-04-14T00:05',
  ])
})

it('dated back, the last one lands on the last slot up to a day, in the same turn as those to come', () => {
  expect(days({ way: 'up to', day: '2026-03-03', step: slots }, 3)).toEqual([
    '2026-02-03T00:05',
    '2026-02-17T00:05',
    '2026-03-03T00:05',
  ])
  expect(days({ way: 'from', day: '2025-12-01', step: slots }, 2)).toEqual(['2025-12-09T00:05', '2025-12-23T00:05'])
})

it('passes over days that are taken or left out', () => {
  const taken = [new Date('2026-03-17T11:00:00Z')]
  const rhythm = { ...everyOtherTuesday, leftOut: ['2026-03-31'] }
  expect(days({ way: 'from', day: '2026-03-04', step: slots }, 2, { taken, rhythm })).toEqual([
    '2026-04-14T00:05',
    '2026-04-28T00:05',
  ])
  expect(days({ way: 'up to', day: '2026-04-14', step: slots }, 2, { taken, rhythm })).toEqual([
    '2026-03-03T00:05',
    '2026-04-14T00:05',
  ])
})

it('on days of the week, whatever the rhythm is, and not where something goes out already', () => {
  const step: Layout['step'] = { kind: 'weekdays', days: ['MO', 'TH'], time: '06:00' }
  const of = { rhythm: null, taken: [new Date('2026-03-12T11:00:00Z')] }
  expect(days({ way: 'from', day: '2026-03-04', step }, 4, of)).toEqual([
    '2026-03-05T06:00',
    '2026-03-09T06:00',
    '2026-03-16T06:00',
    '2026-03-19T06:00',
  ])
  expect(days({ way: 'up to', day: '2026-03-13', step }, 2, of)).toEqual(['2026-03-05T06:00', '2026-03-09T06:00'])
})

it('every so many days, at local time across a change of clock', () => {
  const step = { kind: 'days', every: 7, time: '06:00' } as const
  const laid = layOut({ way: 'from', day: '2026-03-22', step }, around, 2)
  expect(laid.map(({ at }) => at.toISOString())).toEqual(['2026-03-22T05:00:00.000Z', '2026-03-29T04:00:00.000Z'])
  expect(days({ way: 'up to', day: '2026-03-22', step }, 2)).toEqual(['2026-03-15T06:00', '2026-03-22T06:00'])
})

it.each<[words: string, rhythm: Partial<Rhythm>]>([
  ['the first Friday', { unit: 'month', every: 1, days: ['FR'], nth: 1, from: '2026-03-06' }],
  ['the last day of every third month', { unit: 'month', every: 3, days: [], monthDay: -1, from: '2026-03-31' }],
  ['Monday and Thursday of every third week', { every: 3, days: ['MO', 'TH'], from: '2026-03-05' }],
  ['every fifth day', { unit: 'day', every: 5, days: [], from: '2026-03-02' }],
])('%s goes backwards as it goes forwards', (_words, part) => {
  const rhythm = { ...everyOtherTuesday, ...part }
  const long = { ...rhythm, from: '2020-01-01' }
  // A start that keeps the turn of the rhythm: the same slots are had from far before, where that turn is known.
  const back = days({ way: 'up to', day: '2026-06-30', step: slots }, 12, { rhythm })
  const forth = days({ way: 'from', day: back[0]!.slice(0, 10), step: slots }, 12, { rhythm })
  expect(back).toEqual(forth)
  expect(new Set(back).size).toBe(12)
  if (rhythm.every === 1)
    expect(days({ way: 'up to', day: '2026-06-30', step: slots }, 12, { rhythm: long })).toEqual(back)
  const gaps = back.slice(1).map((local, at) => DateTime.fromISO(local).diff(DateTime.fromISO(back[at]!), 'days').days)
  expect(Math.min(...gaps)).toBeGreaterThan(2)
})

it('without a rhythm there are no slots', () =>
  expect(days({ way: 'from', day: '2026-03-04', step: slots }, 2, { rhythm: null })).toEqual([]))

it('five thousand are laid out, each later than the one before', () => {
  const laid = layOut({ way: 'up to', day: '2026-03-04', step: slots }, around, 5000)
  expect(laid).toHaveLength(5000)
  expect(laid.every(({ at }, index) => index === 0 || at > laid[index - 1]!.at)).toBe(true)
})
