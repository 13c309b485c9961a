import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hasDates, type Rhythm, rhythmWords, weekdays } from './rhythm'
import { openSlots, ruleOf, slotsAfter } from './slots'

const weekly: Rhythm = {
  unit: 'week',
  every: 1,
  days: ['TU'],
  nth: null,
  monthDay: null,
  time: '09:00',
  from: '1997-09-02',
  leftOut: [],
}
const monthly = { ...weekly, unit: 'month' as const }
const before = new Date('1997-09-01T00:00:00Z')
/** Days as the examples of RFC 5545 write them: months, each with its days. */
const days = (rhythm: Rhythm, count: number, zone = 'America/New_York'): string =>
  slotsAfter(rhythm, zone, before, count)
    .map(({ local }) => local.slice(0, 10))
    .join(' ')

// RFC 5545, section 3.8.5.3: (1997 9:00 AM EDT) and the recurrence sets that it works out.
describe('the worked examples of RFC 5545', () => {
  it.each<[rule: string, rhythm: Rhythm, days: string]>([
    ['FREQ=DAILY;INTERVAL=2', { ...weekly, unit: 'day', every: 2 }, '1997-09-02 1997-09-04 1997-09-06 1997-09-08'],
    [
      'FREQ=DAILY;INTERVAL=10',
      { ...weekly, unit: 'day', every: 10 },
      '1997-09-02 1997-09-12 1997-09-22 1997-10-02 1997-10-12',
    ],
    ['FREQ=WEEKLY', weekly, '1997-09-02 1997-09-09 1997-09-16 1997-09-23 1997-09-30 1997-10-07'],
    [
      'FREQ=WEEKLY;INTERVAL=2;WKST=SU',
      { ...weekly, every: 2 },
      '1997-09-02 1997-09-16 1997-09-30 1997-10-14 1997-10-28',
    ],
    ['FREQ=WEEKLY;BYDAY=TU,TH', { ...weekly, days: ['TU', 'TH'] }, '1997-09-02 1997-09-04 1997-09-09 1997-09-11'],
    [
      'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,WE,FR, from Monday, September 1',
      { ...weekly, every: 2, days: ['MO', 'WE', 'FR'], from: '1997-09-01' },
      '1997-09-01 1997-09-03 1997-09-05 1997-09-15 1997-09-17 1997-09-19 1997-09-29',
    ],
    [
      'FREQ=MONTHLY;BYDAY=1FR',
      { ...monthly, days: ['FR'], nth: 1, from: '1997-09-05' },
      '1997-09-05 1997-10-03 1997-11-07 1997-12-05 1998-01-02',
    ],
    [
      'FREQ=MONTHLY;BYMONTHDAY=-1',
      { ...monthly, monthDay: -1, from: '1997-09-30' },
      '1997-09-30 1997-10-31 1997-11-30 1997-12-31',
    ],
    [
      'FREQ=MONTHLY;BYMONTHDAY=31 passes over months that have none',
      { ...monthly, monthDay: 31 },
      '1997-10-31 1997-12-31 1998-01-31 1998-03-31',
    ],
  ])('%s', (_rule, rhythm, expected) => {
    expect(days(rhythm, expected.split(' ').length)).toBe(expected)
  })

  it('stay at local time while the clock changes: 9:00 in EDT and in EST', () => {
    const [, , , fourth, fifth] = slotsAfter({ ...weekly, every: 2 }, 'America/New_York', before, 5)
    expect([fourth!.at, fifth!.at]).toEqual([new Date('1997-10-14T13:00:00Z'), new Date('1997-10-28T14:00:00Z')])
  })
})

describe('a rhythm', () => {
  it('is written as RFC 5545 has it', () => {
    expect(ruleOf({ ...weekly, every: 2 })).toBe('FREQ=WEEKLY;INTERVAL=2;WKST=MO;BYDAY=TU')
    expect(ruleOf({ ...monthly, days: ['FR'], nth: -1 })).toBe('FREQ=MONTHLY;INTERVAL=1;WKST=MO;BYDAY=-1FR')
  })

  it.each<[words: string, rhythm: Rhythm]>([
    ['Every Tuesday at 09:00', weekly],
    ['Every other Tuesday at 09:00', { ...weekly, every: 2 }],
    ['Tuesday, every 3 weeks at 09:00', { ...weekly, every: 3 }],
    ['Monday to Friday at 09:00', { ...weekly, days: ['FR', 'MO', 'TU', 'WE', 'TH'] }],
    ['Tuesday and Thursday at 09:00', { ...weekly, days: ['TH', 'TU'] }],
    ['Monday and Sunday of every other week at 09:00', { ...weekly, every: 2, days: ['MO', 'SU'] }],
    ['Every day at 09:00', { ...weekly, days: [...weekdays] }],
    ['Every other day at 09:00', { ...weekly, unit: 'day', every: 2 }],
    ['The first Friday of each month at 09:00', { ...monthly, days: ['FR'], nth: 1 }],
    ['The last Sunday of every other month at 09:00', { ...monthly, days: ['SU'], nth: -1, every: 2 }],
    ['The 22nd of each month at 09:00', { ...monthly, monthDay: 22 }],
    ['The last day of every 3 months at 09:00', { ...monthly, monthDay: -1, every: 3 }],
  ])('is told in words: %s', (words, rhythm) => {
    expect(rhythmWords(rhythm)).toBe(words)
  })

  it.each<[has: boolean, words: string, rhythm: Rhythm]>([
    [false, '31 February, every year', { ...monthly, every: 12, monthDay: 31, from: '2026-02-01' }],
    [false, 'the 30th of February, every other year', { ...monthly, every: 24, monthDay: 30, from: '2026-02-01' }],
    [true, '29 February', { ...monthly, every: 12, monthDay: 29, from: '2026-02-01' }],
    [true, 'the 31st of every fifth month', { ...monthly, every: 5, monthDay: 31, from: '2026-02-01' }],
    [true, 'the last day of February', { ...monthly, every: 12, monthDay: -1, from: '2026-02-01' }],
  ])('has dates (%s): %s', (has, _words, rhythm) => {
    expect(hasDates(rhythm)).toBe(has)
    expect(slotsAfter(rhythm, 'UTC', new Date('2026-01-01'), 1)).toHaveLength(has ? 1 : 0)
  })

  it('kept for a hundred years has the slots that it has without them', () => {
    const after = new Date('2026-11-26T12:00:00Z')
    // Each with how many slots it has in somewhat more than a hundred years.
    const parts: [Partial<Rhythm>, number][] = [
      [{ unit: 'day', every: 3 }, 12_400],
      [{ unit: 'week', every: 3, days: ['TU', 'SA'] }, 3_600],
      [{ unit: 'month', every: 5, monthDay: 31 }, 160],
    ]
    for (const [part, count] of parts) {
      const old = { ...weekly, ...part, from: '1926-01-01' }
      const all = slotsAfter(old, 'Europe/Zurich', new Date('1925-12-31T00:00:00Z'), count)
      expect(all.filter(({ at }) => at > after).length).toBeGreaterThanOrEqual(5)
      expect(slotsAfter(old, 'Europe/Zurich', after, 5)).toEqual(all.filter(({ at }) => at > after).slice(0, 5))
    }
  })

  it('leaves days out, and begins no earlier than it should', () => {
    const pausing = { ...weekly, leftOut: ['1997-09-09'] }
    expect(days(pausing, 3)).toBe('1997-09-02 1997-09-16 1997-09-23')
    expect(slotsAfter({ ...weekly, from: '2030-01-01' }, 'UTC', before, 1)[0]!.local).toBe('2030-01-01T09:00')
  })

  it('at a time that the clock leaps over has the next one that it shows; at one that comes twice the first', () => {
    const nightly = { ...weekly, unit: 'day' as const, time: '02:30', from: '2026-01-01' }
    const at = (day: string) => slotsAfter(nightly, 'Europe/Zurich', new Date(`${day}T12:00:00Z`), 1)[0]
    expect(at('2026-03-28')).toEqual({ at: new Date('2026-03-29T01:00:00Z'), local: '2026-03-29T03:00' })
    expect(at('2026-10-24')).toEqual({ at: new Date('2026-10-25T00:30:00Z'), local: '2026-10-25T02:30' })
    // Lord Howe Island moves its clock by half an hour.
    const howe = slotsAfter({ ...nightly, time: '02:10' }, 'Australia/Lord_Howe', new Date('2026-10-03T00:00:00Z'), 1)
    expect(howe[0]!.local).toBe('2026-10-04T02:30')
  })

  it('offers what is still open: the days on which nothing goes out', () => {
    const taken = [new Date('1997-09-09T13:00:00Z'), new Date('1997-09-16T02:00:00Z')]
    // The second lies on the evening of the 15th in New York.
    expect(openSlots(weekly, 'America/New_York', taken, before, 3).map(({ local }) => local.slice(0, 10))).toEqual([
      '1997-09-02',
      '1997-09-16',
      '1997-09-23',
    ])
  })

  it('has slots in order, each at its time of day, all behind the moment asked for, unless it has no dates at all', () => {
    const rhythms = fc.record({
      unit: fc.constantFrom('day' as const, 'week' as const, 'month' as const),
      every: fc.integer({ min: 1, max: 12 }),
      days: fc.subarray([...weekdays], { minLength: 1, maxLength: 7 }),
      nth: fc.constantFrom(null, 1 as const, 4 as const, -1 as const),
      monthDay: fc.constantFrom(null, 1, 28, 31, -1),
      time: fc.constantFrom('00:05', '12:00', '23:59'),
      from: fc.constantFrom('2024-02-29', '2026-01-31'),
      leftOut: fc.constant<string[]>([]),
    })
    fc.assert(
      fc.property(
        rhythms,
        fc.date({ min: new Date('2024-01-01'), max: new Date('2030-01-01'), noInvalidDate: true }),
        (rhythm, after) => {
          const slots = slotsAfter(rhythm, 'Europe/Zurich', after, 8)
          expect(slots.length).toBe(hasDates(rhythm) ? 8 : 0)
          expect(slots.every(({ local, at }) => local.endsWith(rhythm.time) && at > after)).toBe(true)
          expect(slots.map(({ at }) => +at)).toEqual(slots.map(({ at }) => +at).toSorted((one, other) => one - other))
        },
      ),
      {
        numRuns: 60,
        examples: [
          [
            {
              unit: 'month',
              every: 12,
              days: ['SA'],
              nth: null,
              monthDay: 31,
              time: '00:05',
              from: '2024-02-29',
              leftOut: [],
            },
            new Date('2024-01-01'),
          ],
        ],
      },
    )
  })
})
