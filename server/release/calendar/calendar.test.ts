import ICAL from 'ical.js'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Calendar, CalendarAddress } from '@contract/calendar'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { type House, morning, openHouse } from '../../testing/house'

let house: House
let show: Show
beforeAll(async () => {
  house = await openHouse()
  const { id, version } = await house.makeShow('bellows-and-reeds')
  const rhythm = {
    unit: 'week',
    every: 1,
    days: ['TU'],
    nth: null,
    monthDay: null,
    time: '00:05',
    from: '2026-01-06',
    leftOut: [],
  }
  show = (await house.call('PATCH', `/shows/${id}`, { version, rhythm })).json()
})
beforeEach(() => house.clock.moveTo(morning))
afterAll(() => house.close())

const schedule = async (episode: Episode, local: string): Promise<Episode> =>
  (
    await house.call('POST', `/episodes/${episode.id}/release`, {
      version: episode.version,
      when: { kind: 'at', local, zone: show.zone },
    })
  ).json()
const renew = async (): Promise<string> =>
  new URL(((await house.call('POST', '/calendar-address')).json() as CalendarAddress).address!).pathname
/** The calendar as ical.js reads it, without signing in. */
async function read(path: string) {
  const answer = await house.app.inject({ url: path })
  expect([answer.statusCode, answer.headers['content-type']]).toEqual([200, 'text/calendar; charset=utf-8'])
  const events = new ICAL.Component(ICAL.parse(answer.body) as []).getAllSubcomponents('vevent')
  return events.map(component => new ICAL.Event(component))
}

describe('the calendar', () => {
  const calendar = async (query: string) => house.call('GET', `/calendar?${query}`)

  it('has what goes out on its days by the clock of the show, the open slots, and what goes out first after them', async () => {
    const episode = await schedule(await house.makeReady(show.id, 'Just after midnight'), '2026-03-17T00:05')
    const march = (await calendar(`from=2026-03-16&to=2026-03-31&shows=${show.id}`)).json() as Calendar
    expect(march.episodes.map(({ id, showId }) => [id, showId])).toEqual([[episode.id, show.id]])
    expect(march.slots.map(({ local }) => local)).toEqual(['2026-03-24T00:05', '2026-03-31T00:05'])
    // 23:05 on the 16th in UTC is the 17th in Zurich.
    const before = (await calendar(`from=2026-03-16&to=2026-03-16&shows=${show.id}`)).json() as Calendar
    expect([before.episodes, before.next?.id, march.next]).toEqual([[], episode.id, null])
  })

  it('leaves shows of others out, and refuses what is no stretch of days by name', async () => {
    const elsewhere = '0192f0c1-0000-7000-8000-000000000000'
    const answer = await calendar(`from=2026-03-16&to=2026-03-31&shows=${show.id},${elsewhere}`)
    expect((answer.json() as Calendar).shows.map(({ id }) => id)).toEqual([show.id])
    for (const [query, field] of [
      ['from=2026-02-31&to=2026-03-31', 'from'],
      ['from=2026-03-31&to=2026-03-01', 'to'],
      ['from=2026-01-01&to=2026-12-31', 'to'],
    ]) {
      const refused = await calendar(`${query}&shows=${show.id}`)
      expect([refused.statusCode, refused.json().faults[0].field]).toEqual([422, field])
    }
    expect((await calendar('from=2026-03-16&to=2026-03-31&shows=x')).json().faults[0].field).toContain('shows')
  })
})

// RFC 5545, as ical.js reads it: sections 3.3.11 (text), 3.1 (lines of 75 octets), 3.8.4.7 (UID), 3.8.7.4 (SEQUENCE).
describe('the address for a person’s own calendar', () => {
  it('is read by ical.js; an event moves in place, and vanishes when it is not scheduled any more', async () => {
    const path = await renew()
    const title = 'Reeds, bellows; and “more”\\ of a very long name that a line of seventy-five octets cannot hold, ÄÖÜ'
    const scheduled = await schedule(await house.makeReady(show.id, title), '2026-04-07T00:05')
    const found = async () => (await read(path)).find(({ uid }) => uid === `${scheduled.id}@lake.example`)
    const first = (await found())!
    expect(first.summary).toBe(`Bellows & Reeds: ${title}`)
    expect(first.startDate.toJSDate()).toEqual(new Date('2026-04-06T22:05:00Z'))
    expect(first.component.getFirstPropertyValue('status')).toBe('CONFIRMED')
    house.clock.moveBy(60_000)
    const moved = await schedule(scheduled, '2026-04-14T00:05')
    const second = (await found())!
    expect(second.startDate.toJSDate()).toEqual(new Date('2026-04-13T22:05:00Z'))
    expect(second.sequence).toBeGreaterThan(first.sequence)
    await house.call('POST', `/episodes/${scheduled.id}/unschedule`, { version: moved.version })
    expect(await found()).toBeUndefined()
  })

  it('can be renewed, and answers no more at the one before; without one there is nothing', async () => {
    const [before, after] = [await renew(), await renew()]
    expect((await house.app.inject({ url: before })).statusCode).toBe(404)
    expect((await house.app.inject({ url: after })).statusCode).toBe(200)
    await house.call('DELETE', '/calendar-address')
    expect((await house.app.inject({ url: after })).statusCode).toBe(404)
    expect((await house.call('GET', '/calendar-address')).json()).toEqual({ address: null })
    expect((await house.app.inject({ url: '/api/v1/calendar/null.ics' })).statusCode).toBe(404)
  })
})
