import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import { ageAt, dayAfter, daysBetween, running } from './age'
import { bandOf } from './band'
import { localHour, zoneOf } from './localHour'
import { wholeMonths } from './months'
import { toldReaders } from './readers'
import { shown } from './shown'
import { hoursOfWeek } from './week'

describe('what is usual', () => {
  // Hyndman and Fan (1996), type 7, by hand: of 1 to 10 the quartiles are 3.25 and 7.75.
  it.each([
    [[1, 2, 3, 4, 5, 6, 7, 8, 9, 10], { low: 3, high: 8, of: 10 }],
    [[410, 350, 430, 380], { low: 373, high: 415, of: 4 }],
    [[5, 5, 5], { low: 5, high: 5, of: 3 }],
  ])('of %j is %j', (figures, band) => expect(bandOf(figures)).toEqual(band))
  it('is not told of two', () => expect(bandOf([1, 2])).toBeNull())
})

describe('figures by name', () => {
  it('are told from five people on, the highest first; what is fewer has no name', () => {
    expect(
      shown([
        { name: 'SE', downloads: 4 },
        { name: 'DE', downloads: 30 },
        { name: 'FI', downloads: 3 },
        { name: 'CH', downloads: 40 },
        { name: 'NO', downloads: 0 },
      ]),
    ).toEqual({
      rows: [
        { name: 'CH', downloads: 40 },
        { name: 'DE', downloads: 30 },
      ],
      few: { names: 2, downloads: 7 },
    })
    expect(shown([{ name: 'SE', downloads: 4 }]).few).toEqual({ names: 1, downloads: null })
    expect(shown([]).few).toBeNull()
  })
})

describe('an age', () => {
  const released = new Date('2026-11-19T05:30:00Z')
  it.each([
    ['2026-11-19T05:59:00Z', { unit: 'hours', many: 0 }],
    ['2026-11-19T08:10:00Z', { unit: 'hours', many: 3 }],
    ['2026-11-22T04:59:00Z', { unit: 'hours', many: 71 }],
    ['2026-11-22T05:00:00Z', { unit: 'days', many: 3 }],
    ['2026-12-01T12:00:00Z', { unit: 'days', many: 12 }],
  ])('at %s is %j', (now, age) => expect(ageAt(released, new Date(now))).toEqual(age))

  it('has its days, and what there was until the end of each', () => {
    expect(dayAfter(released, 0)).toBe('2026-11-19')
    expect(dayAfter(released, 12)).toBe('2026-12-01')
    expect(daysBetween(released, new Date('2026-11-20T00:00:00Z'))).toBe(1)
    expect(running([3, 0, 4])).toEqual([3, 3, 7])
    expect(running([])).toEqual([])
  })
})

describe('whole months', () => {
  it.each([
    ['2026-02-01', '2026-04-30', '2026-05-01', '2026-02-01', '2026-05-01'],
    ['2026-01-31', '2026-05-30', '2026-12-01', '2026-02-01', '2026-05-01'],
    ['2026-01-31', '2026-05-30', '2026-04-01', '2026-02-01', '2026-04-01'],
    ['2026-02-02', '2026-03-30', '2026-12-01', '2026-02-02', '2026-02-02'],
    ['2026-02-01', '2026-04-30', '2026-02-01', '2026-02-01', '2026-02-01'],
    ['2026-02-01', '2026-04-30', null, '2026-02-01', '2026-02-01'],
    ['2026-05-01', '2026-04-30', '2026-12-01', '2026-05-01', '2026-05-01'],
  ])('from %s to %s, summed up until %s, go from %s until %s', (from, to, until, first, beyond) =>
    expect(wholeMonths(from, to, until)).toEqual({ first, beyond }),
  )
})

describe('the hour of the week', () => {
  it('is the one on the wall, also around a change of clock, as luxon tells it', () => {
    const zone = 'Europe/Zurich'
    for (let hour = 0; hour < 72; hour++) {
      const at = new Date(Date.parse('2026-10-24T00:00:00Z') + hour * 3600_000)
      const local = DateTime.fromJSDate(at, { zone })
      const week = hoursOfWeek([{ at, downloads: 1 }], zone)
      expect(week.indexOf(1)).toBe((local.weekday - 1) * 24 + local.hour)
    }
  })

  it('is told where a country’s people are', () => {
    // A Monday.
    const at = new Date('2026-11-30T12:00:00Z')
    expect(localHour(at, 'GB')).toBe(12)
    expect(localHour(at, 'SE')).toBe(13)
    expect(localHour(at, 'US')).toBe(7)
    expect(localHour(at, 'NZ')).toBe(24 + 1)
    expect(localHour(at, 'ZZ')).toBeNull()
    expect(zoneOf('JP')).toBe('Asia/Tokyo')
  })
})

describe('for how many a program says that it fetches', () => {
  it.each([
    ['Reed Reader/2 (140 subscribers; feed-id=7)', 140],
    ['Reed Reader/2 (1 subscriber)', 1],
    ['Gull/1.0; 12 readers', 12],
    ['Kelp/3.1 (iPhone)', null],
    ['Kelp/3.140 subscribers', null],
    ['Boast/1 (999999999 subscribers)', null],
    ['Boast/1 (99999999999999 subscribers)', null],
  ])('%s: %s', (agent, readers) => expect(toldReaders(agent)).toBe(readers))
})
