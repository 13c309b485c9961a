import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { TranscriptDraft } from '@contract/drafts'
import type { Session } from '@contract/session'
import type { Transcript, TranscriptSummary } from '@contract/transcripts'
import { type House, openHouse, sounds } from '../../testing/house'

type Answer = (request: IncomingMessage, response: ServerResponse, body: string) => void

/** A service that answers as each test wants it to. */
let answer: Answer
let asked: string[]
const service = createServer((request, response) => {
  asked.push(`${request.method} ${request.url!.split('/').slice(3).join('/')}`.trim())
  let body = ''
  request.on('data', part => (body += String(part))).on('end', () => answer(request, response, body))
})
const json = (response: ServerResponse, body: object, status = 200): void => {
  response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body))
}
const vtt = `WEBVTT

00:01.000 --> 00:03.000
<v Speaker 1>A <c.doubtful>sigh for</c> in the organ

00:03.000 --> 00:05.000
<v Speaker 2>It is never the <c.doubtful>read</c>, said <i>Agathe</i>.
`
/** At work at first, done when it is asked again. */
const usual: Answer = (request, response) => {
  if (request.method === 'PUT') json(response, { state: 'working', progress: 0.25 }, 201)
  else if (request.method === 'DELETE') response.writeHead(204).end()
  else if (request.url!.endsWith('.vtt')) response.writeHead(200, { 'content-type': 'text/vtt' }).end(vtt)
  else json(response, { state: 'done' })
}

let house: House
let showId: string
beforeAll(async () => {
  await new Promise<void>(resolve => service.listen(0, '127.0.0.1', resolve))
  const { port } = service.address() as AddressInfo
  house = await openHouse({ TRANSCRIPTION_URL: `http://127.0.0.1:${port}` })
  showId = (await house.makeShow('bellows-and-reeds')).id
})
beforeEach(() => {
  asked = []
  answer = usual
})
afterAll(async () => {
  await house.close()
  service.close().closeAllConnections()
})

const ask = (id: string, language = 'en-gb') => house.call('POST', `/episodes/${id}/draft`, { language })
const draftOf = async (id: string): Promise<TranscriptDraft | null> =>
  (await house.call('GET', `/episodes/${id}/draft`)).json<{ draft: TranscriptDraft | null }>().draft
const listOf = async (id: string): Promise<TranscriptSummary[]> =>
  (await house.call('GET', `/episodes/${id}/transcripts`)).json<{ transcripts: TranscriptSummary[] }>().transcripts
const transcriptOf = async (id: string): Promise<Transcript> =>
  (await house.call('GET', `/transcripts/${(await listOf(id))[0]!.id}`)).json()
/** Does the next step, `afterMs` later. */
async function step(afterMs = 61_000): Promise<void> {
  house.clock.moveTo(new Date(+house.clock.now() + afterMs))
  expect(await house.platform.jobs.runNext('drafting')).toBe(true)
}
const begun = async (): Promise<string> => {
  const { id } = await house.makeReady(showId, 'A letter from a chapel')
  expect((await ask(id)).statusCode).toBe(200)
  return id
}
const act = async (id: string, name: string, body: object = {}) => {
  const { version } = await house.get(id)
  const said = await house.call('POST', `/episodes/${id}/${name}`, { version, ...body })
  expect(said.statusCode, said.body).toBe(200)
}

describe('a draft', () => {
  it('is asked for, told how far it is, and comes as a transcript that nobody has read, with what was doubtful', async () => {
    const id = await begun()
    expect(await draftOf(id)).toMatchObject({ state: 'working', progress: 0, problem: null, language: 'en-gb' })
    await step()
    expect(await draftOf(id)).toMatchObject({ state: 'working', progress: 0.25 })
    await step()
    expect(await draftOf(id)).toBeNull()
    expect(asked).toEqual(['PUT', 'GET', 'GET transcript.vtt', 'DELETE'])
    const made = await transcriptOf(id)
    expect(made).toMatchObject({ origin: 'drafted', isUnread: true, isTimed: true, fits: true, language: 'en-gb' })
    expect(made.cues).toMatchObject([
      { fromMs: 1000, toMs: 3000, speaker: 'Speaker 1', text: 'A sigh for in the organ', doubtful: ['sigh for'] },
      { text: 'It is never the read, said Agathe.', doubtful: ['read'] },
    ])
  })

  it('does not go out until somebody says that it is read; what was there before does meanwhile', async () => {
    const id = await begun()
    await house.app.inject({
      method: 'POST',
      url: `/api/v1/episodes/${id}/transcripts?language=en-gb`,
      headers: { cookie: house.cookie, 'content-type': 'text/plain' },
      payload: 'Written before.',
    })
    await act(id, 'release', { when: { kind: 'now' } })
    await step()
    await step()
    const { pageAddress, changedSinceRelease } = await house.get(id)
    expect(changedSinceRelease).toBe(false)
    const out = async () =>
      (await house.app.inject(`${new URL(pageAddress!).pathname}/transcript.en-gb.txt`)).body.trim()
    expect(await out()).toBe('Written before.')
    const { id: transcriptId, version } = await transcriptOf(id)
    const text = { id: 'c1', fromMs: 1000, toMs: 3000, speaker: 'Tove', text: 'A cipher in the organ.' }
    await house.call('PATCH', `/transcripts/${transcriptId}/cues`, { version, at: 0, remove: 2, insert: [text] })
    expect((await house.get(id)).changedSinceRelease).toBe(false)
    await act(id, 'send-changes')
    expect(await out()).toBe('Written before.')
    await house.call('PATCH', `/transcripts/${transcriptId}`, { version: version + 1, isUnread: false })
    expect((await house.get(id)).changedSinceRelease).toBe(true)
    await act(id, 'send-changes')
    expect(await out()).toContain('A cipher in the organ.')
  })

  it('is of the sound that was there when it was asked for; the sound is lent for so long and to nobody else', async () => {
    let audio = ''
    answer = (request, response, body) => {
      if (request.method === 'PUT') ({ audio } = JSON.parse(body) as { audio: string })
      usual(request, response, body)
    }
    const id = await begun()
    await step()
    const path = new URL(audio).pathname
    expect(path).toMatch(/^\/api\/v1\/lent\/[\w-]{43}\/sound\.mp3$/)
    const lent = await house.app.inject({ url: path, headers: { range: 'bytes=0-9' } })
    expect([lent.statusCode, lent.rawPayload.length, lent.headers['cache-control']]).toEqual([
      206,
      10,
      'private, no-store',
    ])
    expect((await house.app.inject(`/api/v1/lent/${'x'.repeat(43)}/sound.mp3`)).statusCode).toBe(404)
    await house.bring(id, `${sounds}/br-32.mp3`)
    await step()
    expect((await house.app.inject(path)).statusCode).toBe(404)
    expect((await transcriptOf(id)).fits).toBe(false)
  })

  it('asked for twice is one; stopped it is gone, and the copyist hears of it', async () => {
    const id = await begun()
    const first = await draftOf(id)
    const [one, other] = await Promise.all([ask(id), ask(id)])
    expect([one.json().draft.id, other.json().draft.id]).toEqual([first!.id, first!.id])
    await step()
    expect((await house.call('DELETE', `/episodes/${id}/draft`)).statusCode).toBe(204)
    expect(await draftOf(id)).toBeNull()
    await step()
    expect(asked).toEqual(['PUT', 'DELETE'])
    expect(await listOf(id)).toEqual([])
    expect((await house.call('DELETE', `/episodes/${id}/draft`)).statusCode).toBe(204)
  })

  it('that is done in the moment in which it is stopped does not come', async () => {
    const id = await begun()
    await step()
    answer = (request, response, body) => {
      if (!request.url!.endsWith('.vtt')) return usual(request, response, body)
      void house.call('DELETE', `/episodes/${id}/draft`).then(() => usual(request, response, body))
    }
    await step()
    expect(await listOf(id)).toEqual([])
  })
})

describe('a copyist', () => {
  it('that is away is asked again, and told of; when it has forgotten the draft it begins anew', async () => {
    const id = await begun()
    await step()
    answer = (_request, response) => response.destroy()
    await step()
    expect(await draftOf(id)).toMatchObject({
      state: 'working',
      progress: 0.25,
      problem: 'The copyist does not answer.',
    })
    answer = (request, response, body) =>
      request.method === 'GET' && asked.filter(each => each === 'PUT').length === 1
        ? json(response, { why: 'There is no such draft here.' }, 404)
        : usual(request, response, body)
    await step()
    expect(await draftOf(id)).toMatchObject({ state: 'working', problem: null })
    await step()
    expect((await transcriptOf(id)).cueCount).toBe(2)
  })

  it('that stays away for twelve hours is given up, and can be asked again', async () => {
    answer = (_request, response) => response.destroy()
    const id = await begun()
    await step()
    await step(13 * 3600_000)
    const failed = await draftOf(id)
    expect(failed).toMatchObject({ state: 'failed', problem: expect.stringContaining('twelve hours') })
    answer = usual
    await ask(id)
    expect((await draftOf(id))!.id).not.toBe(failed!.id)
    await step()
    await step()
    expect((await transcriptOf(id)).origin).toBe('drafted')
  })

  it('that never ends is given up after an hour in which it did not get on', async () => {
    answer = (request, response) =>
      request.method === 'DELETE'
        ? response.writeHead(204).end()
        : json(response, { state: 'working', progress: 0.9999 })
    const id = await begun()
    for (let minute = 0; minute < 55; minute += 11) await step(11 * 60_000)
    expect(await draftOf(id)).toMatchObject({ state: 'working', problem: null })
    await step(11 * 60_000)
    await step(11 * 60_000)
    expect(await draftOf(id)).toMatchObject({
      state: 'failed',
      problem: 'The copyist has not got on for an hour.',
    })
    expect(asked.at(-1)).toBe('DELETE')
  })

  it.each<[what: string, answer: Answer, problem: string]>([
    [
      'answers HTML',
      (_request, response) => response.writeHead(200, { 'content-type': 'text/html' }).end('<h1>Welcome</h1>'),
      'The copyist answers with a web page.',
    ],
    [
      'answers something else',
      (_request, response) => json(response, { state: 'thinking' }),
      'The copyist answers something that its interface does not know.',
    ],
    [
      'says that it is further than the end',
      (_request, response) => json(response, { state: 'working', progress: 7 }),
      'The copyist answers something that its interface does not know.',
    ],
    [
      'answers with an error',
      (_request, response) => json(response, {}, 503),
      'The copyist answers with an error of its own (503).',
    ],
    [
      'sends on elsewhere',
      (_request, response) => response.writeHead(302, { location: 'http://127.0.0.1:9/' }).end(),
      'The copyist does not answer.',
    ],
    [
      'answers without an end',
      (_request, response) => {
        response.writeHead(200, { 'content-type': 'application/json' })
        for (let i = 0; i < 100; i++) response.write(' '.repeat(1000))
      },
      'The copyist answers more than it should.',
    ],
    [
      'breaks off in the middle of an answer',
      (_request, response) => {
        response.writeHead(200, { 'content-type': 'application/json', 'content-length': '100' }).write('{"state"')
        setTimeout(() => response.destroy(), 20)
      },
      'The copyist does not answer.',
    ],
  ])('that %s is told of and asked again', async (_what, given, problem) => {
    answer = given
    const id = await begun()
    await step()
    expect(await draftOf(id)).toMatchObject({ state: 'working', problem })
    answer = usual
    await step()
    expect((await listOf(id)).length).toBe(1)
  })

  it.each<[what: string, answer: Answer, problem: string]>([
    [
      'says that it failed',
      (_request, response) => json(response, { state: 'failed', why: 'this is a stand-in.' }),
      'The copyist says: this is a stand-in.',
    ],
    [
      'refuses',
      (_request, response) => json(response, { why: 'No room.' }, 403),
      'The copyist refused (403): No room.',
    ],
    [
      'sends a page as the draft',
      (request, response, body) =>
        request.url!.endsWith('.vtt')
          ? response.writeHead(200).end('<html>Sign in</html>')
          : usual(request, response, body),
      'What the copyist sent cannot be taken. A WebVTT file begins with the word WEBVTT.',
    ],
    [
      'sends a draft without words',
      (request, response, body) =>
        request.url!.endsWith('.vtt') ? response.writeHead(200).end('WEBVTT\n') : usual(request, response, body),
      'The copyist heard no words.',
    ],
    [
      'forgets again and again',
      (request, response) =>
        request.method === 'GET'
          ? json(response, { why: 'Unknown.' }, 404)
          : json(response, { state: 'working', progress: 0.1 }),
      'The copyist has forgotten the draft 5 times while it was at work.',
    ],
  ])('that %s: the draft fails with its words, and nothing else changes', async (_what, given, problem) => {
    answer = given
    const id = await begun()
    for (let steps = 0; (await draftOf(id))?.state === 'working' && steps < 8; steps++) await step()
    expect(await draftOf(id)).toMatchObject({ state: 'failed', problem })
    expect(await listOf(id)).toEqual([])
    expect((await house.call('DELETE', `/episodes/${id}/draft`)).statusCode).toBe(204)
    expect(await draftOf(id)).toBeNull()
  })
})

it('where the copyist stands is told to whoever is signed in, and to nobody else', async () => {
  const session = async (headers = {}) => (await house.app.inject({ url: '/api/v1/session', headers })).json<Session>()
  expect((await session({ cookie: house.cookie })).transcriptionHost).toMatch(/^127\.0\.0\.1:\d+$/)
  expect((await session()).transcriptionHost).toBeNull()
})

it('without audio, or without a copyist, no draft is asked for', async () => {
  const { id } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json<{ id: string }>()
  expect((await ask(id)).json()).toMatchObject({ code: 'not-ready', detail: expect.stringContaining('no audio') })
  expect((await ask(id, 'tlh!')).json()).toMatchObject({ code: 'bad-input' })
  const alone = await openHouse()
  const other = await alone.makeReady((await alone.makeShow('slow-ferry')).id, 'The morning boat')
  const refused = await alone.call('POST', `/episodes/${other.id}/draft`, { language: 'en' })
  expect(refused.json()).toMatchObject({ code: 'not-ready', detail: expect.stringContaining('TRANSCRIPTION_URL') })
  await alone.close()
})
