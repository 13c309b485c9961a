import { execFileSync } from 'node:child_process'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v4 as uuidV4 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { Shelf } from '@contract/shelf'
import type { Sound } from '@contract/sound'
import { firstRecipe } from '@core/audio/recipe'
import { tones } from '@core/audio/tones.fixture'
import { type MixDocument, mixVersion } from '@core/mix/document'
import { emptyMix } from '@core/mix/edits'
import { mixBy, usualTimes } from '@core/mix/usualSet'
import { AudioFile } from '../../media/files/models'
import { Episode as EpisodeRow } from '../../show/episodes/models'
import { Job } from '../../platform/jobs/models'
import { type House, openHouse, type WholeEpisode } from '../../testing/house'

const rate = 44_100
let house: House
let showId: string
let folder: string
/** Files of the shelf: a voice of 30 s at 1 kHz, and music of 8 s at 440 Hz, in two channels. */
let voice: string
let music: string
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
  folder = await mkdtemp(join(tmpdir(), 'lake-letter-mixing-'))
  voice = await onShelf('voice.wav', tones([{ seconds: 30, dbfs: -20, hz: 1_000 }], rate, 1), 1)
  music = await onShelf('music.wav', tones([{ seconds: 8, dbfs: -20, hz: 440 }], rate, 2), 2)
})
afterAll(async () => {
  await house.close()
  await rm(folder, { recursive: true })
})

const create = async (id = showId): Promise<WholeEpisode> =>
  house.get(((await house.call('POST', `/shows/${id}/episodes`, {})).json() as Episode).id)

async function onShelf(name: string, sound: Float32Array, channels: 1 | 2, id = showId): Promise<string> {
  const [raw, path] = [join(folder, `${name}.raw`), join(folder, name)]
  await writeFile(raw, Buffer.from(sound.buffer, sound.byteOffset, sound.byteLength))
  const input = ['-f', 'f32le', '-ar', String(rate), '-ac', String(channels), '-i', raw]
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...input, path])
  const episode = await create(id)
  await house.bring(episode.id, path)
  await house.workOnSound()
  return (await house.get(episode.id)).sound.source!.id
}

const opening = { fileId: '', startMs: 0, gainDb: 0, ...usualTimes.opening }
const usual = (): MixDocument =>
  mixBy(
    { opening: { ...opening, fileId: music }, closing: null },
    { fileId: voice, kept: [{ fromMs: 0, toMs: 30_000 }] },
    uuidV4,
  )

async function write(id: string, text: object): Promise<WholeEpisode> {
  const { version } = await house.get(id)
  const answer = await house.call('PATCH', `/episodes/${id}`, { version, text })
  expect(answer.statusCode, answer.body).toBe(200)
  return house.get(id)
}
async function take(id: string) {
  const { version, sound } = await house.get(id)
  return house.call('PUT', `/episodes/${id}/mix/taken`, { version, soundVersion: sound.version })
}
/** Writes a mix, takes it as the sound, and has it measured. */
async function mixed(id: string, mix: MixDocument): Promise<WholeEpisode> {
  await write(id, { mix })
  const taken = await take(id)
  expect(taken.statusCode, taken.body).toBe(200)
  await house.workOnSound()
  return house.get(id)
}

/** The level of a tone around a second of a sound, in dB of its amplitude (Goertzel’s algorithm). */
function levelAt(sound: Float32Array, second: number, hz: number): number {
  const part = sound.subarray((second - 0.1) * rate, (second + 0.1) * rate)
  let [re, im] = [0, 0]
  for (const [i, value] of part.entries()) {
    re += value * Math.cos((2 * Math.PI * hz * i) / rate)
    im += value * Math.sin((2 * Math.PI * hz * i) / rate)
  }
  return 20 * Math.log10((2 * Math.hypot(re, im)) / part.length)
}

describe('an episode that is put together', () => {
  it('is measured and finished as it is written, and its parts cannot leave the shelf', async () => {
    const { id } = await create()
    const episode = await mixed(id, usual())
    expect(episode.sound.source).toMatchObject({ origin: 'mix', durationMs: 41_000, channels: 2, measuring: 'done' })
    expect(episode.sound.source!.measurement!.durationMs).toBeCloseTo(41_000, -1)
    expect(episode.sound.source!.measurement!.samplePeakDbfs).toBeGreaterThan(-21)

    const { version } = episode.sound
    await house.call('POST', `/episodes/${id}/finish`, { version, recipe: firstRecipe })
    await house.workOnSound()
    const { sound } = await house.get(id)
    expect(sound).toMatchObject({ finishing: 'done', problem: null })
    expect(sound.finished!.measurement!.integratedLufs).toBeCloseTo(-16, 0)

    const file = await AudioFile.findByPk(sound.finished!.id, { rejectOnEmpty: true })
    const { path, release } = await house.platform.media.onDisk(file.fingerprint)
    const raw = execFileSync(
      'ffmpeg',
      ['-v', 'error', '-i', path, '-ac', '1', '-ar', String(rate), '-f', 'f32le', '-'],
      {
        maxBuffer: 1e8,
      },
    )
    await release()
    const heard = new Float32Array(raw.buffer, raw.byteOffset, raw.byteLength / 4)
    // Alone, then under the voice, which enters after 11 s, 15 dB down; behind it the voice alone.
    expect(levelAt(heard, 14, 440) - levelAt(heard, 5, 440)).toBeCloseTo(-15, 0)
    expect(levelAt(heard, 14, 1_000)).toBeGreaterThan(levelAt(heard, 10.8, 1_000) + 30)
    expect(levelAt(heard, 25, 440)).toBeLessThan(levelAt(heard, 5, 440) - 40)

    const { files } = (await house.call('GET', `/shows/${showId}/files?limit=100`)).json() as Shelf
    expect(files.some(each => each.origin === 'mix')).toBe(false)
    expect(files.find(each => each.id === music)!.usedBy).toContainEqual(expect.objectContaining({ id, as: 'mixed' }))
    const refused = await house.call('DELETE', `/shows/${showId}/files/${music}`)
    expect([refused.statusCode, refused.json().code]).toEqual([409, 'file-in-use'])
    // There is nothing of it to be fetched, and nothing that could go out as it is.
    for (const what of ['sound', 'download'])
      expect((await house.call('GET', `/files/${sound.source!.id}/${what}`)).statusCode).toBe(404)
    const asItIs = await house.call('PUT', `/episodes/${id}/recipe`, { version: sound.version, recipe: null })
    expect([asItIs.statusCode, asItIs.json().code]).toEqual([422, 'not-ready'])
  })

  it('takes its chapters and soundbites along when it is cut', async () => {
    const { id } = await create()
    const mix = usual()
    await mixed(id, mix)
    const chapter = { address: null, pictureId: null, isListed: true }
    await write(id, {
      chapters: [
        { id: 'a', fromMs: 11_000, title: 'The voice', ...chapter },
        { id: 'b', fromMs: 31_000, title: 'Further on', ...chapter },
      ],
      soundbites: [{ id: 'c', fromMs: 32_000, toMs: 38_000, title: '' }],
    })
    const [piece] = mix.pieces
    const kept = [
      { fromMs: 0, toMs: 4_000 },
      { fromMs: 9_000, toMs: 30_000 },
    ]
    const { text, sound } = await mixed(id, { ...mix, pieces: [{ ...piece!, kept }] })
    expect(sound.source!.durationMs).toBe(36_000)
    expect(text.chapters!.map(({ fromMs }) => fromMs)).toEqual([11_000, 26_000])
    expect(text.soundbites).toMatchObject([{ fromMs: 27_000, toMs: 33_000 }])
  })

  it('is not sent as long as its pieces are others than the sent ones, and goes out with the finished file', async () => {
    const { id } = await create()
    const mix = usual()
    await mixed(id, mix)
    await write(id, { title: 'Put together', notes: '<p>At the quay.</p>' })
    const finish = async () => {
      const { version } = (await house.get(id)).sound
      await house.call('POST', `/episodes/${id}/finish`, { version, recipe: firstRecipe })
      await house.workOnSound()
    }
    await finish()
    await house.release(id)
    expect((await house.get(id)).changedSinceRelease).toBe(false)
    const changed = { ...mix, beds: mix.beds.map(bed => ({ ...bed, gainDb: -6 })) }
    expect((await write(id, { mix: changed })).changedSinceRelease).toBe(true)
    const before = (await house.get(id)).enclosureAddress
    expect((await take(id)).statusCode).toBe(200)
    await house.workOnSound()
    await finish()
    const { version } = await house.get(id)
    const sent = await house.call('POST', `/episodes/${id}/send-changes`, { version })
    expect(sent.statusCode, sent.body).toBe(200)
    const after = await house.get(id)
    expect(after.changedSinceRelease).toBe(false)
    expect(after.enclosureAddress).not.toBe(before)
  })

  it('is rendered once where nothing of it is another', async () => {
    const [one, two] = [await create(), await create()]
    const mix = usual()
    const first = await mixed(one.id, mix)
    await write(two.id, { mix })
    const second = (await take(two.id)).json() as Sound
    expect(second.source).toMatchObject({ id: first.sound.source!.id, measuring: 'done' })
    expect(await Job.count({ where: { kind: 'measure-file', subject: first.sound.source!.id } })).toBe(1)
  })
})

it('that could not be rendered is rendered once more when it is taken again', async () => {
  const { id } = await create()
  const mix = { ...usual(), beds: [] }
  const { sound } = await mixed(id, mix)
  await AudioFile.update({ measuring: 'failed', measurement: null }, { where: { id: sound.source!.id } })
  expect((await mixed(id, mix)).sound.source).toMatchObject({ id: sound.source!.id, measuring: 'done' })
})

describe('what cannot be mixed is refused, with the part', () => {
  const refusal = async (id: string) => {
    const answer = await take(id)
    expect(answer.statusCode, answer.body).toBe(422)
    return answer.json().faults[0] as { field: string; value: string; rule: string }
  }

  it('nothing, and a file that was deleted', async () => {
    const { id } = await create()
    expect(await refusal(id)).toMatchObject({ field: 'text.mix' })
    const mix = usual()
    await write(id, { mix: { ...mix, beds: [{ ...mix.beds[0]!, fileId: uuidV4() }] } })
    expect(await refusal(id)).toMatchObject({ field: 'text.mix.beds.0.fileId' })
    await write(id, { mix: { ...mix, pieces: [], beds: [] } })
    expect(await refusal(id)).toMatchObject({ field: 'text.mix.pieces' })
  })

  it('a file of another show', async () => {
    const { id: otherShow } = await house.makeShow('slow-ferry')
    const theirs = await onShelf('theirs.wav', tones([{ seconds: 1, dbfs: -20 }], rate, 1), 1, otherShow)
    const { id } = await create()
    const mix = usual()
    await write(id, { mix: { ...mix, pieces: [{ ...mix.pieces[0]!, fileId: theirs }] } })
    expect(await refusal(id)).toMatchObject({ field: 'text.mix.pieces.0.fileId', value: theirs })
    const { files } = (await house.call('GET', `/shows/${otherShow}/files`)).json() as Shelf
    expect(files[0]!.usedBy.some(use => use.id === id)).toBe(false)
  })

  it('pieces that lie behind the end of their file', async () => {
    const { id } = await create()
    const mix = usual()
    await write(id, {
      mix: { ...mix, pieces: [{ ...mix.pieces[0]!, kept: [{ fromMs: 60_000, toMs: 70_000 }] }], beds: [] },
    })
    expect(await refusal(id)).toMatchObject({ field: 'text.mix.pieces' })
  })

  it('what a newer house put together, which nobody changes here either', async () => {
    const { id, version } = await create()
    await house.platform.database.query('UPDATE episodes SET mix = ? WHERE id = ?', {
      replacements: [JSON.stringify({ version: mixVersion + 1, tracks: [] }), id],
    })
    expect((await house.get(id)).text.mix).toEqual({ version: mixVersion + 1, tracks: [] })
    expect(await refusal(id)).toMatchObject({ field: 'text.mix.version' })
    const changed = await house.call('PATCH', `/episodes/${id}`, { version, text: { mix: usual() } })
    expect(changed.json().faults[0]).toMatchObject({ field: 'text.mix.version' })
    expect((await write(id, { title: 'All the rest is' })).text.title).toBe('All the rest is')
  })

  it('two windows: what was seen last counts', async () => {
    const { id, version, sound } = await create()
    await write(id, { mix: usual() })
    const late = await house.call('PUT', `/episodes/${id}/mix/taken`, { version, soundVersion: sound.version })
    expect(late.json().code).toBe('version-conflict')
  })
})

it('as a sound goes a week after no episode has it any more, with its waveform', async () => {
  const [left, used] = [await create(), await create()]
  const mix = usual()
  const first = await mixed(left.id, mix)
  const second = await mixed(used.id, { ...mix, beds: [] })
  await house.call('PUT', `/episodes/${left.id}/source`, { fileId: voice })
  const there = async () =>
    (await AudioFile.findAll({ where: { id: [first, second].map(({ sound }) => sound.source!.id) } })).map(
      ({ id }) => id,
    )
  const retain = async (days: number) => {
    house.clock.moveBy(days * 24 * 3600_000)
    await house.platform.jobs.add({ kind: 'enforce-retention', payload: {} })
    while (await house.platform.jobs.runNext('retention'));
  }
  await retain(6)
  expect(await there()).toHaveLength(2)
  await retain(2)
  expect(await there()).toEqual([second.sound.source!.id])
  // It is made again where it is put together so again.
  expect((await mixed(left.id, { ...mix })).sound.source).toMatchObject({ durationMs: 41_000, measuring: 'done' })
})

describe('a file of the shelf is decoded for who mixes it', () => {
  const frames = (id: string, query: string) => `/api/v1/files/${id}/frames?${query}`
  const headers = () => ({ cookie: house.cookie })

  it('from any frame of the clock that is wanted, and for nobody else', async () => {
    const url = frames(voice, 'sampleRateHz=48000&fromFrame=480000')
    expect((await house.app.inject({ url })).statusCode).toBe(401)
    const answer = await house.app.inject({ url, headers: headers() })
    expect(answer.headers['cache-control']).toBe('no-store')
    const sound = new Int16Array(new Uint8Array(answer.rawPayload).buffer)
    expect(sound.length).toBe(20 * 48_000)
    // A tone of 1 kHz comes back to where it was after 48 frames.
    const wave = tones([{ seconds: 1, dbfs: -20, hz: 1_000 }], 48_000, 1)
    // But where it ends.
    expect(sound.subarray(0, -100).every((value, n) => Math.abs(value / 32_768 - wave[n % 48]!) < 2e-4)).toBe(true)
  })

  it('not where it has no bytes of its own, or there is no such clock', async () => {
    const { id } = await create()
    const { sound } = await mixed(id, usual())
    const of = async (fileId: string, query: string) =>
      (await house.app.inject({ url: frames(fileId, query), headers: headers() })).statusCode
    expect(await of(sound.source!.id, 'sampleRateHz=48000&fromFrame=0')).toBe(404)
    expect(await of(voice, 'sampleRateHz=7&fromFrame=0')).toBe(422)
    expect(await of(voice, 'sampleRateHz=48000&fromFrame=-1')).toBe(422)
  })

  it('sixteen at once, and no longer than somebody reads', async () => {
    const long = await onShelf('long.wav', new Float32Array(200 * rate), 1)
    const origin = await house.app.listen({ host: '127.0.0.1', port: 0 })
    const { path, release } = await house.platform.media.onDisk(
      (await AudioFile.findByPk(long, { rejectOnEmpty: true })).fingerprint,
    )
    await release()
    const decoders = (): number =>
      execFileSync('ps', ['-eo', 'args'], { encoding: 'utf8' })
        .split('\n')
        .filter(line => line.startsWith('ffmpeg') && line.includes(path)).length
    const stop = new AbortController()
    const ask = (signal?: AbortSignal) =>
      fetch(origin + frames(long, 'sampleRateHz=96000&fromFrame=0'), { headers: headers(), signal: signal ?? null })
    const open = await Promise.all(Array.from({ length: 16 }, () => ask(stop.signal)))
    expect(open.map(({ status }) => status)).toEqual(Array.from({ length: 16 }, () => 200))
    const refused = await ask()
    expect([refused.status, ((await refused.json()) as { detail: string }).detail]).toEqual([
      503,
      'At most 16 files are decoded for one account at once.',
    ])
    expect(decoders()).toBe(16)
    stop.abort()
    await expect.poll(decoders).toBe(0)
    const again = await ask()
    expect([again.status, (await again.arrayBuffer()).byteLength]).toEqual([200, 200 * 96_000 * 2])
  })
})

describe('the usual set of a show', () => {
  const setTo = async (usual: object | null, id = showId) => {
    const { version } = (await house.call('GET', `/shows/${id}`)).json() as { version: number }
    return house.call('PATCH', `/shows/${id}`, { version, usualSet: usual })
  }
  const withMusic = (fileId: string) => ({ opening: { ...opening, fileId }, closing: null })

  it('lays a new episode out as soon as its voice is here, and no other one', async () => {
    expect((await setTo(withMusic(music))).statusCode).toBe(200)
    const laidOut = await create()
    await house.call('PUT', `/episodes/${laidOut.id}/source`, { fileId: voice })
    const { text, sound } = await house.get(laidOut.id)
    expect(text.mix).toMatchObject({
      pieces: [{ fileId: voice, kept: [{ fromMs: 0, toMs: 30_000 }] }],
      beds: [{ fileId: music, offsetFrom: 'beginning', offsetMs: -11_000, durationMs: 20_000 }],
    })
    expect([sound.source!.id, sound.taken]).toEqual([voice, null])

    // Whoever takes it away and brings another file does not get it again.
    const { version } = await house.get(laidOut.id)
    await house.call('PATCH', `/episodes/${laidOut.id}`, { version, text: { mix: null } })
    await house.call('PUT', `/episodes/${laidOut.id}/source`, { fileId: music })
    expect((await house.get(laidOut.id)).text.mix).toBeNull()

    const newer = await create()
    await EpisodeRow.update({ mix: { version: 99 } as unknown as MixDocument }, { where: { id: newer.id } })
    await house.call('PUT', `/episodes/${newer.id}/source`, { fileId: voice })
    expect((await house.get(newer.id)).text.mix).toEqual({ version: 99 })

    expect((await setTo(null)).statusCode).toBe(200)
    // A sheet that was opened before begins with the voice.
    const opened = await create()
    await house.call('PATCH', `/episodes/${opened.id}`, { version: opened.version, text: { mix: emptyMix } })
    await house.call('PUT', `/episodes/${opened.id}/source`, { fileId: voice })
    expect((await house.get(opened.id)).text.mix).toMatchObject({ pieces: [{ fileId: voice }], beds: [] })
    const bare = await create()
    await house.call('PUT', `/episodes/${bare.id}/source`, { fileId: voice })
    expect((await house.get(bare.id)).text.mix).toBeNull()
  })

  it('holds its music on the shelf, where it counts as used', async () => {
    const tune = await onShelf('tune.wav', tones([{ seconds: 3, dbfs: -20, hz: 330 }], rate, 1), 1)
    const users = await AudioFile.findByPk(tune)
    await house.platform.database.query('DELETE FROM episode_files WHERE file_id = ?', { replacements: [users!.id] })
    const shelf = async () => (await house.call('GET', `/shows/${showId}/files?limit=100`)).json() as Shelf
    const { unused } = await shelf()
    await setTo(withMusic(tune))
    const after = await shelf()
    expect([after.unused, after.files.find(({ id }) => id === tune)!.isUsual]).toEqual([unused - 1, true])
    const refused = await house.call('DELETE', `/shows/${showId}/files/${tune}`)
    expect([refused.statusCode, refused.json().detail]).toEqual([
      409,
      'tune.wav is what the episodes of the show begin or end with.',
    ])
    await setTo(null)
    expect((await house.call('DELETE', `/shows/${showId}/files/${tune}`)).statusCode).toBe(204)
  })

  it('takes no music of another show, and none that is gone', async () => {
    const other = (await house.makeShow('slow-ferry-set')).id
    const theirs = await onShelf('theirs.wav', tones([{ seconds: 2, dbfs: -20, hz: 550 }], rate, 1), 1, other)
    for (const id of [theirs, uuidV4()]) {
      const refused = await setTo(withMusic(id))
      expect([refused.statusCode, refused.json().faults]).toEqual([
        422,
        [
          {
            field: 'usualSet.opening.fileId',
            value: id,
            rule: 'A file of this show’s shelf, and one that is here.',
          },
        ],
      ])
    }
  })
})
