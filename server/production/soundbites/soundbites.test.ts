import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseBuffer } from 'music-metadata'
import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import { decodedMs } from '@core/audio/sound.fixture'
import * as cutting from '../../media/sound/cut'
import { type House, openHouse } from '../../testing/house'
import { SoundbiteFile } from './models'

let house: House
let showId: string
const folder = mkdtempSync(join(tmpdir(), 'lake-letter-soundbites-'))
/** Silence but for a tone of 880 Hz between the tenth and the thirtieth second. */
const path = join(folder, 'The tone.mp3')
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
  const sound = '0.2*sin(880*2*PI*t)*between(t,10,30)'
  const source = ['-f', 'lavfi', '-i', `aevalsrc='${sound}':d=60:s=44100`]
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...source, '-b:a', '64k', path])
})
afterAll(async () => {
  await house.close()
  rmSync(folder, { recursive: true })
})

const tone = { id: 'tone', fromMs: 10_000, toMs: 30_000, title: 'Only the tone' }
const write = async (id: string, soundbites: object[]) =>
  house.call('PATCH', `/episodes/${id}`, { version: (await house.get(id)).version, text: { soundbites } })
async function make(soundbites: object[], recipe: object = {}): Promise<string> {
  const { id } = (await house.call('POST', `/shows/${showId}/episodes`, { title: 'The tone' })).json()
  await house.bring(id, path)
  await house.workOnSound()
  expect((await write(id, soundbites)).statusCode).toBe(200)
  const { sound } = await house.get(id)
  const wanted = { ...sound.usual, encoding: 'speech', toTarget: false, fromMs: null, toMs: null, ...recipe }
  await house.call('POST', `/episodes/${id}/finish`, { version: sound.version, recipe: wanted })
  await house.workOnSound()
  return id
}
const release = async (id: string): Promise<string> => new URL((await house.release(id)).pageAddress!).pathname
const ask = (url: string, headers: Record<string, string> = {}) => house.app.inject({ url, headers })
/** How loud a file is between two of its seconds, as ffmpeg finds it: its highest sample in dB. */
function peakDb(bytes: Buffer, from: number, to: number): number {
  const file = join(folder, 'heard.mp3')
  writeFileSync(file, bytes)
  const said = execFileSync(
    'sh',
    ['-c', `ffmpeg -nostats -i '${file}' -af atrim=${from}:${to},volumedetect -f null - 2>&1`],
    { encoding: 'utf8' },
  )
  return Number(/max_volume: (-?[\d.]+) dB/.exec(said)![1])
}

it('goes out in the feed, on the page, and as a file of its own that is that stretch and no other', async () => {
  const id = await make([tone, { id: 'rest', fromMs: 35_000, toMs: 55_000, title: '' }], { fromMs: 2_000 })
  const page = await release(id)
  const feed = (await ask('/bellows-and-reeds/feed.xml')).body
  // podcast namespace, soundbite: startTime and duration in seconds, the title as text; by the clock of the enclosure.
  expect(feed).toContain('<podcast:soundbite startTime="8" duration="20">Only the tone</podcast:soundbite>')
  expect(feed).toContain('<podcast:soundbite startTime="33" duration="20">The tone</podcast:soundbite>')
  const { body } = await ask(page)
  expect(body).toContain(`href="http://lake.example${page}/soundbites/tone.mp3"`)
  expect(body).toMatch(/#t=8,28"/)

  const file = await ask(`${page}/soundbites/tone.mp3`)
  expect(file.statusCode, file.body).toBe(200)
  expect([file.statusCode, file.headers['content-type'], file.headers['accept-ranges']]).toEqual([
    200,
    'audio/mpeg',
    'bytes',
  ])
  writeFileSync(join(folder, 'bite.mp3'), file.rawPayload)
  // A coder adds up to two frames of its own.
  expect(Math.abs(decodedMs(join(folder, 'bite.mp3')) - 20_000)).toBeLessThan(60)
  // The tone is there from its first tenth of a second to its last.
  expect(peakDb(file.rawPayload, 0.1, 0.3)).toBeGreaterThan(-25)
  expect(peakDb(file.rawPayload, 19.6, 19.9)).toBeGreaterThan(-25)
  const rest = await ask(`${page}/soundbites/rest.mp3`)
  expect(peakDb(rest.rawPayload, 0, 20)).toBeLessThan(-60)
  const { common } = await parseBuffer(file.rawPayload, 'audio/mpeg')
  expect(common).toMatchObject({ title: 'Only the tone', album: 'Bellows & Reeds' })
  expect(common.picture).toHaveLength(1)

  // It is answered as files are.
  const part = await ask(`${page}/soundbites/tone.mp3`, { range: 'bytes=0-99' })
  expect([part.statusCode, part.rawPayload.length]).toEqual([206, 100])
  const same = await ask(`${page}/soundbites/tone.mp3`, { 'if-none-match': file.headers.etag as string })
  expect(same.statusCode).toBe(304)
  expect((await house.app.inject({ method: 'HEAD', url: `${page}/soundbites/tone.mp3` })).statusCode).toBe(200)
})

it('is cut once, however many want it at the same time, and anew when it is marked otherwise', async () => {
  const id = await make([tone])
  const cut = vi.spyOn(cutting, 'cutMp3')
  const download = `/api/v1/episodes/${id}/soundbites/tone/download?name=Only%20the%20tone`
  const get = () => house.app.inject({ url: download, headers: { cookie: house.cookie } })
  const answers = await Promise.all(Array.from({ length: 12 }, get))
  expect(answers[0]!.statusCode, answers[0]!.body).toBe(200)
  expect(new Set(answers.map(({ headers }) => headers.etag)).size).toBe(1)
  expect(answers[0]!.headers['content-disposition']).toBe('attachment; filename="only-the-tone.mp3"')
  expect(cut).toHaveBeenCalledTimes(1)
  expect(await SoundbiteFile.count({ where: { episodeId: id } })).toBe(1)
  await write(id, [{ ...tone, toMs: 29_000 }])
  expect((await get()).headers.etag).not.toBe(answers[0]!.headers.etag)
  expect(cut).toHaveBeenCalledTimes(2)
  cut.mockRestore()
})

it.each([
  ['of a draft', async () => ['draft', (await make([tone])).slice(0, 8)]],
  ['that is not there', async () => [(await release(await make([tone]))).split('/').at(-1)!, 'another']],
])('one %s is had by nobody', async (_which, prepare) => {
  const [slug, id] = await prepare()
  const answer = await ask(`/bellows-and-reeds/${slug}/soundbites/${id}.mp3`)
  expect([answer.statusCode, answer.json().detail]).toEqual([404, 'There is no such soundbite.'])
})

it('of a sound that is not finished says so', async () => {
  const { id } = (await house.call('POST', `/shows/${showId}/episodes`, { title: 'Not yet' })).json()
  await write(id, [tone])
  const answer = await house.call('GET', `/episodes/${id}/soundbites/tone/download`)
  expect(answer.statusCode).toBe(404)
  await house.bring(id, path)
  await house.workOnSound()
  const { sound } = await house.get(id)
  await house.call('POST', `/episodes/${id}/finish`, { version: sound.version, recipe: sound.usual })
  const waiting = await house.call('GET', `/episodes/${id}/soundbites/tone/download`)
  expect([waiting.statusCode, waiting.json().detail]).toEqual([404, 'The episode has no sound yet that goes out.'])
})

it('what nobody wanted in long is cleared away with its bytes, and is cut again for whoever wants it', async () => {
  const id = await make([tone])
  const page = await release(id)
  const first = await ask(`${page}/soundbites/tone.mp3`)
  const { sha256 } = await SoundbiteFile.findOne({ where: { episodeId: id }, rejectOnEmpty: true })
  house.clock.moveBy(91 * 24 * 3600_000)
  await house.platform.jobs.add({ kind: 'enforce-retention', payload: {} })
  while (await house.platform.jobs.runNext('retention'));
  expect(await SoundbiteFile.count({ where: { episodeId: id } })).toBe(0)
  await expect(house.platform.media.open(sha256)).rejects.toThrow()
  const again = await ask(`${page}/soundbites/tone.mp3`)
  expect([again.statusCode, again.rawPayload.length]).toEqual([200, first.rawPayload.length])
})
