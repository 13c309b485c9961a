import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type House, openHouse, sounds, type WholeEpisode } from '../testing/house'

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

const get = (headers: Record<string, string> = {}, method: 'GET' | 'HEAD' = 'GET') => house.app.inject({ method, url, headers })

// RFC 9110: section 14 (range requests), 13.1.5 (If-Range), 15.5.17 (416).
describe('audio out', () => {
  it('is the file itself, to keep for ever', async () => {
    const answer = await get()
    expect(answer.rawPayload.equals(whole)).toBe(true)
    expect(answer.headers).toMatchObject({ 'content-type': 'audio/mpeg', 'content-length': String(whole.length), 'accept-ranges': 'bytes', 'cache-control': 'public, max-age=31536000, immutable', 'cross-origin-resource-policy': 'cross-origin' })
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

  it.each([`bytes=${whole.length}-`, 'bytes=99999999-', 'bytes=-0'])('answers 416 with the length to %s', async range => {
    const answer = await get({ range })
    expect(answer.statusCode).toBe(416)
    expect(answer.headers['content-range']).toBe(`bytes */${whole.length}`)
  })

  it.each(['bytes=abc', 'lines=1-2', 'bytes=5-2', 'bytes=0-1,5-6'])('answers the whole file to %s, which it may ignore', async range => {
    expect((await get({ range })).statusCode).toBe(200)
  })

  it('follows a range only while If-Range holds', async () => {
    const { headers: { etag, 'last-modified': modified } } = await get()
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
    const guessed = `/media/${draft.id}/${draft.sound.source!.sha256.slice(0, 16)}.m4a`
    expect((await house.app.inject({ url: guessed })).statusCode).toBe(404)
    const { version } = draft
    await house.call('POST', `/episodes/${draft.id}/release`, { version, when: { kind: 'now' } })
    const answer = await house.app.inject({ url: guessed })
    expect([answer.statusCode, answer.headers['content-type']]).toEqual([200, 'audio/mp4'])
  })

  it('is played in the studio only with a sign-in', async () => {
    const { playAddress, waveformAddress } = released.sound.source!
    await house.workOnSound()
    expect((await house.app.inject({ url: playAddress })).statusCode).toBe(401)
    expect((await house.app.inject({ url: playAddress, headers: { cookie: house.cookie, range: 'bytes=0-9' } })).statusCode).toBe(206)
    expect((await house.app.inject({ url: waveformAddress, headers: { cookie: house.cookie } })).rawPayload.length).toBeGreaterThan(2000)
  })

  it.each(['/media/..%2f..%2fpackage.json/x', '/media/artwork/..%2f..%2fpackage.json', '/media/a/b'])('nothing else lies at %s', async path => {
    expect((await house.app.inject({ url: path })).statusCode).toBe(404)
  })
})
