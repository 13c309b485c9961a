import type { OutgoingHttpHeaders } from 'node:http'
import CachePolicy from 'http-cache-semantics'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Show } from '@contract/shows'
import { type House, openHouse } from '../../testing/house'

/** What caches make of a feed, by a library that goes by RFC 9111 and is not ours; sections in the names. */

let house: House
let show: Show
let shows = 0
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

const path = (): string => `/${show.slug}/feed.xml`
/** As a cache keeps what it asked: names in small letters, values that it has. */
const kept = (headers: OutgoingHttpHeaders | CachePolicy.Headers): Record<string, string> =>
  Object.fromEntries(
    Object.entries(headers).flatMap(([name, value]) => (value === undefined ? [] : [[name, `${value}`]])),
  )

async function ask(headers: CachePolicy.Headers = {}) {
  const request = { method: 'GET', url: path(), headers: { host: 'lake.example', ...headers } }
  const { statusCode, headers: got, body } = await house.app.inject({ url: path(), headers: kept(request.headers) })
  return { request, response: { status: statusCode, headers: kept(got) }, body }
}
const describeShow = async (description: string): Promise<void> => {
  const { version } = (await house.call('GET', `/shows/${show.id}`)).json() as Show
  await house.call('PATCH', `/shows/${show.id}`, { version, description })
  house.clock.moveBy(2_000)
}

describe.each([
  ['a reader’s own cache', false],
  ['a cache that many share', true],
])('%s', (_whose, shared) => {
  const options = { shared }
  beforeAll(async () => {
    show = await house.makeShow(`cached-${++shows}`)
  })

  it('may keep it (3), and asks before it shows it again (4.2, 5.2.2.4)', async () => {
    const { request, response } = await ask()
    const policy = new CachePolicy(request, response, options)
    expect(policy.storable()).toBe(true)
    expect(policy.satisfiesWithoutRevalidation(request)).toBe(false)
  })

  it('is told by its validators that it is the same, and has all its headers still (4.3.1, 4.3.4)', async () => {
    const { request, response } = await ask({ 'accept-encoding': 'gzip' })
    const policy = new CachePolicy(request, response, options)
    const again = await ask(policy.revalidationHeaders(request))
    expect([again.response.status, again.body]).toEqual([304, ''])
    const { policy: fresh, modified, matches } = policy.revalidatedPolicy(request, again.response)
    expect([modified, matches]).toEqual([false, true])
    const { date: _before, ...before } = response.headers
    const { date: _after, age: _age, ...after } = kept(fresh.responseHeaders())
    for (const name of ['connection', 'keep-alive', 'transfer-encoding']) delete before[name]
    expect(after).toEqual(before)
  })

  it('is given another as soon as it tells something else (4.3.3)', async () => {
    const { request, response } = await ask()
    const policy = new CachePolicy(request, response, options)
    await describeShow('Told otherwise from now on.')
    const again = await ask(policy.revalidationHeaders(request))
    expect(again.response.status).toBe(200)
    expect(again.body).toContain('Told otherwise from now on.')
    expect(policy.revalidatedPolicy(request, again.response).modified).toBe(true)
  })

  it('keeps each encoding for those who take it (4.1)', async () => {
    const { request, response } = await ask({ 'accept-encoding': 'br' })
    const policy = new CachePolicy(request, response, options)
    const [same, other] = ['br', 'gzip'].map(encoding => ({
      ...request,
      headers: { ...request.headers, 'accept-encoding': encoding },
    }))
    // A request that matches is made conditional; for another one what is kept says nothing.
    expect(policy.revalidationHeaders(same!)).toHaveProperty('if-none-match')
    expect(policy.revalidationHeaders(other!)).not.toHaveProperty('if-none-match')
  })

  it('goes by the tag where a cache has that, and by the date where it has no other (4.3.1)', async () => {
    const { response } = await ask()
    const { etag, 'last-modified': modified } = response.headers
    const statuses = [
      { 'if-none-match': etag! },
      { 'if-modified-since': modified! },
      { 'if-none-match': '"another"', 'if-modified-since': modified! },
    ].map(async headers => (await ask(headers)).response.status)
    expect(await Promise.all(statuses)).toEqual([304, 304, 200])
  })
})

it('a 304 tells what caches go by, and nothing else of the content (RFC 9110 section 15.4.5)', async () => {
  const { response } = await ask()
  const { response: same } = await ask({ 'if-none-match': response.headers.etag! })
  expect(same.status).toBe(304)
  const own = Object.keys(same.headers).filter(name => !/^(access-control-.*|connection|keep-alive|date)$/.test(name))
  expect(own.sort()).toEqual(['cache-control', 'etag', 'vary', 'x-content-type-options'])
})
