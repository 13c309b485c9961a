import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { ClockReading } from '@contract/clockOffset'
import { createApp } from '../app'
import { account, type House, openHouse } from '../../testing/house'
import { followClockOffset, OffsetClock } from './clock'

let house: House
const clock = new OffsetClock()
let ready: Episode
let cookie: string
let app: Awaited<ReturnType<typeof createApp>>
beforeAll(async () => {
  house = await openHouse()
  app = await createApp({ ...house.platform, clock })
  ready = await house.makeReady((await house.makeShow('slow-ferry')).id, 'In May')
  const signedIn = await app.inject({ method: 'POST', url: '/api/v1/session', payload: account })
  cookie = String(signedIn.headers['set-cookie']).split(';')[0]!
})
afterAll(async () => {
  await app.close()
  await house.close()
})

const hourMs = 3600_000
const move = (body: object, headers: Record<string, string> = { cookie }) =>
  app.inject({ method: 'POST', url: '/api/v1/clock', payload: body, headers })
const isNear = (at: Date | string, expected: number): void =>
  expect(Math.abs(+new Date(at) - expected)).toBeLessThan(hourMs / 10)

describe('moving the clock', () => {
  it('moves the clock forward, for every process, and for one that begins later', async () => {
    const other = new OffsetClock()
    const following = await followClockOffset(other, house.platform.database, () => undefined)
    const answer = (await move({ to: 'later', byMs: hourMs })).json() as ClockReading
    expect(answer.offsetMs).toBe(hourMs)
    isNear(answer.now, Date.now() + hourMs)
    await expect.poll(() => other.offsetMs).toBe(hourMs)
    await following.stop()
    const third = new OffsetClock()
    await (await followClockOffset(third, house.platform.database, () => undefined)).stop()
    expect(third.offsetMs).toBe(hourMs)
    // The stand-ins ask without signing in.
    isNear((await app.inject({ url: '/api/v1/clock' })).json().now, Date.now() + hourMs)
  })

  it('goes to the next release, and says where there is none', async () => {
    expect((await move({ to: 'next release' })).json().detail).toContain('Nothing is scheduled')
    const { id, version } = ready
    const when = { kind: 'at', local: '2099-05-01T06:00', zone: 'UTC' }
    const { releaseAt } = (
      await app.inject({
        method: 'POST',
        url: `/api/v1/episodes/${id}/release`,
        payload: { version, when },
        headers: { cookie },
      })
    ).json() as Episode
    isNear(((await move({ to: 'next release' })).json() as ClockReading).now, +new Date(releaseAt!))
  })

  it('leaves whoever moves it signed in, goes only forward, and is not for strangers', async () => {
    expect((await move({ to: 'later', byMs: 300 * 24 * hourMs })).statusCode).toBe(200)
    expect((await move({ to: 'later', byMs: 60 * 24 * hourMs })).statusCode).toBe(200)
    expect((await move({ to: 'later', byMs: -1 })).json().faults[0]).toMatchObject({ field: 'byMs', value: '-1' })
    expect((await move({ to: 'later', byMs: 1e12 })).statusCode).toBe(422)
    expect((await move({ to: 'later', byMs: 1 }, {})).statusCode).toBe(401)
  })

  it('is not there where the clock is the world’s', async () => {
    const refused = await house.call('POST', '/clock', { to: 'later', byMs: hourMs })
    expect(refused.statusCode).toBe(404)
  })
})
