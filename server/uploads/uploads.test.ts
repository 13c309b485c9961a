import { execFileSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { readdir } from 'node:fs/promises'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Upload as TusUpload } from 'tus-js-client'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import { makeSound, probe } from '@core/audio/sound.fixture'
import { type House, openHouse, sounds } from '../testing/house'

let house: House
let showId: string
let address: string
const folder = mkdtempSync(join(tmpdir(), 'lake-letter-uploads-'))

beforeAll(async () => {
  house = await openHouse({ MAX_UPLOAD_BYTES: '5000000' })
  showId = (await house.makeShow('bellows-and-reeds')).id
  await house.app.listen({ port: 0, host: '127.0.0.1' })
  address = `http://127.0.0.1:${(house.app.server.address() as AddressInfo).port}/api/v1/uploads`
})
afterAll(async () => {
  await house.close()
  rmSync(folder, { recursive: true })
})

const create = async (): Promise<Episode> => (await house.call('POST', `/shows/${showId}/episodes`, {})).json()
const get = async (id: string): Promise<Episode> => (await house.call('GET', `/episodes/${id}`)).json()

function send(episodeId: string, name: string, bytes: Buffer): Promise<void> {
  return new Promise((resolve, reject) => new TusUpload(bytes, {
    endpoint: address, retryDelays: null, headers: { cookie: house.cookie }, metadata: { episodeId, filename: name }, onError: reject, onSuccess: () => resolve(),
  }).start())
}

/** Uploads a file as a new episode's audio and reads it; answers the episode after that. */
async function bring(name: string, bytes: Buffer): Promise<Episode> {
  const { id } = await create()
  await send(id, name, bytes)
  while (await house.platform.jobs.runNext());
  return get(id)
}

describe('an uploaded file', () => {
  it('becomes the audio, with what ffprobe finds too, and its tags fill in title and number', async () => {
    const path = join(sounds, 'sf-4.m4a')
    const episode = await bring('whatever.bin', readFileSync(path))
    expect(episode.sound.source).toMatchObject({ type: 'audio/mp4', codec: 'aac', sampleRateHz: 44_100, channels: 1, bytes: readFileSync(path).length })
    expect(Math.abs(episode.sound.source!.durationMs - probe(path).durationMs)).toBeLessThan(2)
    expect(episode.text).toMatchObject({ title: 'The morning boat', number: 4 })
    expect(episode.sound.source!.pictureAddress).toMatch(/^\/api\/v1\/pictures\/[0-9a-f]{64}\.jpg$/)
    expect(episode.upload).toBeNull()
  })

  it('does not overwrite what was written meanwhile', async () => {
    const { id } = await create()
    await send(id, '12_the-wet-reed.mp3', makeSound(join(folder, 'a.mp3'), 2, []))
    await house.call('PATCH', `/episodes/${id}`, { version: 1, text: { title: 'My own title' } })
    while (await house.platform.jobs.runNext());
    expect((await get(id)).text).toMatchObject({ title: 'My own title', number: 12 })
  })

  it('goes on where it stopped when the line is cut in mid-upload', async () => {
    const { id } = await create()
    const sound = makeSound(join(folder, 'cut.mp3'), 60, ['-b:a', '320k'])
    const metadata = Object.entries({ episodeId: id, filename: 'cut.mp3' }).map(([key, value]) => `${key} ${Buffer.from(value).toString('base64')}`).join(',')
    const common = { cookie: house.cookie, 'tus-resumable': '1.0.0' }
    const created = await fetch(address, { method: 'POST', headers: { ...common, 'upload-length': String(sound.length), 'upload-metadata': metadata } })
    const url = new URL(created.headers.get('location')!, address).href
    const half = new ReadableStream({
      start(controller) { controller.enqueue(sound.subarray(0, 1_000_000)) },
      pull: () => new Promise(() => undefined),
    })
    const cut = new AbortController()
    const sending = fetch(url, { method: 'PATCH', headers: { ...common, 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' }, body: half, duplex: 'half', signal: cut.signal } as RequestInit)
    setTimeout(() => cut.abort(), 500)
    await sending.catch(() => undefined)
    const head = await fetch(url, { method: 'HEAD', headers: common })
    const offset = Number(head.headers.get('upload-offset'))
    expect(offset).toBeGreaterThan(0)
    expect(offset).toBeLessThan(sound.length)
    const rest = await fetch(url, { method: 'PATCH', headers: { ...common, 'upload-offset': String(offset), 'content-type': 'application/offset+octet-stream' }, body: new Uint8Array(sound.subarray(offset)) })
    expect(rest.status).toBe(204)
    while (await house.platform.jobs.runNext());
    const { source: audio } = (await get(id)).sound
    expect(audio!.bytes).toBe(sound.length)
    expect(audio!.sha256).toBe((await bring('again.mp3', sound)).sound.source!.sha256)
  })

  it('that came before is kept once, and says where else it is used', async () => {
    const sound = makeSound(join(folder, 'twice.mp3'), 3, ['-metadata', 'title=Twice'])
    const [one, two] = [await bring('one.mp3', sound), await bring('two.mp3', sound)]
    expect(two.sound.source!.id).toBe(one.sound.source!.id)
    expect(two.sound.alsoIn).toEqual([{ id: one.id, title: 'Twice', number: null }])
  })

  it('leaves nothing in the inbox', async () => {
    await bring('clean.mp3', makeSound(join(folder, 'clean.mp3'), 1, []))
    expect(await readdir(house.platform.media.inbox)).toEqual([])
  })
})

describe('a file that cannot be an episode’s audio', () => {
  it.each([
    ['a text file named .mp3', 'letter.mp3', () => Buffer.from('Dear listeners,\n'.repeat(500)), 'This is a text file, not sound'],
    ['noise named .mp3', 'noise.mp3', () => Buffer.concat([Buffer.from([0, 1, 2]), randomBytes(50_000).map(byte => byte === 255 ? 0 : byte)]), 'This is not a sound file we know'],
    ['a film', 'film.mp3', () => { const path = join(folder, 'film.mp4'); execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc=d=1:s=64x64', '-pix_fmt', 'yuv420p', path]); return readFileSync(path) }, 'This is a film'],
    ['an M4A without its second half', 'half.m4a', () => { const all = makeSound(join(folder, 'c.m4a'), 20, ['-c:a', 'aac']); return all.subarray(0, all.length / 2) }, 'There is no sound in this file'],
  ])('%s is refused in words', async (_kind, name, make, title) => {
    const episode = await bring(name, make())
    expect(episode.sound.source).toBeNull()
    expect(episode.upload).toMatchObject({ state: 'refused', fileName: name, refusal: { title, todo: expect.stringMatching(/\w/) } })
  })

  it('an empty one, and one over the limit, are refused before a byte is sent', async () => {
    const { id } = await create()
    await expect(send(id, 'empty.mp3', Buffer.alloc(0))).rejects.toThrow(/422.*0 bytes/s)
    await expect(send(id, 'big.mp3', Buffer.alloc(5_000_001))).rejects.toThrow(/413.*at most 5\.0 MB/s)
    expect((await get(id)).upload).toBeNull()
  })

  it('nobody can upload without a sign-in, or to an episode that is not there', async () => {
    const bare = await fetch(address, { method: 'POST', headers: { 'tus-resumable': '1.0.0', 'upload-length': '5' } })
    expect(bare.status).toBe(401)
    await expect(send('01a20b82-0000-7000-8000-000000000000', 'a.mp3', Buffer.from('abc'))).rejects.toThrow(/404/)
  })
})

describe('a damaged MP3', () => {
  it('that is cut short is taken, and says so', async () => {
    const all = makeSound(join(folder, 'd.mp3'), 20, ['-b:a', '128k'])
    const { source: audio, findings } = (await bring('short.mp3', all.subarray(0, all.length / 2))).sound
    expect(findings).toMatchObject([{ code: 'cut-short', weight: 'worth mending' }])
    expect(audio!.durationMs).toBeLessThan(10_500)
  })

  it('with 2 MB of junk before the first frame is taken, drawn, and says so', async () => {
    const sound = makeSound(join(folder, 'e.mp3'), 5, ['-b:a', '64k'])
    const { source: audio, findings } = (await bring('junk.mp3', Buffer.concat([Buffer.alloc(2_000_000, 'junk \xff\xfb '), sound]))).sound
    expect(findings).toMatchObject([{ code: 'junk-before' }])
    expect(Math.round(audio!.durationMs / 1000)).toBe(5)
  })
})
