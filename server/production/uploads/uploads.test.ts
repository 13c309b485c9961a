import { execFileSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { readdir, utimes } from 'node:fs/promises'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import NodeID3 from 'node-id3'
import { QueryTypes } from 'sequelize'
import { Upload as TusUpload } from 'tus-js-client'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { Shelf } from '@contract/shelf'
import { makeSound, probe } from '@core/audio/sound.fixture'
import type { MixDocument } from '@core/mix/document'
import { emptyMix } from '@core/mix/edits'
import { Job } from '../../platform/jobs/models'
import { type House, openHouse, sounds, type WholeEpisode } from '../../testing/house'
import { Upload } from '../../media/files/upload'
import { Episode as EpisodeRow } from '../../show/episodes/models'
import { uploadService } from './service'

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
const get = (id: string): Promise<WholeEpisode> => house.get(id)

function send(
  episodeId: string,
  name: string,
  bytes: Buffer,
  more: { role?: string; position?: string } = {},
): Promise<void> {
  return new Promise((resolve, reject) =>
    new TusUpload(bytes, {
      endpoint: address,
      retryDelays: null,
      headers: { cookie: house.cookie },
      metadata: { episodeId, filename: name, ...more },
      onError: reject,
      onSuccess: () => resolve(),
    }).start(),
  )
}

/** Uploads a file as a new episode's audio and reads it; answers the episode after that. */
async function bring(name: string, bytes: Buffer): Promise<WholeEpisode> {
  const { id } = await create()
  await send(id, name, bytes)
  while (await house.platform.jobs.runNext('reading'));
  return get(id)
}

describe('an uploaded file', () => {
  it('becomes the audio, with what ffprobe finds too, and its tags fill in title and number', async () => {
    const path = join(sounds, 'sf-4.m4a')
    const episode = await bring('whatever.bin', readFileSync(path))
    expect(episode.sound.source).toMatchObject({
      type: 'audio/mp4',
      codec: 'aac',
      sampleRateHz: 44_100,
      channels: 1,
      bytes: readFileSync(path).length,
    })
    expect(Math.abs(episode.sound.source!.durationMs - probe(path).durationMs)).toBeLessThan(2)
    expect(episode.text).toMatchObject({ title: 'The morning boat', number: 4 })
    expect(episode.sound.source!.pictureAddress).toMatch(/^\/api\/v1\/pictures\/[0-9a-f]{64}\.jpg$/)
    expect(episode.upload).toBeNull()
  })

  it('does not overwrite what was written meanwhile', async () => {
    const { id } = await create()
    await send(id, '12_the-wet-reed.mp3', makeSound(join(folder, 'a.mp3'), 2, []))
    await house.call('PATCH', `/episodes/${id}`, { version: 1, text: { title: 'My own title' } })
    while (await house.platform.jobs.runNext('reading'));
    expect((await get(id)).text).toMatchObject({ title: 'My own title', number: 12 })
  })

  it('goes on where it stopped when the line is cut in mid-upload', async () => {
    const { id } = await create()
    const sound = makeSound(join(folder, 'cut.mp3'), 60, ['-b:a', '320k'])
    const metadata = Object.entries({ episodeId: id, filename: 'cut.mp3' })
      .map(([key, value]) => `${key} ${Buffer.from(value).toString('base64')}`)
      .join(',')
    const common = { cookie: house.cookie, 'tus-resumable': '1.0.0' }
    const created = await fetch(address, {
      method: 'POST',
      headers: { ...common, 'upload-length': String(sound.length), 'upload-metadata': metadata },
    })
    const url = new URL(created.headers.get('location')!, address).href
    const half = new ReadableStream({
      start(controller) {
        controller.enqueue(sound.subarray(0, 1_000_000))
      },
      pull: () => new Promise(() => undefined),
    })
    const cut = new AbortController()
    const sending = fetch(url, {
      method: 'PATCH',
      headers: { ...common, 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' },
      body: half,
      duplex: 'half',
      signal: cut.signal,
    } as RequestInit)
    setTimeout(() => cut.abort(), 500)
    await sending.catch(() => undefined)
    const head = await fetch(url, { method: 'HEAD', headers: common })
    const offset = Number(head.headers.get('upload-offset'))
    expect(offset).toBeGreaterThan(0)
    expect(offset).toBeLessThan(sound.length)
    const rest = await fetch(url, {
      method: 'PATCH',
      headers: { ...common, 'upload-offset': String(offset), 'content-type': 'application/offset+octet-stream' },
      body: new Uint8Array(sound.subarray(offset)),
    })
    expect(rest.status).toBe(204)
    while (await house.platform.jobs.runNext('reading'));
    const { source: audio } = (await get(id)).sound
    expect(audio!.bytes).toBe(sound.length)
    expect(audio!.fingerprint).toBe((await bring('again.mp3', sound)).sound.source!.fingerprint)
  })

  it('that came before is kept once, and says where else it is used', async () => {
    const sound = makeSound(join(folder, 'twice.mp3'), 3, ['-metadata', 'title=Twice'])
    const [one, two] = [await bring('one.mp3', sound), await bring('two.mp3', sound)]
    expect(two.sound.source!.id).toBe(one.sound.source!.id)
    expect(two.sound.alsoIn).toEqual([{ id: one.id, title: 'Twice', number: one.text.number }])
  })

  it('leaves nothing in the inbox', async () => {
    await bring('clean.mp3', makeSound(join(folder, 'clean.mp3'), 1, []))
    expect(await readdir(house.inbox)).toEqual([])
  })
})

describe('a file that cannot be an episode’s audio', () => {
  it.each([
    [
      'a text file named .mp3',
      'letter.mp3',
      () => Buffer.from('Dear listeners,\n'.repeat(500)),
      'This is a text file, not sound',
    ],
    [
      'noise named .mp3',
      'noise.mp3',
      () => Buffer.concat([Buffer.from([0, 1, 2]), randomBytes(50_000).map(byte => (byte === 255 ? 0 : byte))]),
      'This is not a sound file we know',
    ],
    [
      'a film',
      'film.mp3',
      () => {
        const path = join(folder, 'film.mp4')
        execFileSync('ffmpeg', [
          '-v',
          'error',
          '-y',
          '-f',
          'lavfi',
          '-i',
          'testsrc=d=1:s=64x64',
          '-pix_fmt',
          'yuv420p',
          path,
        ])
        return readFileSync(path)
      },
      'This is a film',
    ],
    [
      'an M4A without its second half',
      'half.m4a',
      () => {
        const all = makeSound(join(folder, 'c.m4a'), 20, ['-c:a', 'aac'])
        return all.subarray(0, all.length / 2)
      },
      'There is no sound in this file',
    ],
  ])('%s is refused in words', async (_kind, name, make, title) => {
    const episode = await bring(name, make())
    expect(episode.sound.source).toBeNull()
    expect(episode.upload).toMatchObject({
      state: 'refused',
      fileName: name,
      refusal: { title, todo: expect.stringMatching(/\w/) },
    })
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
    expect(findings).toMatchObject([{ code: 'cut-short', severity: 'warning' }])
    expect(audio!.durationMs).toBeLessThan(10_500)
  })

  it('with 2 MB of junk before the first frame is taken, drawn, and says so', async () => {
    const sound = makeSound(join(folder, 'e.mp3'), 5, ['-b:a', '64k'])
    const { source: audio, findings } = (
      await bring('junk.mp3', Buffer.concat([Buffer.alloc(2_000_000, 'junk \xff\xfb '), sound]))
    ).sound
    expect(findings).toMatchObject([{ code: 'junk-before' }])
    expect(Math.round(audio!.durationMs / 1000)).toBe(5)
  })
})

const common = (): Record<string, string> => ({ cookie: house.cookie, 'tus-resumable': '1.0.0' })
const metadataOf = (episodeId: string, filename: string): string =>
  Object.entries({ episodeId, filename })
    .map(([key, value]) => `${key} ${Buffer.from(value).toString('base64')}`)
    .join(',')
const offset = { 'content-type': 'application/offset+octet-stream' }

/** Begins an upload and sends its first bytes; answers where it is. */
async function beginUpload(episodeId: string, sound: Buffer, bytes: number): Promise<{ url: string; id: string }> {
  const created = await fetch(address, {
    method: 'POST',
    headers: {
      ...common(),
      'upload-length': String(sound.length),
      'upload-metadata': metadataOf(episodeId, 'boat.mp3'),
    },
  })
  const url = new URL(created.headers.get('location')!, address).href
  if (bytes > 0)
    await fetch(url, {
      method: 'PATCH',
      headers: { ...common(), ...offset, 'upload-offset': '0' },
      body: new Uint8Array(sound.subarray(0, bytes)),
    })
  return { url, id: url.split('/').at(-1)! }
}

describe('an upload that a crash left behind', () => {
  const uploads = () => uploadService(house.platform)

  it('with all its bytes here is read, though nobody said that they were', async () => {
    const sound = makeSound(join(folder, 'left.mp3'), 3, [])
    const { id: episodeId } = await create()
    const { id } = await beginUpload(episodeId, sound, 0)
    // What the last piece would have written before the process was killed.
    writeFileSync(join(house.inbox, id), sound)
    await uploads().lookAfter()
    while (await house.platform.jobs.runNext('reading'));
    expect((await get(episodeId)).sound.source).toMatchObject({ bytes: sound.length })
  })

  it('whose job is gone is read by another one', async () => {
    const sound = makeSound(join(folder, 'jobless.mp3'), 3, [])
    const { id: episodeId } = await create()
    await beginUpload(episodeId, sound, sound.length)
    await Job.destroy({ where: { kind: 'read-upload' } })
    await uploads().lookAfter()
    await uploads().lookAfter()
    expect(await Job.count({ where: { kind: 'read-upload', state: 'open' } })).toBe(1)
    while (await house.platform.jobs.runNext('reading'));
    expect((await get(episodeId)).sound.source).toMatchObject({ bytes: sound.length })
  })

  it('whose bytes are gone says so, and “Reading” does not stand for ever', async () => {
    const sound = makeSound(join(folder, 'bytesless.mp3'), 3, [])
    const { id: episodeId } = await create()
    const { id } = await beginUpload(episodeId, sound, sound.length)
    rmSync(join(house.inbox, id))
    while (await house.platform.jobs.runNext('reading'));
    expect((await get(episodeId)).upload).toMatchObject({
      state: 'refused',
      refusal: { title: 'The upload is not here any more' },
    })
  })

  it('that was announced twice, because the first answer was lost, is not waited for once it is here; another that has begun is', async () => {
    const { id } = await create()
    const sound = makeSound(join(folder, 'twice.mp3'), 2, [])
    const metadata = Object.entries({ episodeId: id, filename: 'twice.mp3' })
      .map(([key, value]) => `${key} ${Buffer.from(value).toString('base64')}`)
      .join(',')
    const headers = { cookie: house.cookie, 'tus-resumable': '1.0.0' }
    const announce = async (): Promise<string> => {
      const answer = await fetch(address, {
        method: 'POST',
        headers: { ...headers, 'upload-length': String(sound.length), 'upload-metadata': metadata },
      })
      return new URL(answer.headers.get('location')!, address).href
    }
    await announce()
    const begun = await announce()
    await fetch(begun, {
      method: 'PATCH',
      headers: { ...headers, 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' },
      body: new Uint8Array(sound.subarray(0, 1000)),
    })
    await send(id, 'twice.mp3', sound)
    while (await house.platform.jobs.runNext('reading'));
    const left = await Upload.findAll({ where: { episodeId: id, state: 'receiving' } })
    expect(left.map(upload => begun.endsWith(upload.id.replaceAll('-', '')))).toEqual([true])
  })

  it('that nobody went on with ends after a week, with its bytes', async () => {
    const sound = makeSound(join(folder, 'abandoned.mp3'), 20, [])
    const { id: episodeId } = await create()
    const { id } = await beginUpload(episodeId, sound, 50_000)
    await uploads().lookAfter()
    expect((await get(episodeId)).upload).toMatchObject({ state: 'receiving' })
    const weekMs = 8 * 24 * 3600_000
    const touched = new Date(Date.now() - weekMs)
    utimesSync(join(house.inbox, id), touched, touched)
    await Upload.update({ createdAt: new Date(+house.clock.now() - weekMs) }, { where: { id } })
    await uploads().lookAfter()
    expect((await get(episodeId)).upload).toBeNull()
    expect((await readdir(house.inbox)).filter(name => name.startsWith(id))).toEqual([])
  })
})

it('what a killed process left in the inbox is cleared away after a week, and nothing that somebody waits for, wherever the house’s clock stands', async () => {
  // A disk has the machine’s time, which is another than the world’s where the tests are given a moment.
  const now = new Date()
  const weekAgo = new Date(+now - 8 * 24 * 3600_000)
  const left = join(house.inbox, '01a20b82-0000-7000-8000-0000000000aa')
  const fresh = join(house.inbox, '01a20b82-0000-7000-8000-0000000000bb')
  for (const path of [left, fresh]) writeFileSync(path, 'half a picture')
  utimesSync(fresh, now, now)
  utimesSync(left, weekAgo, weekAgo)
  const { clock } = house
  const before = clock.now()
  clock.moveTo(new Date(Date.now() + 32 * 24 * 3600_000))
  await uploadService(house.platform).lookAfter()
  clock.moveTo(before)
  const names = await readdir(house.inbox)
  expect([
    names.includes('01a20b82-0000-7000-8000-0000000000aa'),
    names.includes('01a20b82-0000-7000-8000-0000000000bb'),
  ]).toEqual([false, true])
  rmSync(fresh)
})

describe('taking an upload back', () => {
  it('is refused once its last byte is here: it is being read', async () => {
    const sound = makeSound(join(folder, 'back.mp3'), 3, [])
    const { id: episodeId } = await create()
    const { url } = await beginUpload(episodeId, sound, sound.length)
    expect((await fetch(url, { method: 'DELETE', headers: common() })).status).toBe(400)
    while (await house.platform.jobs.runNext('reading'));
    expect((await get(episodeId)).sound.source).toMatchObject({ bytes: sound.length })
  })
  it('before that takes its bytes and its line away', async () => {
    const sound = makeSound(join(folder, 'back2.mp3'), 20, [])
    const { id: episodeId } = await create()
    const { url, id } = await beginUpload(episodeId, sound, 50_000)
    expect((await fetch(url, { method: 'DELETE', headers: common() })).status).toBe(204)
    await expect.poll(async () => (await get(episodeId)).upload).toBeNull()
    expect((await readdir(house.inbox)).filter(name => name.startsWith(id))).toEqual([])
  })
})

describe('an upload’s beginning', () => {
  it('without a size is refused in the form of a problem, without a word of the database', async () => {
    const { id } = await create()
    const answer = await fetch(address, {
      method: 'POST',
      headers: { ...common(), 'upload-defer-length': '1', 'upload-metadata': metadataOf(id, 'a.mp3') },
    })
    const body = await answer.text()
    expect(answer.status).toBeLessThan(500)
    expect(body).not.toMatch(/SELECT|INSERT|Unknown column|NaN/)
  })

  it('over the room that is left is refused with words, and leaves no line behind', async () => {
    const { media } = house.platform
    const roomLeft = Object.getOwnPropertyDescriptor(media, 'roomLeft')!
    const [one, two, three] = [await create(), await create(), await create()]
    const sound = Buffer.alloc(3_000_000)
    Object.defineProperty(media, 'roomLeft', { value: async () => 55_000_000, configurable: true })
    try {
      // Five million are free for uploads: the first has its three, so there are two for the second.
      expect(
        (
          await fetch(address, {
            method: 'POST',
            headers: {
              ...common(),
              'upload-length': String(sound.length),
              'upload-metadata': metadataOf(one.id, 'one.mp3'),
            },
          })
        ).status,
      ).toBe(201)
      const second = await fetch(address, {
        method: 'POST',
        headers: {
          ...common(),
          'upload-length': String(sound.length),
          'upload-metadata': metadataOf(two.id, 'two.mp3'),
        },
      })
      expect(second.status).toBe(507)
      expect(await second.json()).toMatchObject({
        code: 'no-room',
        detail: expect.stringMatching(/two\.mp3 has 3\.0 MB; there is room for 5\.0 MB, of which 3\.0 MB/),
      })
      expect((await get(two.id)).upload).toBeNull()
      expect(
        (
          await fetch(address, {
            method: 'POST',
            headers: { ...common(), 'upload-length': '1500000', 'upload-metadata': metadataOf(three.id, 'three.mp3') },
          })
        ).status,
      ).toBe(201)
    } finally {
      Object.defineProperty(media, 'roomLeft', roomLeft)
      await Upload.destroy({ where: { episodeId: [one.id, two.id, three.id] } })
    }
  })

  it('announced by one account in great number leave room for others, and after some minutes without a byte all of it', async () => {
    const { media } = house.platform
    const roomLeft = Object.getOwnPropertyDescriptor(media, 'roomLeft')!
    const { id } = await create()
    Object.defineProperty(media, 'roomLeft', { value: async () => 56_000_000, configurable: true })
    const announce = async (bytes: number): Promise<number> =>
      (
        await fetch(address, {
          method: 'POST',
          headers: { ...common(), 'upload-length': String(bytes), 'upload-metadata': metadataOf(id, 'mine.mp3') },
        })
      ).status
    try {
      await Upload.bulkCreate(
        Array.from({ length: 37 }, (_, at) => ({
          id: `${at}`.padStart(32, 'f'),
          episodeId: id,
          accountId: '0192f0c1-0000-7000-8000-000000000000',
          fileName: 'theirs.mp3',
          bytes: 50_000_000,
          createdAt: house.clock.now(),
        })),
      )
      // Six million are free for uploads, of which three are kept for theirs.
      expect([await announce(3_100_000), await announce(2_900_000)]).toEqual([507, 201])
      house.clock.moveBy(11 * 60_000)
      for (const name of await readdir(house.inbox)) await utimes(join(house.inbox, name), 0, 0)
      expect(await announce(4_900_000)).toBe(201)
    } finally {
      Object.defineProperty(media, 'roomLeft', roomLeft)
      await Upload.destroy({ where: { episodeId: id } })
    }
  })

  it('for a hundred and fifty at once leaves the database’s connections to everybody else', async () => {
    const { id } = await create()
    const sound = makeSound(join(folder, 'many.mp3'), 30, [])
    const connections = async (): Promise<number> =>
      Number(
        (
          await house.platform.database.query<{ Value: string }>("SHOW STATUS LIKE 'Threads_connected'", {
            type: QueryTypes.SELECT,
          })
        )[0]!.Value,
      )
    const before = await connections()
    const begun = await Promise.all(Array.from({ length: 30 }, () => beginUpload(id, sound, 0)))
    const sending = Promise.all(
      begun.flatMap(({ url }) =>
        Array.from({ length: 5 }, () =>
          fetch(url, {
            method: 'PATCH',
            headers: { ...common(), ...offset, 'upload-offset': '0' },
            body: new Uint8Array(sound.subarray(0, 1000)),
          }).then(
            ({ status }) => status,
            () => 0,
          ),
        ),
      ),
    )
    let most = 0
    const watch = setInterval(
      () =>
        void connections().then(
          count => {
            most = Math.max(most, count)
          },
          () => undefined,
        ),
      50,
    )
    expect((await house.call('GET', `/episodes/${id}`)).statusCode).toBe(200)
    const statuses = await sending
    clearInterval(watch)
    expect(most - before).toBeLessThan(15)
    expect(statuses.filter(status => status >= 500)).toEqual([])
    await Promise.all(begun.map(({ url }) => fetch(url, { method: 'DELETE', headers: common() })))
  })
})

describe('what a file says of itself', () => {
  it('is left out where nothing could hold it: a track of 20261125, half a letter at the end of a long title', async () => {
    const title = `${'x'.repeat(299)}🪗 and more`
    const tag = NodeID3.create({ title, trackNumber: '20261125' })
    const episode = await bring(
      'odd-tags.mp3',
      Buffer.concat([tag, makeSound(join(folder, 'odd.mp3'), 2, ['-id3v2_version', '0'])]),
    )
    expect(episode.text.title).toBe('x'.repeat(299))
    expect(episode.text.number).toBeLessThan(1000)
    expect(episode.sound.source!.tags).toMatchObject({ title: 'x'.repeat(299), track: null })
  })
  it('with a track of 99999999999 does not stop the reading', async () => {
    const tag = NodeID3.create({ title: 'Many', trackNumber: '99999999999' })
    expect(
      (
        await bring(
          'huge-track.mp3',
          Buffer.concat([tag, makeSound(join(folder, 'huge.mp3'), 2, ['-id3v2_version', '0'])]),
        )
      ).sound.source,
    ).toMatchObject({ tags: { track: null } })
  })
  it('a WAV with no channels is refused, once and for all', async () => {
    const wav = Buffer.from(makeSound(join(folder, 'none.wav'), 1, []))
    wav.writeUInt16LE(0, 22)
    expect((await bring('none.wav', wav)).upload).toMatchObject({ state: 'refused' })
  })
  it('with tags longer than the file is refused as cut short, not as empty', async () => {
    const tag = Buffer.from([0x49, 0x44, 0x33, 3, 0, 0, 0x7f, 0x7f, 0x7f, 0x7f, 1, 2, 3])
    expect((await bring('tag-only.mp3', tag)).upload).toMatchObject({
      refusal: { title: 'The file breaks off within its tags' },
    })
  })
  it('its name from another system is one line without controls', async () => {
    const { id } = await create()
    await send(id, 'odd\u0000na\nme.txt', Buffer.from('no sound at all, only words '.repeat(50)))
    while (await house.platform.jobs.runNext('reading'));
    expect((await get(id)).upload).toMatchObject({ fileName: 'oddna me.txt', state: 'refused' })
  })
})

it('an upload says what it is for; what nothing is for is refused before its first byte', async () => {
  const { id } = await create()
  const announce = (role: string, position = '0') => {
    const metadata = Object.entries({ episodeId: id, filename: 'a.mp3', role, position }).map(
      ([name, value]) => `${name} ${Buffer.from(value).toString('base64')}`,
    )
    const headers = {
      cookie: house.cookie,
      'tus-resumable': '1.0.0',
      'upload-length': '100',
      'upload-metadata': metadata.join(','),
    }
    return house.app.inject({ method: 'POST', url: '/api/v1/uploads', headers })
  }
  const refused = await announce('wallpaper')
  expect([refused.statusCode, refused.json().faults]).toEqual([
    422,
    [{ field: 'role', value: 'wallpaper', rule: 'What the file is for: source, piece, bed.' }],
  ])
  const nowhere = await announce('piece', '-1')
  expect([nowhere.statusCode, nowhere.json().faults]).toEqual([
    422,
    [{ field: 'position', value: '-1', rule: 'Before which piece it goes, counted from 0.' }],
  ])
  expect((await announce('source')).statusCode).toBe(201)
})

describe('a file that is to be a part', () => {
  const write = async (id: string, mix: MixDocument | null): Promise<void> => {
    const { version } = await get(id)
    const answer = await house.call('PATCH', `/episodes/${id}`, { version, text: { mix } })
    expect(answer.statusCode, answer.body).toBe(200)
  }
  const namesIn = async (id: string): Promise<string[]> => {
    const { text, sound } = await get(id)
    return text.mix!.pieces.map(({ fileId }) => sound.parts.find(file => file.id === fileId)!.name)
  }
  const readAll = async (): Promise<void> => {
    while (await house.platform.jobs.runNext('reading'));
  }
  const voice = (hz: number): Buffer =>
    makeSound(join(folder, `${hz}.wav`), 1, [], `sine=frequency=${hz}:sample_rate=44100:duration=1`)

  it('stands in the row where it was to, is told while it comes, and fills nothing in', async () => {
    const { id } = await create()
    await write(id, emptyMix)
    await send(id, 'body.wav', voice(300), { role: 'piece' })
    const { sound, upload } = await get(id)
    expect([sound.arriving.map(({ fileName, state }) => [fileName, state]), upload]).toEqual([
      [['body.wav', 'reading']],
      null,
    ])
    await readAll()
    await send(id, 'intro.wav', voice(400), { role: 'piece', position: '0' })
    await send(id, 'far behind.wav', voice(500), { role: 'piece', position: '7' })
    await readAll()
    expect(await namesIn(id)).toEqual(['intro.wav', 'body.wav', 'far behind.wav'])
    const { text, sound: after } = await get(id)
    expect([text.title, after.source, after.arriving]).toEqual(['', null, []])
    expect(text.mix!.pieces[0]).toMatchObject({ kept: [{ fromMs: 0, toMs: 1_000 }], gainDb: 0 })
    expect(after.parts.every(({ measuring }) => measuring !== 'failed')).toBe(true)
    await send(id, 'tune.wav', voice(800), { role: 'bed' })
    await readAll()
    const { text: withTune, sound: last } = await get(id)
    expect(withTune.mix!.beds).toMatchObject([{ under: withTune.mix!.pieces[0]!.id, durationMs: 1_000 }])
    expect(last.parts.map(({ name }) => name)).toContain('tune.wav')
  })

  it('begins what nobody has begun yet, and is in no row that is of a newer house', async () => {
    const { id } = await create()
    await send(id, 'tune.wav', voice(900), { role: 'bed' })
    await readAll()
    // Under no piece there is no place for music.
    expect((await get(id)).text.mix).toBeNull()
    await send(id, 'first.wav', voice(600), { role: 'piece' })
    await readAll()
    expect(await namesIn(id)).toEqual(['first.wav'])
    const shelf = (await house.call('GET', `/shows/${showId}/files`)).json() as Shelf
    expect(shelf.files.map(({ name }) => name)).toEqual(expect.arrayContaining(['tune.wav', 'first.wav']))
    const newer = { version: 99, scenes: [] } as unknown as MixDocument
    await EpisodeRow.update({ mix: newer }, { where: { id } })
    await send(id, 'later.wav', voice(700), { role: 'piece' })
    await readAll()
    expect((await get(id)).text.mix).toEqual(newer)
  })

  it('that is no sound is told as refused, for a day, and leaves the row as it was', async () => {
    const { id } = await create()
    await write(id, emptyMix)
    await send(id, 'letter.txt', Buffer.from('Dear all,'), { role: 'piece' })
    await readAll()
    const told = async () => (await get(id)).sound.arriving.map(({ fileName, state }) => [fileName, state])
    expect(await told()).toEqual([['letter.txt', 'refused']])
    expect((await get(id)).text.mix).toEqual(emptyMix)
    house.clock.moveBy(25 * 3600_000)
    expect(await told()).toEqual([])
  })
})
