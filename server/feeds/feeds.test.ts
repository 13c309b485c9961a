import { brotliDecompressSync, gunzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import { transact } from '../database/transact'
import { type House, openHouse } from '../testing/house'
import { joined, noteFeedWrite } from './freshness'

let house: House
beforeAll(async () => {
  house = await openHouse()
  const show = await house.makeShow('slow-ferry')
  const episode = await house.makeReady(show.id, 'The last boat') as Episode
  await house.call('POST', `/episodes/${episode.id}/release`, { version: episode.version, when: { kind: 'now' } })
  await house.makeReady(show.id, 'A draft that nobody sees')
})
afterAll(() => house.close())

const get = (headers: Record<string, string> = {}, method: 'GET' | 'HEAD' = 'GET') => house.app.inject({ method, url: '/slow-ferry/feed.xml', headers })

// RFC 9110: sections 8.8 (validators), 12.5.3 (content coding), 13 (conditional requests).
describe('serving a feed', () => {
  it('has the right type, a strong entity tag and a date, and released episodes only', async () => {
    const answer = await get()
    expect(answer.headers).toMatchObject({ 'content-type': 'application/rss+xml; charset=utf-8', etag: expect.stringMatching(/^"[\w-]+"$/), 'last-modified': 'Tue, 10 Mar 2026 05:00:00 GMT' })
    expect(answer.body).toContain('The last boat')
    expect(answer.body).not.toContain('A draft that nobody sees')
  })

  it('answers 304 without a body to its own entity tag, to a list with it, and to its date', async () => {
    const { headers: { etag, 'last-modified': modified } } = await get()
    const conditions: [string, string][] = [
      ['if-none-match', String(etag)], ['if-none-match', `"other", W/${String(etag)}`], ['if-none-match', '*'], ['if-modified-since', String(modified)],
    ]
    for (const [name, value] of conditions) {
      const answer = await get({ [name]: value })
      expect([answer.statusCode, answer.body], `${name}: ${value}`).toEqual([304, ''])
      expect(answer.headers.etag).toBe(etag)
    }
  })

  it('answers 200 to another tag, also when the date would match, and to an unreadable date', async () => {
    const { headers: { 'last-modified': modified } } = await get()
    expect((await get({ 'if-none-match': '"other"', 'if-modified-since': String(modified) })).statusCode).toBe(200)
    expect((await get({ 'if-modified-since': 'yesterday' })).statusCode).toBe(200)
    expect((await get({ 'if-modified-since': 'Mon, 09 Mar 2026 05:00:00 GMT' })).statusCode).toBe(200)
    expect((await get({ 'if-match': '"other"' })).statusCode).toBe(412)
  })

  it('is sent as brotli or gzip, each with an entity tag of its own', async () => {
    const plain = await get()
    const gzip = await get({ 'accept-encoding': 'gzip' })
    const br = await get({ 'accept-encoding': 'gzip, deflate, br' })
    expect(gunzipSync(gzip.rawPayload).toString()).toBe(plain.body)
    expect(brotliDecompressSync(br.rawPayload).toString()).toBe(plain.body)
    expect([gzip.headers['content-encoding'], br.headers['content-encoding']]).toEqual(['gzip', 'br'])
    expect(new Set([plain, gzip, br].map(answer => answer.headers.etag)).size).toBe(3)
    expect(gzip.headers.vary).toBe('accept-encoding')
    expect((await get({ 'accept-encoding': 'br;q=0, gzip' })).headers['content-encoding']).toBe('gzip')
    expect((await get({ 'accept-encoding': 'brotli' })).headers['content-encoding']).toBeUndefined()
    expect((await get({ 'accept-encoding': 'gzip', 'if-none-match': String(gzip.headers.etag) })).statusCode).toBe(304)
  })

  it('answers HEAD with the length and without the body', async () => {
    const [whole, head] = [await get(), await get({}, 'HEAD')]
    expect(head.body).toBe('')
    expect(head.headers['content-length']).toBe(String(Buffer.byteLength(whole.body)))
  })

  it('changes its tag when an episode changes, and only then', async () => {
    const before = (await get()).headers.etag
    expect((await get()).headers.etag).toBe(before)
    const { id } = (await house.call('GET', '/shows')).json()[0]
    const draft = ((await house.call('GET', `/shows/${id}/episodes`)).json() as Episode[])[0]!
    await house.call('PATCH', `/episodes/${draft.id}`, { version: (await house.call('GET', `/episodes/${draft.id}`)).json().version, text: { title: 'Still a draft' } })
    expect((await get()).headers.etag).toBe(before)
    const show = (await house.call('GET', `/shows/${id}`)).json()
    await house.call('PATCH', `/shows/${id}`, { version: show.version, description: 'Five minutes.' })
    expect((await get()).headers.etag).not.toBe(before)
  })

  it('knows no other show', async () => expect((await house.app.inject({ url: '/nowhere/feed.xml' })).statusCode).toBe(404))
})

describe('questions asked together', () => {
  it('are answered by an answer that was fetched after each was asked', async () => {
    let asked = 0
    const finish: (() => void)[] = []
    const { ask } = joined(keys => new Promise<Map<string, string>>(resolve => {
      const mine = ++asked
      finish.push(() => resolve(new Map(keys.map(key => [key, `${key} ${mine}`]))))
    }), 'nothing', 0)
    const turn = (): Promise<void> => new Promise(resolve => setTimeout(resolve, 0))
    const first = ask('a')
    await turn()
    const [second, third] = [ask('a'), ask('b')]
    expect(asked).toBe(1)
    finish[0]!()
    expect(await first).toBe('a 1')
    await turn()
    finish[1]!()
    expect(await Promise.all([second, third])).toEqual(['a 2', 'b 2'])
  })

  it('share a kept answer until this process has written', async () => {
    let asked = 0
    const { ask, kept } = joined(async keys => new Map(keys.map(key => [key, ++asked])), 0, 60_000)
    expect([await ask('a'), await ask('a'), kept('a'), kept('b')]).toEqual([1, 1, 1, undefined])
    await transact(house.platform.database, async transaction => { noteFeedWrite(transaction) })
    expect(await ask('a')).toBe(2)
  })
})
