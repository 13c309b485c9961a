import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { SlotList } from '@contract/rhythm'
import type { Show } from '@contract/shows'
import type { Rhythm } from '@core/release/rhythm'
import { type House, morning, openHouse } from '../../testing/house'

let house: House
let show: Show
let count = 0
beforeAll(async () => {
  house = await openHouse()
})
beforeEach(async () => {
  house.clock.moveTo(morning)
  show = await house.makeShow(`rhythm-${++count}`)
})
afterAll(() => house.close())

/** Tuesdays; the morning of the tests is a Tuesday, 10 March 2026, 06:00 in Zurich. */
const rhythm: Rhythm = {
  unit: 'week',
  every: 1,
  days: ['TU'],
  nth: null,
  monthDay: null,
  time: '07:00',
  from: '2026-01-06',
  leftOut: ['2026-03-24'],
}
const change = async (facts: object) => {
  const { version } = (await house.call('GET', `/shows/${show.id}`)).json<Show>()
  return house.call('PATCH', `/shows/${show.id}`, { version, ...facts })
}
const slots = async (wanted = 3): Promise<string[]> =>
  (await house.call('GET', `/shows/${show.id}/slots?count=${wanted}`)).json<SlotList>().slots.map(({ local }) => local)

describe('the rhythm of a show', () => {
  it('is kept, and offers its next slots; days that are left out are none', async () => {
    expect(await slots()).toEqual([])
    const kept = await change({ rhythm, listenerZones: ['America/New_York'] })
    expect(kept.json<Show>()).toMatchObject({ rhythm, listenerZones: ['America/New_York'] })
    expect(await slots()).toEqual(['2026-03-10T07:00', '2026-03-17T07:00', '2026-03-31T07:00'])
  })

  it('has no slot on a day on which something goes out, or has gone out', async () => {
    await change({ rhythm, zone: 'Europe/Zurich' })
    const { id, version } = await house.makeReady(show.id, 'Early')
    const when = { kind: 'at', local: '2026-03-17T23:30', zone: 'Europe/Zurich' }
    expect((await house.call('POST', `/episodes/${id}/release`, { version, when })).statusCode).toBe(200)
    const now = await house.makeReady(show.id, 'Now')
    await house.call('POST', `/episodes/${now.id}/release`, { version: now.version, when: { kind: 'now' } })
    expect(await slots(2)).toEqual(['2026-03-31T07:00', '2026-04-07T07:00'])
    // Taken back, it leaves its place free.
    const { version: scheduled } = await house.get(id)
    await house.call('POST', `/episodes/${id}/unschedule`, { version: scheduled })
    expect(await slots(1)).toEqual(['2026-03-17T07:00'])
  })

  // podcast namespace, updateFrequency: in words, and as RFC 5545 writes it.
  it('is told in the feed', async () => {
    await change({ rhythm })
    const { body } = await house.app.inject(`/rhythm-${count}/feed.xml`)
    expect(body).toMatch(/<podcast:updateFrequency rrule="FREQ=[^"]+">Every [^<]+ at \d\d:\d\d</)
  })

  it.each<[what: string, bad: object, field: string, rule: string]>([
    ['no day of the week', { days: [] }, 'rhythm.days', 'At least one day.'],
    ['31 February', { from: '2026-02-31' }, 'rhythm.from', 'A day that there is, such as 2026-12-01.'],
    ['a time that there is not', { time: '24:00' }, 'rhythm.time', 'A time such as 06:00.'],
    ['every 0 weeks', { every: 0 }, 'rhythm.every', 'At least 1.'],
    ['every 100,000 weeks', { every: 100_000 }, 'rhythm.every', 'At most 52.'],
    ['a day twice', { days: ['TU', 'TU'] }, 'rhythm.days', 'Each day once.'],
    ['a month without a day', { unit: 'month' }, 'rhythm.monthDay', 'A day of the month, or one of its weekdays.'],
    ['the 0th', { unit: 'month', monthDay: 0 }, 'rhythm.monthDay', 'A day of the month, or −1 for its last.'],
    ['two weekdays of a month', { unit: 'month', nth: 1, days: ['TU', 'FR'] }, 'rhythm.days', 'One day of the week.'],
    ['seconds', { unit: 'second' }, 'rhythm.unit', 'Days, weeks or months.'],
    [
      '500 days left out',
      { leftOut: Array.from({ length: 500 }, (_each, at) => new Date(at * 86_400_000).toISOString().slice(0, 10)) },
      'rhythm.leftOut',
      'At most 366 days.',
    ],
  ])('that is none is refused: %s', async (_what, bad, field, rule) => {
    const answer = await change({ rhythm: { ...rhythm, ...bad } })
    expect(answer.statusCode).toBe(422)
    expect(answer.json().faults).toContainEqual(expect.objectContaining({ field, rule }))
  })

  it('is of a zone that there is', async () => {
    expect((await change({ listenerZones: ['Lake/Odrem'] })).json().faults[0]).toMatchObject({
      field: 'listenerZones.0',
      rule: 'A time zone of the IANA list, such as Europe/Lisbon.',
    })
    expect((await change({ listenerZones: ['UTC', 'Asia/Tokyo', 'Asia/Seoul'] })).statusCode).toBe(422)
  })
})
