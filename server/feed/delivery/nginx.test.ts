import { mkdtempSync, readFileSync, renameSync, rmSync, truncateSync, appendFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startNginx } from '../../../scripts/setup/nginx.mjs'
import { freePort } from '../../../scripts/setup/ports.mjs'
import { type DeliveryEntry, unpack } from '../../platform/deliveries/lines'
import { proxyLog } from './proxyLog'
import { type House, openHouse, sounds } from '../../testing/house'

const whole = readFileSync(join(sounds, 'sf-5.mp3'))
const folder = mkdtempSync(join(tmpdir(), 'lake-letter-nginx-'))
let house: House
let nginx: Awaited<ReturnType<typeof startNginx>>
let base: string
let path: string
let episodeId: string

beforeAll(async () => {
  house = await openHouse({ MEDIA_ACCEL: '/stored/', TRUST_PROXY: '1' })
  const [port, serverPort] = [await freePort(), await freePort()]
  await house.app.listen({ port: serverPort, host: '127.0.0.1' })
  nginx = await startNginx(folder, { port, serverPort, mediaDir: house.mediaFolder })
  base = `http://127.0.0.1:${port}`
  const show = await house.makeShow('slow-ferry')
  const { id, version } = await house.makeReady(show.id, 'The last boat')
  const released = (await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })).json()
  episodeId = id
  path = new URL(released.enclosureAddress).pathname
})
afterAll(async () => {
  nginx.stop()
  await house.close()
  rmSync(folder, { recursive: true, force: true })
})

describe('behind Debian’s nginx, with the configuration that ships', () => {
  it('a file comes whole, with its type, kept for ever, for players of other sites', async () => {
    const answer = await fetch(base + path)
    expect(Buffer.from(await answer.arrayBuffer()).equals(whole)).toBe(true)
    expect(Object.fromEntries(answer.headers)).toMatchObject({
      'content-type': 'audio/mpeg',
      'content-length': String(whole.length),
      'accept-ranges': 'bytes',
      'cache-control': 'public, max-age=31536000, immutable',
      'access-control-allow-origin': '*',
      'cross-origin-resource-policy': 'cross-origin',
      'x-content-type-options': 'nosniff',
    })
    expect(answer.headers.has('x-accel-redirect')).toBe(false)
  })

  // RFC 9110 sections 14.2, 15.5.17 and 13.1.5.
  it('a range comes with just those bytes, one behind the end with the length, and If-Range is looked at', async () => {
    const part = await fetch(base + path, { headers: { range: 'bytes=1000-1999' } })
    expect([part.status, part.headers.get('content-range')]).toEqual([206, `bytes 1000-1999/${whole.length}`])
    expect(Buffer.from(await part.arrayBuffer()).equals(whole.subarray(1000, 2000))).toBe(true)
    const behind = await fetch(base + path, { headers: { range: `bytes=${whole.length}-` } })
    expect([behind.status, behind.headers.get('content-range')]).toEqual([416, `bytes */${whole.length}`])
    const etag = part.headers.get('etag')!
    const status = async (ifRange: string) =>
      (await fetch(base + path, { headers: { range: 'bytes=0-9', 'if-range': ifRange } })).status
    expect([await status(etag), await status('"another"')]).toEqual([206, 200])
    expect((await fetch(base + path, { headers: { 'if-none-match': etag } })).status).toBe(304)
  })

  it('HEAD tells the length and sends nothing', async () => {
    const answer = await fetch(base + path, { method: 'HEAD' })
    expect([answer.status, answer.headers.get('content-length'), (await answer.arrayBuffer()).byteLength]).toEqual([
      200,
      String(whole.length),
      0,
    ])
  })

  it('nobody gets at the stored files by their own address, and a retired episode’s file is not sent', async () => {
    const sha256 = (await house.get(episodeId)).sound.source!.fingerprint
    expect((await fetch(`${base}/stored/${sha256.slice(0, 2)}/${sha256}`)).status).toBe(404)
    const { version } = await house.get(episodeId)
    await house.call('POST', `/episodes/${episodeId}/retire`, { version })
    const status = async () => (await fetch(base + path)).status
    // For a second, nginx goes by what it was told.
    await expect.poll(status).toBe(404)
    await house.call('POST', `/episodes/${episodeId}/restore`, { version: version + 1 })
    await expect.poll(status).toBe(200)
  })

  it('what is not there, what may not be done and what a browser asks before it asks, the server answers', async () => {
    const missing = await fetch(base + path.replace(/[\da-f]{16}/, 'f'.repeat(16)))
    expect([missing.status, await missing.json()]).toMatchObject([404, { code: 'not-found' }])
    expect((await fetch(base + path, { method: 'DELETE' })).status).toBe(405)
    expect((await fetch(base + path, { method: 'OPTIONS' })).status).toBe(204)
    expect((await fetch(`${base}${path}?from=app`, { headers: { range: 'bytes=0-9' } })).status).toBe(206)
  })

  it('asks the server once a second at most for a file', async () => {
    let asked = 0
    const count = (): void => void asked++
    house.app.server.on('request', count)
    for (let n = 0; n < 200; n++) await (await fetch(base + path, { headers: { range: 'bytes=0-9' } })).arrayBuffer()
    house.app.server.off('request', count)
    expect(asked).toBeLessThan(20)
  })

  it('feeds, pages and the news come through', async () => {
    expect((await fetch(`${base}/slow-ferry/feed.xml`)).headers.get('content-type')).toBe(
      'application/rss+xml; charset=utf-8',
    )
    const stop = new AbortController()
    const news = await fetch(`${base}/api/v1/events`, { headers: { cookie: house.cookie }, signal: stop.signal })
    const reader = news.body!.pipeThrough(new TextDecoderStream()).getReader()
    let heard = ''
    while (!heard.includes('event: all')) heard += (await reader.read()).value ?? ''
    stop.abort()
  })
})

describe('what nginx notes', () => {
  const fetched = async (agent: string, headers: Record<string, string> = {}, method = 'GET'): Promise<void> => {
    await (await fetch(base + path, { method, headers: { 'user-agent': agent, ...headers } })).arrayBuffer()
  }
  const log = () => proxyLog(house.platform, nginx.logPath)

  async function entries(beginning: string): Promise<DeliveryEntry[]> {
    await log().read()
    const rows = await house.platform.database.query<{ packed: Buffer }>(
      'SELECT packed FROM delivery_log ORDER BY id',
      {
        type: QueryTypes.SELECT,
      },
    )
    const all = (await Promise.all(rows.map(({ packed }) => unpack(packed)))).flat()
    return all.filter(({ agent }) => agent.startsWith(beginning))
  }

  it('comes into the log of deliveries, with the bytes that went out, and whom they went to without an address', async () => {
    // nginx goes by the clock of the world, whatever that of the tests is.
    const now = (): number => performance.timeOrigin + performance.now()
    const began = now()
    await fetched('First "wireless" é')
    await fetched('First', { range: 'bytes=10-19' })
    await fetched('First', {}, 'HEAD')
    await (await fetch(`${base}${path}?from=frame`, { headers: { 'user-agent': 'First' } })).arrayBuffer()
    await expect.poll(() => entries('First')).toHaveLength(4)
    const [all, part, head, frame] = await entries('First')
    const { showId, sound } = await house.get(episodeId)
    expect(all).toEqual({
      at: expect.any(Date) as Date,
      kind: 'media',
      showId,
      episodeId,
      fileId: sound.source!.id,
      method: 'GET',
      status: 200,
      bytesSent: whole.length,
      range: null,
      agent: 'First "wireless" é',
      who: expect.stringMatching(/^[\da-f]{16}$/) as string,
      source: 'feed',
      place: null,
      isHosted: false,
      isPrefetch: false,
      isCoarse: false,
      times: 1,
    })
    expect(head).toMatchObject({ method: 'HEAD', bytesSent: 0 })
    expect(frame).toMatchObject({ source: 'frame', bytesSent: whole.length })
    // The world may put its clock right meanwhile.
    expect(+all!.at).toBeGreaterThanOrEqual(began - 1000)
    expect(+all!.at).toBeLessThanOrEqual(now())
    expect(part).toMatchObject({ status: 206, bytesSent: 10, range: { start: 10, end: 19 } })
  })

  it('comes once, also where five processes read it, and it is put aside and begun anew meanwhile', async () => {
    const readers = Array.from({ length: 5 }, log)
    const read = () => Promise.all(readers.map(reader => reader.read()))
    const count = async () => (await entries('Second')).length
    for (let round = 1; round <= 2; round++) {
      for (let n = 0; n < 10; n++) await fetched(`Second ${round}-${n}`)
      await read()
      renameSync(nginx.logPath, `${nginx.logPath}.1`)
      await fetched(`Second ${round} between`)
      await read()
      nginx.reopenLogs()
      await read()
      await fetched(`Second ${round} after`)
      await read()
      await expect.poll(count).toBe(12 * round)
    }
    expect(new Set((await entries('Second')).map(({ agent }) => agent)).size).toBe(24)
  })

  it('comes also where the log was cut off, and half a line or a foreign one stops nothing', async () => {
    truncateSync(nginx.logPath)
    appendFileSync(nginx.logPath, 'not of ours\n{"at":1,"meth')
    await log().read()
    appendFileSync(nginx.logPath, 'od":"GET"}\n')
    await fetched('Third')
    await expect.poll(() => entries('Third')).toHaveLength(1)
  })
})
