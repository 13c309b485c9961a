import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Transcript } from '@contract/transcripts'
import type { Cue } from '@core/transcript/cue'
import { isDoubtful, judgementOf } from '@core/transcript/doubtful'
import { type House, openHouse } from '../../testing/house'
import { mixedSpeech, share, spokenParagraphs, spokenSentences } from './speech.fixture'

const paragraphs = spokenParagraphs('br-35', 'br-36')
const sentences = paragraphs.flat()

let house: House
let folder: string
let showId: string
let parts: Float32Array[]
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
  folder = mkdtempSync(join(tmpdir(), 'lake-letter-alignment-'))
  parts = spokenSentences(sentences, folder)
})
afterAll(async () => {
  await house.close()
  rmSync(folder, { recursive: true })
})

const mix = (places: readonly number[], name: string) => mixedSpeech(parts, places, folder, name)

async function aligned(
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
  expect((await house.call('POST', `/transcripts/${made.id}/align`)).json<Transcript>().alignment).toBe('working')
  while (await house.platform.jobs.runNext('alignment'));
  const answer = (await house.call('GET', `/transcripts/${made.id}`)).json<Transcript>()
  expect([answer.alignment, answer.origin, answer.isTimed]).toEqual(['none', 'aligned', true])
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
const script = (from: number, to: number): string =>
  paragraphs
    .slice(from, to)
    .map(each => each.join(' '))
    .join('\n\n')
const everything = sentences.map((_text, place) => place)

describe('a plain script', () => {
  it('is laid over the speech: half of the sentences within 150 ms, 95 % within 500 ms', async () => {
    const { path, beginsMs } = mix(everything, 'whole')
    const answer = await aligned(path, script(0, paragraphs.length))
    const found = errors(answer, beginsMs)
    console.log(
      `  laid: median ${share(found, 0.5).toFixed(0)} ms, 95 % within ${share(found, 0.95).toFixed(0)} ms, of ${found.length} sentences`,
    )
    expect(found.length).toBeGreaterThan(25)
    expect(share(found, 0.5)).toBeLessThan(150)
    expect(share(found, 0.95)).toBeLessThan(500)
    expect(judgementOf(answer.cues)).toBeNull()
  })

  it('that has a paragraph more than is said stays right elsewhere, and is less sure there', async () => {
    const left = new Set(paragraphs[4])
    const { path, beginsMs } = mix(
      everything.filter(place => !left.has(sentences[place]!)),
      'less',
    )
    const answer = await aligned(path, script(0, paragraphs.length))
    expect(share(errors(answer, beginsMs), 0.5)).toBeLessThan(150)
    expect(share(errors(answer, beginsMs), 0.9)).toBeLessThan(1000)
    const sure = (isSaid: boolean): number => {
      const some = answer.cues.filter(({ text }) => [...left].some(each => each.startsWith(text)) !== isSaid)
      return some.reduce((sum, cue) => sum + cue.sure!, 0) / some.length
    }
    expect(sure(false)).toBeLessThan(sure(true) - 0.25)
  })

  it('that lacks a paragraph which is said stays right elsewhere, and is not sure of what it is wrong about', async () => {
    const { path, beginsMs } = mix(everything, 'more')
    const lacked = paragraphs[4]!
    const answer = await aligned(
      path,
      paragraphs
        .filter(each => each !== lacked)
        .map(each => each.join(' '))
        .join('\n\n'),
    )
    const found = errors(answer, beginsMs)
    expect(share(found, 0.5)).toBeLessThan(150)
    expect(share(found, 0.9)).toBeLessThan(1000)
    const far = answer.cues.filter(({ text, fromMs }) => {
      const [place, again] = sentences.flatMap((each, at) => (each.startsWith(text) ? [at] : []))
      return place !== undefined && again === undefined && Math.abs(beginsMs.get(place)! - fromMs!) > 1000
    })
    expect(far.filter(({ sure }) => sure! >= 0.5)).toEqual([])
  })

  it.each([['br-33'], ['br-31', 'br-32']])(
    'of another episode is told by how little of it is sure: %s %s',
    async (...names) => {
      const { path } = mix(everything, 'another')
      const words = spokenParagraphs(...names).map(each => each.join(' '))
      const answer = await aligned(path, words.join('\n\n'))
      expect(answer.cues.filter(isDoubtful).length).toBeGreaterThan(answer.cueCount * 0.6)
      expect(judgementOf(answer.cues)).toBe('of something else')
    },
  )

  it('whose one sentence was pinned keeps it, and the rest follows', async () => {
    const { path, beginsMs } = mix(everything.slice(0, 18), 'pinned')
    const place = paragraphs[0]!.length + paragraphs[1]!.length
    const at = Math.round(beginsMs.get(place)!)
    const answer = await aligned(path, sentences.slice(0, 18).join('\n\n'), 'en', cues =>
      cues.map((cue, index) => (index === place ? { ...cue, fromMs: at, toMs: at + 1000, isPinned: true } : cue)),
    )
    expect(answer.cues.find(({ isPinned }) => isPinned)!.fromMs).toBe(at)
    expect(share(errors(answer, beginsMs), 0.9)).toBeLessThan(500)
  })

  it('of two people, one slow and one quick, is laid as well, and hardly anything of it is called unsure', async () => {
    const two = spokenParagraphs('br-33', 'br-34')
    const all = two.flat()
    const isQuick = two.flatMap((each, at) => each.map(() => at % 2 === 1))
    const voices = all.map((_text, at) =>
      isQuick[at] ? { name: 'awb' as const, stretch: 0.75 } : { name: 'rms' as const, stretch: 1.25 },
    )
    const spoken = spokenSentences(all, folder, at => voices[at]!)
    const { path, beginsMs } = mixedSpeech(spoken, [...all.keys()], folder, 'two')
    const words = two.map((each, at) => `${at % 2 ? 'Benno' : 'Tove'}: ${each.join(' ')}`).join('\n\n')
    const { cues } = await aligned(path, words)
    const found = cues.flatMap(cue => {
      const [place, again] = all.flatMap((each, at) => (each.startsWith(cue.text) ? [at] : []))
      return place === undefined || again !== undefined
        ? []
        : [{ cue, far: Math.abs(cue.fromMs! - beginsMs.get(place)!) }]
    })
    expect(found.length).toBeGreaterThan(25)
    const far = found.map(each => each.far)
    expect(share(far, 0.5)).toBeLessThan(80)
    expect(share(far, 0.95)).toBeLessThan(250)
    expect(found.filter(({ cue, far: by }) => by > 500 && !isDoubtful(cue))).toEqual([])
    expect(cues.filter(isDoubtful).length).toBeLessThan(cues.length / 5)
  })

  it('that is only being laid changes nothing that goes out', async () => {
    const { id } = await house.makeReady(showId, 'Released before')
    const brought = await house.app.inject({
      method: 'POST',
      url: `/api/v1/episodes/${id}/transcripts?language=en`,
      headers: { cookie: house.cookie, 'content-type': 'text/plain' },
      payload: 'One note will not stop.',
    })
    const { version } = await house.get(id)
    await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
    const { id: transcriptId } = brought.json<Transcript>()
    await house.call('POST', `/transcripts/${transcriptId}/align`)
    expect((await house.get(id)).changedSinceRelease).toBe(false)
    await house.platform.jobs.runNext('alignment')
    expect((await house.get(id)).changedSinceRelease).toBe(true)
  })

  it('in a language that no voice speaks is estimated by speech and silence, and says so', async () => {
    const { path } = mix(everything.slice(0, 8), 'unspoken')
    const answer = await aligned(path, sentences.slice(0, 8).join('\n\n'), 'wo')
    expect(answer.cues.every(({ sure }) => sure! < 0.5)).toBe(true)
    expect(judgementOf(answer.cues)).toBe('estimated')
    const begins = answer.cues.map(({ fromMs }) => fromMs!)
    expect(begins).toEqual(begins.toSorted((one, other) => one - other))
  })
})
