import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseBuffer } from 'music-metadata'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { Sound } from '@contract/sound'
import { findingWords } from '@core/audio/findingWords'
import { Mp3Scanner } from '@core/audio/mp3Scan'
import { firstRecipe, type Recipe } from '@core/audio/recipe'
import { makeSound } from '@core/audio/sound.fixture'
import { type House, morning, openHouse, sounds, type WholeEpisode } from '../../testing/house'

let house: House
let showId: string
let folder: string
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
  folder = await mkdtemp(join(tmpdir(), 'lake-letter-finishing-'))
})
afterAll(async () => {
  await house.close()
  await rm(folder, { recursive: true })
})

const get = (id: string): Promise<WholeEpisode> => house.get(id)

/** The first seconds of one of the demo's files, frames as they are. */
function start(name: string, seconds = 25): string {
  const path = join(folder, `${seconds}-${name}`)
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', join(sounds, name), '-t', String(seconds), '-c', 'copy', path])
  return path
}

async function bring(path: string, title = 'A drawer full of reeds'): Promise<WholeEpisode> {
  const { id } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json() as Episode
  await house.bring(id, path)
  await house.workOnSound()
  const { version } = await get(id)
  await house.call('PATCH', `/episodes/${id}`, { version, text: { title } })
  return get(id)
}

async function finish(episode: Pick<Episode, 'id'>, recipe: Partial<Recipe> = {}): Promise<WholeEpisode> {
  const {
    sound: { version },
  } = await get(episode.id)
  const begun = await house.call('POST', `/episodes/${episode.id}/finish`, {
    version,
    recipe: { ...firstRecipe, ...recipe },
  })
  expect(begun.statusCode, begun.body).toBe(200)
  await house.workOnSound()
  return get(episode.id)
}

async function delivered(address: string): Promise<Buffer> {
  const answer = await house.app.inject({ url: new URL(address).pathname })
  expect(answer.statusCode).toBe(200)
  return answer.rawPayload
}

const framesOf = (bytes: Buffer): Buffer => {
  const scanner = new Mp3Scanner()
  scanner.push(bytes)
  const { soundFromBytes, soundToBytes } = scanner.finish()!
  return bytes.subarray(soundFromBytes, soundToBytes)
}

describe('a file that was brought', () => {
  it('is measured, and what that means is said in words', async () => {
    const { sound } = await bring(join(sounds, 'br-31.mp3'))
    expect(sound.source!.measurement!.integratedLufs).toBeLessThan(-10)
    expect(sound.work).toBeNull()
    expect(sound.findings).not.toEqual([])
    for (const found of sound.findings) expect(findingWords(found).rule).toMatch(/practice|EBU|BS\.1770|ISO/)
  })

  it('says while it waits that it will be measured', async () => {
    const { id } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json() as Episode
    await house.bring(id, join(sounds, 'sf-5.mp3'))
    expect((await get(id)).sound.work).toMatchObject({ kind: 'measuring', progress: 0 })
    await house.workOnSound()
    expect((await get(id)).sound.work).toBeNull()
  })
})

describe('formats', () => {
  it.each([
    [
      'a WAV in RF64, 96 kHz',
      'rf64.wav',
      ['-ac', '2', '-rf64', 'always', '-ar', '96000'],
      { type: 'audio/wav', sampleRateHz: 96_000, channels: 2 },
    ],
    ['a FLAC of 8 kHz', 'eight.flac', ['-ar', '8000'], { type: 'audio/flac', sampleRateHz: 8000, channels: 1 }],
    [
      'an MP3 of 8 kHz',
      'eight.mp3',
      ['-ar', '8000', '-b:a', '16k'],
      { type: 'audio/mpeg', sampleRateHz: 8000, channels: 1 },
    ],
    [
      'an M4A of 96 kHz',
      'high.m4a',
      ['-ac', '2', '-ar', '96000', '-c:a', 'aac'],
      { type: 'audio/mp4', sampleRateHz: 96_000, channels: 2 },
    ],
  ])('%s is told by content and measured', async (_kind, name, coding, facts) => {
    const path = join(folder, name)
    makeSound(path, 5, coding)
    const { source } = (await bring(path)).sound
    expect(source).toMatchObject(facts)
    // Coders add a few frames of their own, which are long at 8 kHz.
    expect(Math.abs(source!.durationMs - 5000)).toBeLessThanOrEqual(250)
    // ffmpeg's sine is 1/8 of full scale, −18 dBFS; made stereo, each channel gets 3 dB less.
    expect(Math.abs(source!.measurement!.samplePeakDbfs! + (facts.channels === 2 ? 21.07 : 18.06))).toBeLessThan(0.7)
  })
})

describe('finishing', () => {
  it.each([
    ['br-34.mp3', 'speech'],
    ['sf-4.m4a', 'm4a'],
    ['sf-5.mp3', 'speech and music'],
  ] as const)('brings %s as %s to within 0.3 LU of the target and under the ceiling', async (name, encoding) => {
    const { sound } = await finish(await bring(start(name)), { encoding })
    expect(sound.finishing).toBe('done')
    const { integratedLufs, truePeakDbtp, channels } = sound.finished!.measurement!
    expect(Math.abs(integratedLufs! - (channels === 1 ? -19 : -16))).toBeLessThanOrEqual(0.3)
    expect(truePeakDbtp).toBeLessThanOrEqual(-1)
    expect(sound.finished!.type).toBe(encoding === 'm4a' ? 'audio/mp4' : 'audio/mpeg')
  })

  it('levels, trims and fades as the recipe says, and never touches the source', async () => {
    const episode = await bring(start('br-32.mp3'))
    const source = episode.sound.source!
    const { sound } = await finish(episode, {
      levelling: 0.8,
      fromMs: 2000,
      toMs: 20_000,
      fadeInMs: 200,
      fadeOutMs: 1500,
    })
    expect(Math.abs(sound.finished!.durationMs - 18_000)).toBeLessThan(80)
    expect(Math.max(...sound.report!.reductionsDb)).toBeGreaterThan(3)
    expect(sound.finished!.measurement!.rangeLu).toBeLessThan(source.measurement!.rangeLu)
    expect(sound.source!.fingerprint).toBe(source.fingerprint)
  })

  // Tags read back by music-metadata, chapters by ffprobe; of the MP3 neither wrote them.
  it.each([
    ['speech and music', 'br-33.mp3'],
    ['m4a', 'sf-4.m4a'],
  ] as const)('writes the tags that players read: %s', async (encoding, name) => {
    const episode = await bring(start(name), 'Wax – “ßø”, 文 and 🪗')
    await house.call('PATCH', `/episodes/${episode.id}`, {
      version: episode.version,
      text: {
        number: 33,
        notes: '<p>Four parts wax; one part = rosin.</p><p>0:00 The pan</p><p>0:20 The flame #2</p>',
      },
    })
    const { sound, id } = await finish(episode, { encoding })
    const released = await house.release(id)
    const bytes = await delivered(released.enclosureAddress!)
    const { common } = await parseBuffer(bytes, sound.finished!.type)
    expect(common).toMatchObject({
      title: 'Wax – “ßø”, 文 and 🪗',
      artist: 'Tove Aldermoor',
      album: 'Bellows & Reeds',
      genre: ['Podcast'],
      year: 2026,
    })
    expect(common.track.no).toBe(33)
    expect(common.comment?.[0]?.text).toContain('Four parts wax; one part = rosin.')
    expect(common.picture?.[0]?.format).toBe('image/jpeg')
    const path = join(folder, `chapters-${encoding.length}`)
    await writeFile(path, bytes)
    const { chapters } = JSON.parse(
      execFileSync('ffprobe', ['-v', 'error', '-show_chapters', '-of', 'json', path], { encoding: 'utf8' }),
    )
    expect(
      chapters.map((chapter: { start_time: string; tags: { title: string } }) => [
        chapter.tags.title,
        Number(chapter.start_time),
      ]),
    ).toEqual([
      ['The pan', 0],
      ['The flame #2', 20],
    ])
  })

  it('as it came changes the tags and not one byte of the frames', async () => {
    const path = start('br-35.mp3')
    const episode = await bring(path, 'Newly told')
    const { id, sound } = await finish(episode, { encoding: 'as it came' })
    expect(sound.finished!.tags.title).toBe('Newly told')
    const { enclosureAddress } = await house.release(id)
    expect(framesOf(await delivered(enclosureAddress!)).equals(framesOf(readFileSync(path)))).toBe(true)
  })

  it('again, with other words only, writes new tags around the same sound', async () => {
    const first = await finish(await bring(start('br-36.mp3'), 'First title'))
    await house.call('PATCH', `/episodes/${first.id}`, { version: first.version, text: { title: 'Second title' } })
    expect((await get(first.id)).sound.tagsAreOld).toBe(true)
    const second = await finish(first)
    expect(second.sound.tagsAreOld).toBe(false)
    expect(second.sound.finished!.tags.title).toBe('Second title')
    expect(second.sound.finished!.fingerprint).not.toBe(first.sound.finished!.fingerprint)
    expect(second.sound.finished!.measurement).toEqual(first.sound.finished!.measurement)
  })

  it.each([
    ['wav', []],
    ['flac', []],
    ['ogg', ['-c:a', 'libvorbis']],
    ['ogg', ['-c:a', 'libopus', '-ar', '48000']],
  ])('makes a %s deliverable, which it is not as it came', async (ending, coding) => {
    const path = join(folder, `take${coding.length}.${ending}`)
    makeSound(path, 12, ['-ac', '2', ...coding])
    const episode = await bring(path)
    expect(Math.abs(episode.sound.source!.durationMs - 12_000)).toBeLessThanOrEqual(20)
    expect(episode.sound.findings[0]).toMatchObject({ code: 'not-deliverable', severity: 'error', fix: 'finish' })
    await expect(house.release(episode.id)).rejects.toThrow('422')
    const asItCame = await house.call('POST', `/episodes/${episode.id}/finish`, {
      version: episode.sound.version,
      recipe: { ...firstRecipe, encoding: 'as it came' },
    })
    expect(asItCame.json()).toMatchObject({
      code: 'bad-input',
      faults: [{ field: 'recipe.encoding', value: 'as it came' }],
    })
    await finish(episode)
    await house.release(episode.id)
  })

  it('is refused for an end before its beginning, and out of range, with field, value and rule', async () => {
    const {
      id,
      sound: { version },
    } = await bring(join(sounds, 'sf-5.mp3'))
    for (const [recipe, field] of [
      [{ fromMs: 5000, toMs: 5100 }, 'recipe.toMs'],
      [{ levelling: 2 }, 'recipe.levelling'],
      [{ targetLufs: 0 }, 'recipe.targetLufs'],
    ] as const) {
      const answer = await house.call('POST', `/episodes/${id}/finish`, {
        version,
        recipe: { ...firstRecipe, ...recipe },
      })
      expect(answer.statusCode).toBe(422)
      expect(answer.json().faults[0]).toMatchObject({ field, rule: expect.stringMatching(/\w/) })
    }
  })

  it('can be cancelled, and then nothing is finished', async () => {
    const {
      id,
      sound: { version },
    } = await bring(start('br-37.mp3'))
    const begun = (await house.call('POST', `/episodes/${id}/finish`, { version, recipe: firstRecipe })).json() as Sound
    expect(begun).toMatchObject({ version: version + 1, finishing: 'working', work: { kind: 'finishing' } })
    const answer = await house.call('POST', `/episodes/${id}/cancel-finish`, { version: begun.version })
    expect(answer.json()).toMatchObject({ finishing: 'none', recipe: firstRecipe, work: null })
    await house.workOnSound()
    expect((await get(id)).sound).toMatchObject({ finishing: 'none', finished: null })
  })
})

describe('a release', () => {
  it('goes out only when it is finished; a schedule that came first waits', async () => {
    const { id, version, sound } = await bring(start('br-37.mp3'))
    await house.call('POST', `/episodes/${id}/finish`, { version: sound.version, recipe: firstRecipe })
    const now = await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
    expect(now.json()).toMatchObject({
      code: 'not-ready',
      faults: [{ field: 'audio', rule: 'The audio is still being finished.' }],
    })
    const { dueReleases } = await import('../../release/releases/due')
    const releases = dueReleases(house.platform)
    await house.call('POST', `/episodes/${id}/release`, {
      version,
      when: { kind: 'at', local: '2026-03-10T07:00', zone: 'Europe/Zurich' },
    })
    house.clock.moveBy(2 * 3600_000)
    expect(await releases.releaseDue()).toBe(0)
    expect(await get(id)).toMatchObject({ status: 'scheduled', hindrances: ['being finished'] })
    await house.workOnSound()
    expect(await releases.releaseDue()).toBe(1)
    expect(await get(id)).toMatchObject({ status: 'released', releaseAt: '2026-03-10T06:00:00.000Z' })
  })

  it('keeps GUID and date when its audio is replaced; the old address answers for thirty days more', async () => {
    const { id } = await bring(join(sounds, 'br-36.mp3'))
    const before = await house.release(id)
    await house.bring(id, join(sounds, 'br-37.mp3'))
    const replaced = await get(id)
    expect(replaced.changedSinceRelease).toBe(true)
    const after = (
      await house.call('POST', `/episodes/${id}/send-changes`, { version: replaced.version })
    ).json() as Episode
    expect([after.guid, after.releaseAt]).toEqual([before.guid, before.releaseAt])
    expect(after.enclosureAddress).not.toBe(before.enclosureAddress)
    expect((await delivered(after.enclosureAddress!)).equals(readFileSync(join(sounds, 'br-37.mp3')))).toBe(true)
    expect((await delivered(before.enclosureAddress!)).equals(readFileSync(join(sounds, 'br-36.mp3')))).toBe(true)
    const feed = (await house.app.inject({ url: '/bellows-and-reeds/feed.xml' })).body
    expect(feed).toContain(`url="${after.enclosureAddress}" length="${readFileSync(join(sounds, 'br-37.mp3')).length}"`)
    expect(feed).not.toContain(before.enclosureAddress)
    house.clock.moveBy(30 * 24 * 3600_000 + 1000)
    expect((await house.app.inject({ url: new URL(before.enclosureAddress!).pathname })).statusCode).toBe(404)
    expect((await house.app.inject({ url: new URL(after.enclosureAddress!).pathname })).statusCode).toBe(200)
    house.clock.moveTo(morning)
  })
})

describe('sound that is none or too much', () => {
  it('all silence is measured, said, and finished without harm', async () => {
    const path = join(folder, 'silence.wav')
    await writeFile(path, wav(new Int16Array(44_100 * 6)))
    const episode = await bring(path)
    expect(episode.sound.findings.map(({ code }) => code)).toContain('silent')
    expect((await finish(episode)).sound).toMatchObject({
      finishing: 'done',
      finished: { measurement: { integratedLufs: null } },
    })
  })

  it('all full scale is brought down to the target', async () => {
    const path = join(folder, 'full.wav')
    await writeFile(path, wav(Int16Array.from({ length: 44_100 * 6 }, (_, i) => ((i >> 5) % 2 ? 32_767 : -32_768))))
    const episode = await bring(path)
    expect(episode.sound.findings.map(({ code }) => code)).toEqual(expect.arrayContaining(['clipped', 'louder']))
    const { sound } = await finish(episode)
    expect(Math.abs(sound.finished!.measurement!.integratedLufs! + 16)).toBeLessThanOrEqual(0.3)
    expect(sound.findings.map(({ code }) => code)).toEqual(['dual-mono', 'clipped'])
  })

  it('half a second is finished too', async () => {
    const path = join(folder, 'half.wav')
    makeSound(path, 0.5, [])
    const { sound } = await finish(await bring(path))
    expect(sound.finishing).toBe('done')
    expect(Math.abs(sound.finished!.durationMs - 500)).toBeLessThan(80)
  })

  it('5.1 channels are mixed to two', async () => {
    const path = join(folder, 'six.wav')
    makeSound(path, 5, ['-ac', '6'])
    const episode = await bring(path)
    expect(episode.sound.findings.map(({ code }) => code)).toContain('many-channels')
    expect((await finish(episode)).sound.finished).toMatchObject({ channels: 2 })
  })
})

/** A mono WAV of 44.1 kHz and 16 bit. */
function wav(samples: Int16Array): Buffer {
  const header = Buffer.alloc(44)
  header.write('RIFF', 0)
  header.writeUInt32LE(36 + samples.byteLength, 4)
  header.write('WAVEfmt ', 8)
  header.writeUInt32LE(16, 16)
  header.writeUInt16LE(1, 20)
  header.writeUInt16LE(1, 22)
  header.writeUInt32LE(44_100, 24)
  header.writeUInt32LE(88_200, 28)
  header.writeUInt16LE(2, 32)
  header.writeUInt16LE(16, 34)
  header.write('data', 36)
  header.writeUInt32LE(samples.byteLength, 40)
  return Buffer.concat([header, Buffer.from(samples.buffer)])
}
