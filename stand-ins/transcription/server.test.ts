import { createServer } from 'node:http'
import type { AddressInfo, Server } from 'node:net'
import { afterAll, beforeAll, expect, it } from 'vitest'
import webvtt from 'webvtt-parser'
import description from './openapi.json' with { type: 'json' }
import { transcriptionServer } from './server'
import { withSlips } from './slips'
import { sha256Of, wordsIn } from './sounds'

const said = `WEBVTT

00:00:01.000 --> 00:00:03.000
<v Tove Aldermoor>Benno Quillhart finds the reed.

00:00:03.000 --> 00:00:05.000
<v Tove Aldermoor>It is in the wax.
`
const sound = Buffer.from('the bytes of a known sound')

const audio = createServer((request, response) => {
  if (request.url === '/known.mp3') response.end(sound)
  else if (request.url === '/other.mp3') response.end('other bytes')
  else response.writeHead(404).end()
})
let service: Server
const addressOf = (server: Server): string => `http://127.0.0.1:${(server.address() as AddressInfo).port}`
const listen = (server: Server) => new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
beforeAll(async () => {
  const known = new Map([[await sha256Of([sound] as unknown as AsyncIterable<Uint8Array>), said]])
  service = transcriptionServer(known, 100)
  await Promise.all([listen(audio), listen(service)])
})
afterAll(() => {
  for (const server of [audio, service]) server.close()
})

const call = (method: string, path: string, body?: unknown) =>
  fetch(`${addressOf(service)}${path}`, { method, ...(body !== undefined && { body: JSON.stringify(body) }) })
const begin = (id: string, file: string) =>
  call('PUT', `/drafts/${id}`, { audio: `${addressOf(audio)}/${file}`, language: 'en' })
const stateOf = async (id: string) => (await call('GET', `/drafts/${id}`)).json() as Promise<Record<string, unknown>>
const ended = (id: string) => expect.poll(async () => (await stateOf(id)).state).not.toBe('working')

it('drafts a sound that it knows, and says how far it is', async () => {
  const first = await begin('one', 'known.mp3')
  expect([first.status, await first.json()]).toEqual([201, { state: 'working', progress: 0 }])
  expect((await begin('one', 'known.mp3')).status).toBe(200)
  expect((await call('GET', '/drafts/one/transcript.vtt')).status).toBe(404)
  await expect.poll(async () => (await stateOf('one')).progress).toBeGreaterThan(0.3)
  await ended('one')
  const file = await call('GET', '/drafts/one/transcript.vtt')
  expect(file.headers.get('content-type')).toBe('text/vtt; charset=utf-8')
  expect(await file.text()).toContain('<c.doubtful>Ben Oh</c>')
  expect((await call('DELETE', '/drafts/one')).status).toBe(204)
  expect((await call('GET', '/drafts/one')).status).toBe(404)
})

it('says honestly that it cannot listen to a sound that it does not know', async () => {
  await begin('other', 'other.mp3')
  await ended('other')
  expect(await stateOf('other')).toMatchObject({ state: 'failed', why: expect.stringContaining('stand-in') })
  await begin('none', 'none.mp3')
  await ended('none')
  expect(await stateOf('none')).toMatchObject({ why: 'the audio’s address answers with status 404.' })
})

it('refuses what it cannot read, and answers at every address that its description names', async () => {
  const why = async (body: unknown) => {
    const answer = await call('PUT', '/drafts/bad', body)
    return [answer.status, ((await answer.json()) as { why: string }).why]
  }
  expect(await why({})).toEqual([400, 'audio=null: an address that begins with http.'])
  expect(await why({ audio: 'http://a.example/' })).toEqual([400, 'language=null: a language tag, such as en.'])
  expect(await why('x'.repeat(20_000))).toEqual([400, 'The request cannot be read.'])
  expect((await call('GET', '/nowhere')).status).toBe(404)
  expect(await (await call('GET', '/openapi.json')).json()).toEqual(description)
  for (const [path, methods] of Object.entries(description.paths))
    for (const method of Object.keys(methods).filter(each => each !== 'parameters')) {
      const { status } = await call(
        method.toUpperCase(),
        path.replace('{id}', 'unknown'),
        method === 'put' ? {} : undefined,
      )
      const { responses } = (methods as Record<string, { responses?: object }>)[method]!
      expect(Object.keys(responses!), `${method} ${path}`).toContain(String(status))
    }
})

it('makes the slips that machines make, the same each time, and leaves the file WebVTT', async () => {
  const words = await wordsIn('demo/sounds')
  expect(words.size).toBe(9)
  for (const vtt of words.values()) {
    const heard = withSlips(vtt)
    expect(withSlips(vtt)).toBe(heard)
    // W3C WebVTT, by its reference parser.
    const { cues, errors } = new webvtt.WebVTTParser().parse(heard, 'metadata')
    expect([errors, cues.length]).toEqual([[], vtt.match(/-->/g)!.length])
    expect(heard).toMatch(/<c\.doubtful>[^<]+<\/c>/)
    expect(heard).toMatch(/<v Speaker 2>/)
    expect(heard.replace(/<[^>]+>/g, '')).not.toBe(vtt.replace(/<[^>]+>/g, ''))
  }
})
