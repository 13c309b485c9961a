import { execFileSync, spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import NodeID3 from 'node-id3'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import { firstRecipe } from '@core/audio/recipe'
import { makeSound } from '@core/audio/sound.fixture'
import { type House, openHouse, type WholeEpisode } from '../../testing/house'

let house: House
let showId: string
let folder: string
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('slow-ferry')).id
  folder = await mkdtemp(join(tmpdir(), 'lake-letter-bad-sound-'))
})
afterAll(async () => {
  await house.close()
  await rm(folder, { recursive: true })
})

const get = (id: string): Promise<WholeEpisode> => house.get(id)
const place = (name: string): string => join(folder, name)

async function bring(name: string, bytes: Buffer): Promise<WholeEpisode> {
  await writeFile(place(name), bytes)
  const { id } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json() as Episode
  await house.bring(id, place(name))
  await house.workOnSound()
  return get(id)
}

async function begin({ id }: Pick<Episode, 'id'>): Promise<WholeEpisode> {
  const {
    sound: { version },
  } = await get(id)
  const answer = await house.call('POST', `/episodes/${id}/finish`, { version, recipe: firstRecipe })
  expect(answer.statusCode, answer.body).toBe(200)
  return get(id)
}

const sound = (name: string, seconds: number, coding: string[] = ['-b:a', '96k']): Buffer =>
  makeSound(place(name), seconds, coding)

describe('a damaged file', () => {
  it('whose second half is garbage is taken as far as it is sound, says so, and is finished', async () => {
    const whole = sound('a.mp3', 20)
    const episode = await bring(
      'half.mp3',
      Buffer.concat([
        whole.subarray(0, whole.length / 2),
        randomBytes(whole.length / 2).map(byte => (byte === 255 ? 0 : byte)),
      ]),
    )
    expect(episode.sound.source!.durationMs).toBeGreaterThan(9_000)
    expect(episode.sound.source!.durationMs).toBeLessThan(11_000)
    expect(episode.sound.findings.map(({ code }) => code)).toEqual(expect.arrayContaining(['junk-behind', 'cut-short']))
    await begin(episode)
    await house.workOnSound()
    expect((await get(episode.id)).sound.finishing).toBe('done')
  })

  it('whose sample rate changes in mid-file is measured to its end', async () => {
    const both = Buffer.concat([
      sound('b.mp3', 5, ['-b:a', '96k', '-write_xing', '0', '-id3v2_version', '0']),
      sound('c.mp3', 5, ['-ar', '22050', '-b:a', '64k', '-write_xing', '0', '-id3v2_version', '0']),
    ])
    const { source } = (await bring('mixed.mp3', both)).sound
    expect(Math.abs(source!.durationMs - 10_000)).toBeLessThan(200)
    expect(Math.abs(source!.measurement!.durationMs - 10_000)).toBeLessThan(300)
  })

  it('that was joined in mid-frame with another rate is finished as loud as it should be, without the burst that is decoded there', async () => {
    const bare = ['-ac', '2', '-write_xing', '0', '-id3v2_version', '0']
    const noise = (name: string, seed: number, rate: string, bits: string): Buffer =>
      makeSound(place(name), 3, ['-ar', rate, '-b:a', bits, ...bare], `anoisesrc=d=3:c=white:a=0.8:seed=${seed}`)
    const [first, second] = [noise('joined-a.mp3', 7, '48000', '64k'), noise('joined-b.mp3', 9, '44100', '128k')]
    const joined = Buffer.concat([first.subarray(0, first.length - 375), second])
    // As ffmpeg decodes it, it goes a hundred thousand times beyond full scale.
    await writeFile(place('joined.mp3'), joined)
    const decoded = execFileSync(
      'ffmpeg',
      ['-v', 'quiet', '-i', place('joined.mp3'), '-ac', '2', '-ar', '48000', '-f', 'f32le', '-'],
      { maxBuffer: 1e8 },
    )
    const samples = new Float32Array(decoded.buffer.slice(decoded.byteOffset, decoded.byteOffset + decoded.length))
    expect(samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0)).toBeGreaterThan(1_000)
    const episode = await bring('joined.mp3', joined)
    const found = episode.sound.findings.find(({ code }) => code === 'damaged')!
    expect(found.places[0]!.fromMs).toBeGreaterThan(2_800)
    expect(found.places[0]!.toMs).toBeLessThan(3_300)
    await begin(episode)
    await house.workOnSound()
    const { finishing, finished } = (await get(episode.id)).sound
    expect(finishing).toBe('done')
    expect(Math.abs(finished!.measurement!.integratedLufs! - firstRecipe.targetLufs)).toBeLessThan(1.5)
  })

  it('a film without sound is refused in words', async () => {
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
      place('film.mp4'),
    ])
    const {
      upload,
      sound: { source },
    } = await bring('film.mp3', await readFile(place('film.mp4')))
    expect([source, upload!.refusal!.title]).toEqual([null, 'This is a film'])
  })
})

describe('tags', () => {
  it('a picture of 30 MB in the tags is taken and made small', async () => {
    const side = 3300
    const picture = await sharp(randomBytes(side * side * 3), { raw: { width: side, height: side, channels: 3 } })
      .png({ compressionLevel: 0 })
      .toBuffer()
    expect(picture.length).toBeGreaterThan(30_000_000)
    const tag = NodeID3.create({
      title: 'Heavy',
      image: { mime: 'image/png', type: { id: 3 }, description: '', imageBuffer: picture },
    })
    const episode = await bring(
      'heavy.mp3',
      Buffer.concat([tag, sound('d.mp3', 3, ['-b:a', '96k', '-id3v2_version', '0'])]),
    )
    expect(episode.text.title).toBe('Heavy')
    expect(Math.abs(episode.sound.source!.durationMs - 3000)).toBeLessThan(60)
    const { rawPayload } = await house.app.inject({
      url: episode.sound.source!.pictureAddress!,
      headers: { cookie: house.cookie },
    })
    expect(rawPayload.length).toBeLessThan(600_000)
  })

  it('APE, ID3v1 and two ID3v2 tags on one file are told from sound', async () => {
    const bare = sound('e.mp3', 6, ['-b:a', '96k', '-write_xing', '0', '-id3v2_version', '0'])
    const v1 = Buffer.alloc(128)
    v1.write('TAG', 0)
    v1.write('Old title', 3)
    const all = Buffer.concat([
      NodeID3.create({ title: 'First tag' }),
      NodeID3.create({ title: 'Second tag' }),
      bare,
      ape({ Title: 'Ape title' }),
      v1,
    ])
    const episode = await bring('tags.mp3', all)
    expect(Math.abs(episode.sound.source!.durationMs - 6000)).toBeLessThan(60)
    expect(episode.sound.findings.filter(({ code }) => code.startsWith('junk') || code === 'cut-short')).toEqual([])
    expect(episode.text.title).not.toBe('')
  })

  // ID3v2.3 section 3.3: text encoding 0 is ISO-8859-1, 1 is UTF-16 with a byte order mark; ID3v2.4 adds 2, UTF-16BE without.
  it.each([
    ['Latin-1', 3, 0, Buffer.from('Käse für Zoë', 'latin1')],
    ['UTF-16 with a mark', 3, 1, Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('Käse für Zoë', 'utf16le')])],
    ['UTF-16 without one', 4, 2, Buffer.from('Käse für Zoë', 'utf16le').swap16()],
  ])('in %s are read', async (name, version, encoding, words) => {
    const body = Buffer.concat([Buffer.from('TIT2'), size(words.length + 1), Buffer.from([0, 0, encoding]), words])
    const tag = Buffer.concat([Buffer.from('ID3'), Buffer.from([version, 0, 0]), size(body.length), body])
    const episode = await bring(
      `${name.length}.mp3`,
      Buffer.concat([tag, sound(`t${name.length}.mp3`, 2 + encoding, ['-b:a', '64k', '-id3v2_version', '0'])]),
    )
    expect(episode.text.title).toBe('Käse für Zoë')
  })
})

describe('when finishing goes wrong', () => {
  it('ffmpeg killed in mid-run does not end it: the job is tried again', async () => {
    const episode = await bring('long.wav', sound('f.wav', 240, ['-ac', '2']))
    await begin(episode)
    const killer = setInterval(() => void spawnSync('pkill', ['-KILL', '-P', String(process.pid), 'ffmpeg']), 50)
    await expect(house.workOnSound()).rejects.toThrow(/SIGKILL|EPIPE|ended/)
    clearInterval(killer)
    expect((await get(episode.id)).sound.finishing).toBe('working')
    house.clock.moveBy(10_000)
    await house.workOnSound()
    expect((await get(episode.id)).sound.finishing).toBe('done')
  })

  /** Lets the jobs of sound fail as often as they are tried. */
  async function failToTheEnd(): Promise<void> {
    for (let n = 0; n < 5; n++) {
      await house.workOnSound().catch(() => undefined)
      house.clock.moveBy(3600_000)
    }
  }

  it('a sound that cannot be finished in five tries is said, and the desk waits no longer', async () => {
    const episode = await bring('lost.mp3', sound('h.mp3', 4))
    await house.platform.media.remove(episode.sound.source!.fingerprint)
    await begin(episode)
    await failToTheEnd()
    expect((await get(episode.id)).sound).toMatchObject({
      finishing: 'failed',
      problem: { title: 'The sound could not be finished' },
      work: null,
    })
  })

  it('so is one that cannot be measured', async () => {
    await writeFile(place('unheard.mp3'), sound('i.mp3', 5))
    const { id } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json() as Episode
    await house.bring(id, place('unheard.mp3'))
    const { source } = (await get(id)).sound
    await house.platform.media.remove(source!.fingerprint)
    await failToTheEnd()
    const after = await get(id)
    expect(after.sound).toMatchObject({ source: { measuring: 'failed' }, work: null })
    expect(after.sound.findings.map(({ code }) => code)).toEqual(['unmeasured'])
    const refused = await house.call('POST', `/episodes/${id}/finish`, {
      version: after.sound.version,
      recipe: firstRecipe,
    })
    expect(refused.json()).toMatchObject({
      code: 'not-ready',
      detail: expect.stringContaining('could not be measured'),
    })
  })

  it('a full disk is said in words, and nothing is lost', async () => {
    const small = place('small')
    await mkdir(small)
    // A file system of three megabytes in memory; making one takes an administrator.
    if (spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=3m', 'tmpfs', small]).status !== 0)
      throw new Error('This test needs the right to mount a tmpfs.')
    try {
      const episode = await bring('disk.wav', sound('g.wav', 300, ['-ac', '1']))
      await begin(episode)
      const { media } = house.platform
      const { workIn } = media
      // Everything is as it is, but the work is done in the small file system.
      media.workIn = (_name, act) => act(small)
      try {
        await house.workOnSound()
      } finally {
        media.workIn = workIn
      }
      const { sound: after } = await get(episode.id)
      expect(after).toMatchObject({
        finishing: 'failed',
        problem: { title: 'The disk is full', todo: expect.stringMatching(/\w/) },
        recipe: firstRecipe,
      })
      expect(after.source!.fingerprint).toBe(episode.sound.source!.fingerprint)
      await begin(episode)
      await house.workOnSound()
      expect((await get(episode.id)).sound.finishing).toBe('done')
    } finally {
      spawnSync('umount', [small])
    }
  })
})

/** An ID3v2 size: four bytes of seven bits. */
function size(bytes: number): Buffer {
  return Buffer.from([(bytes >> 21) & 127, (bytes >> 14) & 127, (bytes >> 7) & 127, bytes & 127])
}

/** An APEv2 tag with a footer only. */
function ape(items: Record<string, string>): Buffer {
  const body = Buffer.concat(
    Object.entries(items).map(([key, value]) => {
      const head = Buffer.alloc(8)
      head.writeUInt32LE(Buffer.byteLength(value), 0)
      return Buffer.concat([head, Buffer.from(`${key}\0${value}`)])
    }),
  )
  const footer = Buffer.alloc(32)
  footer.write('APETAGEX', 0)
  footer.writeUInt32LE(2000, 8)
  footer.writeUInt32LE(body.length + 32, 12)
  footer.writeUInt32LE(Object.keys(items).length, 16)
  return Buffer.concat([body, footer])
}
