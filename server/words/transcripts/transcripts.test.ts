import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { BroughtTranscript, Transcript } from '@contract/transcripts'
import type { Cue } from '@core/transcript/cue'
import { type House, openHouse } from '../../testing/house'

let house: House
let showId: string
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
})
afterAll(() => house.close())

const vtt = `WEBVTT

00:01.000 --> 00:03.000
<v Tove>Is it the <i>reed</i>?

00:03.000 --> 00:06.000
<v Benno>It is never the reed.
`
const bring = (episodeId: string, file: string | Buffer, query = 'language=en&name=letter.vtt') =>
  house.app.inject({
    method: 'POST',
    url: `/api/v1/episodes/${episodeId}/transcripts?${query}`,
    headers: { cookie: house.cookie, 'content-type': 'text/plain' },
    payload: file,
  })
const begun = async (file: string | Buffer = vtt): Promise<{ id: string; made: BroughtTranscript }> => {
  const { id } = await house.makeReady(showId, 'A letter from a chapel')
  const answer = await bring(id, file)
  expect(answer.statusCode, answer.body).toBe(201)
  return { id, made: answer.json() }
}
const pathOf = (address: string): string => new URL(address).pathname
const cue = (id: string, fromMs: number, toMs: number, text: string): Cue => ({ id, fromMs, toMs, speaker: null, text })

describe('a transcript', () => {
  it('is read from a file, changed, and taken along in each format', async () => {
    const { id, made } = await begun()
    expect(made).toMatchObject({
      language: 'en',
      isSpoken: true,
      origin: 'file',
      name: 'letter.vtt',
      fits: true,
      isTimed: true,
    })
    const [first] = made.cues
    expect([first!.speaker, first!.text]).toEqual(['Tove', 'Is it the reed?'])
    const changed = await house.call('PATCH', `/transcripts/${made.id}/cues`, {
      version: made.version,
      at: 1,
      remove: 1,
      insert: [cue('n1', 3000, 4000, 'Never.'), cue('n2', 4000, 6000, 'Not once.')],
    })
    expect(changed.json<Transcript>().cues.map(({ text }) => text)).toEqual(['Is it the reed?', 'Never.', 'Not once.'])
    const file = async (format: string) => (await house.call('GET', `/transcripts/${made.id}/file.${format}`)).body
    expect(await file('vtt')).toContain('00:00:01.000 --> 00:00:03.000\n<v Tove>Is it the <i>reed</i>?')
    expect(await file('srt')).toContain('00:00:03,000 --> 00:00:04,000\nNever.')
    expect(JSON.parse(await file('json')).segments.length).toBe(3)
    expect((await house.call('GET', `/episodes/${id}/transcripts`)).json().transcripts).toMatchObject([{ cueCount: 3 }])
  })

  it('that another window changed first is refused, with what is there by now', async () => {
    const { made } = await begun()
    const write = (text: string) =>
      house.call('PATCH', `/transcripts/${made.id}/cues`, {
        version: made.version,
        at: 0,
        remove: 1,
        insert: [cue('x', 0, 1, text)],
      })
    const [one, other] = await Promise.all([write('mine'), write('theirs')])
    expect([one.statusCode, other.statusCode].toSorted()).toEqual([200, 409])
    const refused = one.statusCode === 409 ? one : other
    expect(refused.json().current.cues[0].text).toMatch(/mine|theirs/)
  })

  it('goes out with the release in every format, with its type, and follows the cut of the sound', async () => {
    const { id } = await begun()
    await house.workOnSound()
    const { sound } = await house.get(id)
    const recipe = { ...sound.usual, fromMs: 500, toMs: null, encoding: 'speech' }
    await house.call('POST', `/episodes/${id}/finish`, { version: sound.version, recipe })
    await house.workOnSound()
    expect(
      (await house.call('GET', `/episodes/${id}/preview`))
        .json()
        .item.map(({ line }: { line: string }) => line)
        .join('\n'),
    ).toContain('podcast:transcript')
    const { pageAddress } = await house.release(id)
    const feed = (await house.app.inject('/bellows-and-reeds/feed.xml')).body
    const named = [
      ...feed.matchAll(/<podcast:transcript url="([^"]+)" type="([^"]+)" language="en"( rel="captions")?\/>/g),
    ]
      .filter(([, address]) => address!.startsWith(`${pageAddress}/`))
      .map(([, address, type, rel]) => [address!.split('.').at(-1), type, Boolean(rel)])
    // podcast namespace, transcript (from memory): types as they are registered, captions for those with times.
    expect(named).toEqual([
      ['vtt', 'text/vtt', true],
      ['srt', 'application/x-subrip', true],
      ['json', 'application/json', false],
      ['html', 'text/html', false],
      ['txt', 'text/plain', false],
    ])
    for (const [format, type] of named) {
      const answer = await house.app.inject(`${pathOf(pageAddress!)}/transcript.en.${String(format)}`)
      expect(answer.statusCode).toBe(200)
      expect(String(answer.headers['content-type']).split(';')[0]).toBe(type)
      expect(answer.headers['access-control-allow-origin']).toBe('*')
      expect(answer.body).toContain('It is never the reed.')
    }
    expect((await house.app.inject(`${pathOf(pageAddress!)}/transcript.en.vtt`)).body).toContain(
      '00:00:00.500 --> 00:00:02.500',
    )
    expect((await house.app.inject(pathOf(pageAddress!))).body).toContain('It is never the reed.')
    expect((await house.app.inject(`${pathOf(pageAddress!)}/transcript.de.vtt`)).statusCode).toBe(404)
    expect((await house.app.inject(`${pathOf(pageAddress!)}/transcript.en.exe`)).statusCode).toBe(404)
  })

  it('that is corrected waits to be sent, then keeps its address with a new validator; taken away it leaves the feed', async () => {
    const { id, made } = await begun()
    const { pageAddress } = await house.release(id)
    const ask = (headers = {}) => house.app.inject({ url: `${pathOf(pageAddress!)}/transcript.en.vtt`, headers })
    const first = await ask()
    await house.call('PATCH', `/transcripts/${made.id}/cues`, {
      version: made.version,
      at: 0,
      remove: 1,
      insert: [cue('x', 0, 900, 'Corrected.')],
    })
    expect((await house.get(id)).changedSinceRelease).toBe(true)
    expect((await ask({ 'if-none-match': first.headers.etag })).statusCode).toBe(304)
    await house.step(id, 'send-changes')
    expect((await house.get(id)).changedSinceRelease).toBe(false)
    const second = await ask({ 'if-none-match': first.headers.etag })
    expect([second.statusCode, second.body.includes('Corrected.')]).toEqual([200, true])
    await house.call('DELETE', `/transcripts/${made.id}`)
    expect((await ask()).statusCode).toBe(200)
    await house.step(id, 'send-changes')
    expect((await ask()).statusCode).toBe(404)
    expect((await house.call('POST', `/transcripts/${made.id}/restoration`)).json<Transcript>().cues.length).toBe(2)
  })

  it('in several languages: one of them is spoken; a language once', async () => {
    const { id, made } = await begun()
    const german = (await bring(id, vtt, 'language=DE')).json<Transcript>()
    expect([german.language, german.isSpoken]).toEqual(['de', false])
    const spoken = await house.call('PATCH', `/transcripts/${german.id}`, { version: german.version, isSpoken: true })
    expect(spoken.json().isSpoken).toBe(true)
    const { transcripts } = (await house.call('GET', `/episodes/${id}/transcripts`)).json()
    expect(transcripts.map((each: Transcript) => [each.language, each.isSpoken])).toEqual([
      ['de', true],
      ['en', false],
    ])
    const twice = await house.call('PATCH', `/transcripts/${made.id}`, { version: made.version, language: 'de' })
    expect(twice.json().faults[0]).toMatchObject({ field: 'language', value: 'de' })
  })

  it('that takes the place of another keeps that one, and it comes back', async () => {
    const { id, made } = await begun()
    const second = (
      await bring(id, 'Tove: Another text.\n\nTove: Altogether.', 'language=en&name=new.txt')
    ).json<Transcript>()
    expect([second.id, second.hasBefore, second.isTimed, second.origin]).toEqual([made.id, true, false, 'written'])
    const back = (await house.call('POST', `/transcripts/${made.id}/before`)).json<Transcript>()
    expect(back.cues).toEqual(made.cues)
  })

  it('of another audio says that it no longer fits, until somebody says that it does', async () => {
    const { id, made } = await begun()
    await house.call('PUT', `/episodes/${id}/source`, {
      fileId: (await house.makeReady(showId, 'Other', 'sf-4.m4a')).sound.source!.id,
    })
    const [seen] = (await house.call('GET', `/episodes/${id}/transcripts`)).json().transcripts
    expect(seen.fits).toBe(false)
    const told = await house.call('PATCH', `/transcripts/${made.id}`, { version: seen.version, fits: true })
    expect(told.json().fits).toBe(true)
  })
})

describe('what is refused in words', () => {
  it.each([
    ['60 MB of text', Buffer.alloc(60_000_000, 'word '), 413, ''],
    [
      'an .srt that is an HTML page',
      '<!doctype html><html><body><p>Not found</p></body></html>',
      422,
      'name=letter.srt',
    ],
    ['nothing', ' ', 422, ''],
    ['a sound', Buffer.from([0x49, 0x44, 0x33, 0, 0, 0, 0, 0, 1, 2, 3, 0, 0, 0]), 422, ''],
  ] as const)('%s', async (_name, file, status, query) => {
    const { id } = await house.makeReady(showId, 'Refused')
    const answer = await bring(id, file as Buffer, `language=en&${query}`)
    expect(answer.statusCode).toBe(status)
    expect(answer.json().detail).toMatch(/\w/)
    expect((await house.call('GET', `/episodes/${id}/transcripts`)).json().transcripts).toEqual([])
  })
  it('captions of a text without times', async () => {
    const { made } = await begun(Buffer.from('Only words.'))
    expect((await house.call('GET', `/transcripts/${made.id}/file.srt`)).json().faults[0].field).toBe('format')
  })
  it('a stretch that is not there, and two cues with one id', async () => {
    const { made } = await begun()
    const write = (part: object) =>
      house.call('PATCH', `/transcripts/${made.id}/cues`, {
        version: made.version,
        at: 0,
        remove: 0,
        insert: [],
        ...part,
      })
    expect((await write({ at: 1, remove: 9 })).json().faults[0].field).toBe('at')
    expect((await write({ insert: [cue('c1', 0, 1, 'again')] })).json().faults[0].field).toBe('insert')
  })
})

it('a paragraph of 60,000 letters, a time beyond all measure and long comments are told as they were read', async () => {
  const long = 'One note will not stop. '.repeat(2500)
  const { made } = await begun(long)
  expect(made.cues[0]!.text.length).toBe(long.trim().length)
  const odd = `WEBVTT\n\nNOTE ${'x'.repeat(20_000)}\n\n${'n'.repeat(3000)}\n9999999:00:00.000 --> 9999999:00:01.000 ${'line:0 '.repeat(500)}\nOne\n`
  const { made: strange } = await begun(odd)
  expect((await house.call('GET', `/transcripts/${strange.id}`)).statusCode).toBe(200)
  expect((await house.call('GET', `/transcripts/${strange.id}/file.vtt`)).body).toBe(odd.replace(/ +\n/, '\n'))
})

it('20,000 cues are kept and changed', async () => {
  const words = Array.from(
    { length: 20_000 },
    (_each, at) =>
      `${at + 1}\n${new Date(at * 3000).toISOString().slice(11, 23).replace('.', ',')} --> ${new Date(at * 3000 + 2500).toISOString().slice(11, 23).replace('.', ',')}\nWord ${at}\n`,
  ).join('\n')
  const { made } = await begun(Buffer.from(words))
  expect(made.cueCount).toBe(20_000)
  const changed = await house.call('PATCH', `/transcripts/${made.id}/cues`, {
    version: made.version,
    at: 19_999,
    remove: 1,
    insert: [],
  })
  expect(changed.json<Transcript>().cueCount).toBe(19_999)
})
