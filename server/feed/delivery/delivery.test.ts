import { createHash, randomBytes } from 'node:crypto'
import { once } from 'node:events'
import { readFileSync, writeFileSync } from 'node:fs'
import { type AddressInfo, connect } from 'node:net'
import { join } from 'node:path'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import type { Episode as EpisodeView } from '@contract/episodes'
import { createApp } from '../../app/app'
import { Episode } from '../../show/episodes/models'
import { createEvents } from '../../platform/events/events'
import { AudioFile } from '../../media/files/models'
import { type House, openHouse, sounds, type WholeEpisode } from '../../testing/house'
import { type DeliveryEntry, unpack } from '../../platform/deliveries/lines'

let house: House
let released: WholeEpisode
let draft: WholeEpisode
let url: string
const whole = readFileSync(join(sounds, 'sf-5.mp3'))

beforeAll(async () => {
  house = await openHouse()
  const show = await house.makeShow('slow-ferry')
  const episode = await house.makeReady(show.id, 'The last boat')
  await house.call('POST', `/episodes/${episode.id}/release`, { version: episode.version, when: { kind: 'now' } })
  released = await house.get(episode.id)
  draft = await house.makeReady(show.id, 'Not yet', 'sf-4.m4a')
  url = new URL(released.enclosureAddress!).pathname
})
afterAll(() => house.close())

const get = (headers: Record<string, string> = {}, method: 'GET' | 'HEAD' = 'GET') =>
  house.app.inject({ method, url, headers })

// RFC 9110: section 14 (range requests), 13.1.5 (If-Range), 15.5.17 (416).
describe('audio out', () => {
  it('is the file itself, to keep for ever', async () => {
    const answer = await get()
    expect(answer.rawPayload.equals(whole)).toBe(true)
    expect(answer.headers).toMatchObject({
      'content-type': 'audio/mpeg',
      'content-length': String(whole.length),
      'accept-ranges': 'bytes',
      'cache-control': 'public, max-age=31536000, immutable',
      'cross-origin-resource-policy': 'cross-origin',
    })
  })

  it.each([
    ['bytes=0-0', 0, 0],
    ['bytes=100-199', 100, 199],
    ['bytes=487000-', 487_000, whole.length - 1],
    ['bytes=-500', whole.length - 500, whole.length - 1],
    ['bytes=0-99999999', 0, whole.length - 1],
    ['bytes=-99999999', 0, whole.length - 1],
  ])('answers %s with just those bytes', async (range, start, end) => {
    const answer = await get({ range })
    expect(answer.statusCode).toBe(206)
    expect(answer.headers['content-range']).toBe(`bytes ${start}-${end}/${whole.length}`)
    expect(answer.rawPayload.equals(whole.subarray(start, end + 1))).toBe(true)
  })

  it.each([`bytes=${whole.length}-`, 'bytes=99999999-', 'bytes=-0'])(
    'answers 416 with the length to %s',
    async range => {
      const answer = await get({ range })
      expect(answer.statusCode).toBe(416)
      expect(answer.headers['content-range']).toBe(`bytes */${whole.length}`)
    },
  )

  it.each(['bytes=abc', 'lines=1-2', 'bytes=5-2', 'bytes=0-1,5-6'])(
    'answers the whole file to %s, which it may ignore',
    async range => {
      expect((await get({ range })).statusCode).toBe(200)
    },
  )

  it('follows a range only while If-Range holds', async () => {
    const {
      headers: { etag, 'last-modified': modified },
    } = await get()
    const status = async (ifRange: string) => (await get({ range: 'bytes=0-9', 'if-range': ifRange })).statusCode
    expect(await status(String(etag))).toBe(206)
    expect(await status(String(modified))).toBe(206)
    expect(await status('"other"')).toBe(200)
    expect(await status(`W/${String(etag)}`)).toBe(200)
    expect(await status('Mon, 01 Jan 2024 00:00:00 GMT')).toBe(200)
  })

  it('answers HEAD like GET without the bytes, and ignores a range there', async () => {
    const answer = await get({ range: 'bytes=0-9' }, 'HEAD')
    expect([answer.statusCode, answer.body, answer.headers['content-length']]).toEqual([200, '', String(whole.length)])
  })

  it('answers 304 to its entity tag', async () => {
    expect((await get({ 'if-none-match': String((await get()).headers.etag) })).statusCode).toBe(304)
  })
})

describe('a draft’s audio', () => {
  it('cannot be fetched at the address it will have', async () => {
    const guessed = `/media/${draft.id}/${draft.sound.source!.fingerprint.slice(0, 16)}.m4a`
    expect((await house.app.inject({ url: guessed })).statusCode).toBe(404)
    const { version } = await house.get(draft.id)
    await house.call('POST', `/episodes/${draft.id}/release`, { version, when: { kind: 'now' } })
    const answer = await house.app.inject({ url: guessed })
    expect([answer.statusCode, answer.headers['content-type']]).toEqual([200, 'audio/mp4'])
  })

  it('is played in the studio only with a sign-in', async () => {
    const { playAddress, waveformAddress } = released.sound.source!
    await house.workOnSound()
    expect((await house.app.inject({ url: playAddress })).statusCode).toBe(401)
    expect(
      (await house.app.inject({ url: playAddress, headers: { cookie: house.cookie, range: 'bytes=0-9' } })).statusCode,
    ).toBe(206)
    expect(
      (await house.app.inject({ url: waveformAddress, headers: { cookie: house.cookie } })).rawPayload.length,
    ).toBeGreaterThan(2000)
  })

  it.each(['/media/..%2f..%2fpackage.json/x', '/media/artwork/..%2f..%2fpackage.json', '/media/a/b'])(
    'nothing else lies at %s',
    async path => {
      expect((await house.app.inject({ url: path })).statusCode).toBe(404)
    },
  )
})

describe('what an address delivers is known here, and', () => {
  it('is known anew once the episode is retired, restored, or its audio replaced, by whichever process', async () => {
    const { id, version } = released
    const events = createEvents(house.platform.database, house.clock, () => undefined)
    const other = await createApp({ ...house.platform, events })
    const status = async (app = house.app) => (await app.inject({ url })).statusCode
    expect([await status(), await status(other)]).toEqual([200, 200])
    await house.call('POST', `/episodes/${id}/retire`, { version })
    expect(await status()).toBe(404)
    await expect.poll(() => status(other), { interval: 20 }).toBe(404)
    await house.call('POST', `/episodes/${id}/restore`, { version: version + 1 })
    expect(await status()).toBe(200)
    await expect.poll(() => status(other), { interval: 20 }).toBe(200)
    await events.stop()
    await other.close()
  })

  it('asks the database once for a hundred fetches, and never again for as many of what is not there', async () => {
    const spy = vi.spyOn(Episode, 'findOne')
    const before = spy.mock.calls.length
    await Promise.all(Array.from({ length: 100 }, () => get({ range: 'bytes=0-9' })))
    const missing = url.replace(/[^/]+\.mp3$/, 'ffffffffffffffff.mp3')
    for (let n = 0; n < 20; n++) expect((await house.app.inject({ url: missing })).statusCode).toBe(404)
    expect(spy.mock.calls.length - before).toBeLessThanOrEqual(1)
    spy.mockRestore()
  })
})

describe('the log of deliveries', () => {
  let port: number
  beforeAll(async () => {
    await house.app.listen({ port: 0, host: '127.0.0.1' })
    port = (house.app.server.address() as AddressInfo).port
  })

  async function entries(): Promise<DeliveryEntry[]> {
    await house.platform.deliveries.flush()
    const rows = await house.platform.database.query<{ entries: number; packed: Buffer }>(
      'SELECT entries, packed FROM delivery_log ORDER BY id',
      { type: QueryTypes.SELECT },
    )
    const all = await Promise.all(rows.map(({ packed }) => unpack(packed)))
    expect(rows.map(row => row.entries)).toEqual(all.map(each => each.length))
    return all.flat()
  }

  it('tells time, file, method, bytes, range, program, source, and who it was without an address', async () => {
    for (const [path, init] of [
      [url, { headers: { 'user-agent': 'Pocket wireless/3', range: 'bytes=10-19' } }],
      [`${url}?from=page`, { headers: { 'user-agent': 'Pocket wireless/3', 'sec-purpose': 'prefetch' } }],
      [`${url}?from=elsewhere`, { method: 'HEAD' }],
    ] as const) {
      await (await fetch(`http://127.0.0.1:${port}${path}`, init)).arrayBuffer()
    }
    const [part, page, head] = (await entries()).slice(-3)
    const file = await AudioFile.findOne({ where: { showId: released.showId }, rejectOnEmpty: true })
    expect(part).toEqual({
      at: house.clock.now(),
      kind: 'media',
      showId: released.showId,
      episodeId: released.id,
      status: 206,
      bytesSent: 10,
      range: { start: 10, end: 19 },
      agent: 'Pocket wireless/3',
      who: expect.stringMatching(/^[\da-f]{16}$/) as string,
      fileId: file.id,
      method: 'GET',
      source: 'feed',
      place: null,
      isHosted: false,
      isPrefetch: false,
      isCoarse: false,
      times: 1,
    })
    expect(page).toMatchObject({ source: 'page', isPrefetch: true, who: part!.who })
    expect(head).toMatchObject({ source: 'feed', method: 'HEAD', bytesSent: 0 })
    expect(head!.who).not.toBe(part!.who)
  })

  it('tells of a feed in one line what the same program got within a second', async () => {
    const fetchFeed = async (agent: string, init: RequestInit = {}): Promise<Response> => {
      const headers = { 'user-agent': agent, ...init.headers }
      const answer = await fetch(`http://127.0.0.1:${port}/slow-ferry/feed.xml`, { ...init, headers })
      await answer.arrayBuffer()
      return answer
    }
    for (let n = 0; n < 3; n++) await fetchFeed('Directory')
    const { headers } = await fetchFeed('Another')
    await fetchFeed('Another', { headers: { 'if-none-match': headers.get('etag')! } })
    await fetchFeed('A looker', { method: 'HEAD' })
    const feed = {
      kind: 'feed',
      showId: released.showId,
      episodeId: null,
      range: null,
      source: 'feed',
      bytesSent: Number(headers.get('content-length')),
    }
    const ofFeed = async () => (await entries()).filter(({ kind, agent }) => kind === 'feed' && agent !== 'node')
    await expect.poll(ofFeed).toMatchObject([
      { ...feed, status: 200, agent: 'Directory', times: 3 },
      { ...feed, status: 200, agent: 'Another', times: 1 },
      { ...feed, status: 304, agent: 'Another', bytesSent: 0 },
      { ...feed, status: 200, agent: 'A looker', bytesSent: 0 },
    ])
  })

  it('of a fetch that is broken off tells what the line had taken', async () => {
    const long = await house.makeReady(released.showId, 'A long one')
    const bytes = randomBytes(40_000_000)
    const sha256 = createHash('sha256').update(bytes).digest('hex')
    await house.platform.media.workIn('long', async folder => {
      writeFileSync(join(folder, 'a'), bytes)
      await house.platform.media.take(join(folder, 'a'), sha256)
    })
    await AudioFile.update({ fingerprint: sha256, bytes: bytes.length }, { where: { id: long.sound.source!.id } })
    const answer = (
      await house.call('POST', `/episodes/${long.id}/release`, { version: long.version, when: { kind: 'now' } })
    ).json() as EpisodeView
    const socket = connect(port, '127.0.0.1')
    socket.write(`GET ${new URL(answer.enclosureAddress!).pathname} HTTP/1.1\r\nHost: lake.example\r\n\r\n`)
    await once(socket, 'readable')
    socket.destroy()
    await expect.poll(async () => (await entries()).at(-1)?.episodeId).toBe(long.id)
    const last = (await entries()).at(-1)!
    expect(last.bytesSent).toBeGreaterThan(0)
    expect(last.bytesSent).toBeLessThan(bytes.length / 2)
  })

  it('loses nothing while the database is away for a while', async () => {
    const short = await house.get(draft.id)
    const before = (await entries()).length
    // Away for the log, whatever else is asked of it meanwhile.
    const { database } = house.platform
    const query = database.query.bind(database) as (...given: unknown[]) => Promise<unknown>
    let refused = 0
    const spy = vi.spyOn(database, 'query').mockImplementation(((statement: string, ...rest: unknown[]) => {
      if (refused > 0 || !String(statement).includes('INTO delivery_log')) return query(statement, ...rest)
      refused++
      return Promise.reject(new Error('away'))
    }) as never)
    expect((await house.app.inject(new URL(short.enclosureAddress!).pathname)).statusCode).toBe(200)
    // It is noted a moment after it was answered.
    const { deliveries } = house.platform
    await expect.poll(() => deliveries.flush().then(() => refused)).toBe(1)
    await deliveries.flush()
    spy.mockRestore()
    expect((await entries()).length).toBe(before + 1)
  })
})
