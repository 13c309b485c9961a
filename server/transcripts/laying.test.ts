import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Transcript } from '@contract/transcripts'
import type { Cue } from '@core/transcript/cue'
import { type House, openHouse } from '../testing/house'

// Speech with known times: spoken by another synthesiser (flite) than the one that scripts are laid by (espeak-ng), a sentence
// at a time, with pauses between, music before and behind, and the same music 15 dB under it.
const rateHz = 16_000
const spoken = join(import.meta.dirname, '../../demo/sounds/spoken')
const segmenter = new Intl.Segmenter('en', { granularity: 'sentence' })
const paragraphs = ['br-34', 'br-35', 'br-36'].flatMap(name =>
  readFileSync(join(spoken, `${name}.txt`), 'utf8')
    .split('\n')
    .filter(Boolean)
    .map(line => [...segmenter.segment(line)].map(({ segment }) => segment.trim()).filter(Boolean)),
)
const sentences = paragraphs.flat()

let house: House
let folder: string
let showId: string
let parts: Float32Array[]
let music: Float32Array
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
  folder = mkdtempSync(join(tmpdir(), 'lake-letter-lay-'))
  music = decode(['-i', join(spoken, '../br-31.mp3'), '-t', '5'])
  parts = sentences.map((text, at) => {
    const path = join(folder, `${at}.wav`)
    execFileSync('flite', ['-voice', 'slt', '-t', text, '-o', path])
    return pcm(path)
  })
})
afterAll(async () => {
  await house.close()
  rmSync(folder, { recursive: true })
})

function decode(input: string[]): Float32Array {
  const bytes = execFileSync(
    'ffmpeg',
    ['-v', 'error', ...input, '-ac', '1', '-ar', String(rateHz), '-f', 'f32le', '-'],
    {
      maxBuffer: 1 << 28,
    },
  )
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length))
}
/** What flite writes: 16 bit, one channel, 16 kHz, behind a head of 44 bytes. */
function pcm(path: string): Float32Array {
  const bytes = readFileSync(path)
  expect(bytes.readUInt32LE(24)).toBe(rateHz)
  return Float32Array.from(
    new Int16Array(bytes.buffer.slice(bytes.byteOffset + 44, bytes.byteOffset + (bytes.length & ~1))),
    value => value / 32_768,
  )
}
const power = (sound: Float32Array): number =>
  Math.sqrt(sound.reduce((sum, value) => sum + value * value, 0) / sound.length)

/** Sentences, by their places, as a sound; answers when each begins in it. */
function mix(places: readonly number[], name: string): { path: string; beginsMs: Map<number, number> } {
  const beginsMs = new Map<number, number>()
  const pieces: Float32Array[] = [music, new Float32Array(rateHz)]
  let samples = music.length + rateHz
  for (const place of places) {
    const part = parts[place]!
    const loudest = part.reduce((most, value) => Math.max(most, Math.abs(value)), 0)
    beginsMs.set(place, ((samples + part.findIndex(value => Math.abs(value) > loudest * 0.03)) / rateHz) * 1000)
    // Pauses from a tenth of a second to nine, always the same.
    const pause = new Float32Array(Math.round(rateHz * (0.1 + ((place * 37) % 80) / 100)))
    pieces.push(part, pause)
    samples += part.length + pause.length
  }
  pieces.push(new Float32Array(rateHz * 3), music)
  const all = Float32Array.from(pieces.flatMap(piece => [...piece]))
  const gain = (power(parts[0]!) / power(music)) * 10 ** (-15 / 20)
  const mixed = Int16Array.from(
    all,
    (value, at) => Math.max(-1, Math.min(1, (value + music[at % music.length]! * gain) * 0.7)) * 32_767,
  )
  const [raw, path] = [join(folder, `${name}.raw`), join(folder, `${name}.mp3`)]
  writeFileSync(raw, new Uint8Array(mixed.buffer))
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    's16le',
    '-ar',
    String(rateHz),
    '-ac',
    '1',
    '-i',
    raw,
    '-b:a',
    '64k',
    path,
  ])
  return { path, beginsMs }
}

async function laid(
  path: string,
  text: string,
  language = 'en',
  pin: (cues: Cue[]) => Cue[] = cues => cues,
): Promise<Transcript> {
  const { id } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json<{ id: string }>()
  await house.bring(id, path)
  const brought = await house.app.inject({
    method: 'POST',
    url: `/api/v1/episodes/${id}/transcripts?language=${language}`,
    headers: { cookie: house.cookie, 'content-type': 'text/plain' },
    payload: text,
  })
  expect(brought.statusCode, brought.body).toBe(201)
  const made = brought.json<Transcript>()
  const pinned = pin(made.cues)
  if (pinned !== made.cues)
    await house.call('PATCH', `/transcripts/${made.id}/cues`, {
      version: made.version,
      at: 0,
      remove: made.cueCount,
      insert: pinned,
    })
  expect((await house.call('POST', `/transcripts/${made.id}/lay`)).json<Transcript>().laying).toBe('working')
  while (await house.platform.jobs.runNext('laying'));
  const answer = (await house.call('GET', `/transcripts/${made.id}`)).json<Transcript>()
  expect([answer.laying, answer.origin, answer.isTimed]).toEqual(['none', 'laid', true])
  return answer
}

/** By how much each sentence that is said begins another time than it does, in ms. */
function errors({ cues }: Transcript, beginsMs: ReadonlyMap<number, number>): number[] {
  const known = new Map(cues.map(({ text, fromMs }) => [text, fromMs!]))
  return [...beginsMs].flatMap(([place, ms]) => {
    // Of a long one the first part begins where it does, and one that comes twice is not told apart.
    const text = [...known.keys()].find(each => sentences[place]!.startsWith(each))
    const isTwice = sentences.filter(each => each === sentences[place]).length > 1
    return text === undefined || isTwice ? [] : [Math.abs(known.get(text)! - ms)]
  })
}
const share = (values: readonly number[], part: number): number =>
  values.toSorted((one, other) => one - other)[Math.floor(values.length * part)]!
const script = (from: number, to: number): string =>
  paragraphs
    .slice(from, to)
    .map(each => each.join(' '))
    .join('\n\n')
const everything = sentences.map((_text, place) => place)

describe('a plain script', () => {
  it('is laid over the speech: half of the sentences within 150 ms, 95 % within 500 ms', async () => {
    const { path, beginsMs } = mix(everything, 'whole')
    const found = errors(await laid(path, script(0, paragraphs.length)), beginsMs)
    console.log(
      `  laid: median ${share(found, 0.5).toFixed(0)} ms, 95 % within ${share(found, 0.95).toFixed(0)} ms, of ${found.length} sentences`,
    )
    expect(found.length).toBeGreaterThan(40)
    expect(share(found, 0.5)).toBeLessThan(150)
    expect(share(found, 0.95)).toBeLessThan(500)
  })

  it('that has a paragraph more than is said stays right elsewhere, and is less sure there', async () => {
    const left = new Set(paragraphs[4])
    const { path, beginsMs } = mix(
      everything.filter(place => !left.has(sentences[place]!)),
      'less',
    )
    const answer = await laid(path, script(0, paragraphs.length))
    expect(share(errors(answer, beginsMs), 0.5)).toBeLessThan(150)
    expect(share(errors(answer, beginsMs), 0.9)).toBeLessThan(1000)
    const sure = (isSaid: boolean): number => {
      const some = answer.cues.filter(({ text }) => [...left].some(each => each.startsWith(text)) !== isSaid)
      return some.reduce((sum, cue) => sum + cue.sure!, 0) / some.length
    }
    expect(sure(false)).toBeLessThan(sure(true) - 0.25)
  })

  it('whose one sentence was pinned keeps it, and the rest follows', async () => {
    const { path, beginsMs } = mix(everything.slice(0, 24), 'pinned')
    const place = paragraphs[0]!.length + paragraphs[1]!.length
    const at = Math.round(beginsMs.get(place)!)
    const answer = await laid(path, sentences.slice(0, 24).join('\n\n'), 'en', cues =>
      cues.map((cue, index) => (index === place ? { ...cue, fromMs: at, toMs: at + 1000, isPinned: true } : cue)),
    )
    expect(answer.cues.find(({ isPinned }) => isPinned)!.fromMs).toBe(at)
    expect(share(errors(answer, beginsMs), 0.9)).toBeLessThan(500)
  })

  it('in a language that no voice speaks is estimated by speech and silence, and says so', async () => {
    const { path } = mix(everything.slice(0, 12), 'unspoken')
    const answer = await laid(path, sentences.slice(0, 12).join('\n\n'), 'wo')
    expect(answer.cues.every(({ sure }) => sure! < 0.5)).toBe(true)
    const begins = answer.cues.map(({ fromMs }) => fromMs!)
    expect(begins).toEqual(begins.toSorted((one, other) => one - other))
  })
})
