import diagnostics from 'node:diagnostics_channel'
import { request } from 'node:http'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type House, openHouse } from '../../testing/house'

let house: House
let address: string
let paths: { sound: string; feed: string; page: string; show: string }

beforeAll(async () => {
  house = await openHouse()
  const show = await house.makeShow('slow-ferry')
  const { id, version } = await house.makeReady(show.id, 'The last boat')
  await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
  const { enclosureAddress } = await house.get(id)
  paths = {
    sound: new URL(enclosureAddress!).pathname,
    feed: '/slow-ferry/feed.xml',
    page: '/slow-ferry/the-last-boat',
    show: '/slow-ferry',
  }
  address = await house.app.listen({ port: 0, host: '127.0.0.1' })
})
afterAll(() => house.close())

interface Answer {
  status: number
  headers: Record<string, unknown>
  body: Buffer
}

const overLine = (path: string, method: string, headers: Record<string, string>): Promise<Answer> =>
  new Promise((resolve, reject) => {
    request(address + path, { method, headers, agent: false }, async answer => {
      const body = Buffer.concat(await answer.toArray())
      resolve({ status: answer.statusCode!, headers: { ...answer.headers }, body })
    })
      .on('error', reject)
      .end()
  })

async function byFramework(path: string, method: string, headers: Record<string, string>): Promise<Answer> {
  const answer = await house.app.inject({ method: method as 'GET', url: path, headers })
  return { status: answer.statusCode, headers: answer.headers, body: answer.rawPayload }
}

/** Without what says how the line is kept. */
const told = ({ status, headers, body }: Answer) => {
  const { date: _, connection: __, 'keep-alive': ___, 'transfer-encoding': ____, ...rest } = headers
  return { status, headers: rest, body }
}

const etag = async (path: string): Promise<string> => String((await byFramework(path, 'GET', {})).headers.etag)

/** How often the framework's routes were asked during `act`. */
async function asked(act: () => Promise<unknown>): Promise<number> {
  let count = 0
  const counting = (): void => void count++
  const channel = 'tracing:fastify.request.handler:start'
  diagnostics.subscribe(channel, counting)
  await act()
  diagnostics.unsubscribe(channel, counting)
  return count
}

const long = 'Tue, 05 Jan 2100 00:00:00 GMT'
const ago = 'Tue, 05 Jan 1999 00:00:00 GMT'

it.each(['sound', 'feed', 'page', 'show'] as const)(
  'the fast path tells of the %s what the framework’s route tells, and spares it',
  async which => {
    const path = paths[which]
    const tag = await etag(path)
    const cases: [method: string, headers: Record<string, string>][] = [
      ['GET', {}],
      ['HEAD', {}],
      ['GET', { range: 'bytes=10-29' }],
      ['GET', { range: 'bytes=-5', 'if-range': tag }],
      ['GET', { range: 'bytes=99999999-' }],
      ['HEAD', { range: 'bytes=10-29' }],
      ['GET', { 'if-none-match': tag }],
      ['HEAD', { 'if-none-match': tag }],
      ['GET', { 'if-modified-since': long }],
      ['GET', { 'if-unmodified-since': ago }],
      ['GET', { 'if-match': '"another"' }],
      ['GET', { 'accept-encoding': 'gzip' }],
      ['GET', { 'accept-encoding': 'br;q=0.5, gzip;q=0.4' }],
    ]
    for (const [method, headers] of cases) {
      let usual: Answer
      let short: Answer
      expect(await asked(async () => (usual = await byFramework(path, method, headers)))).toBe(1)
      expect(await asked(async () => (short = await overLine(path, method, headers)))).toBe(0)
      expect(told(short!), `${method} ${JSON.stringify(headers)}`).toEqual(told(usual!))
    }
  },
)

it('leaves to the framework what it does not know: other methods, other spellings, a question behind the address, an encoding that is not at hand', async () => {
  for (const [path, method, headers] of [
    [paths.sound, 'POST', {}],
    [paths.feed, 'DELETE', {}],
    [`${paths.sound}?from=app`, 'GET', {}],
    [paths.sound.toUpperCase(), 'GET', {}],
    [paths.feed.replace('ferry', 'FERRY'), 'GET', {}],
    [paths.page.toUpperCase(), 'GET', {}],
    [`${paths.show}/`, 'GET', {}],
    [`${paths.page}?t=12`, 'GET', {}],
    ['/slow-ferry/no-boat', 'GET', {}],
    [paths.feed, 'GET', { 'accept-encoding': 'identity;q=0, *;q=0' }],
    ['/media/00000000-0000-4000-8000-000000000000/0.mp3', 'GET', {}],
  ] as [string, string, Record<string, string>][]) {
    const usual = await byFramework(path, method, headers)
    const answer = await overLine(path, method, headers)
    expect(answer.status, `${method} ${path}`).toBe(usual.status)
    expect(answer.body.equals(usual.body), `${method} ${path}`).toBe(true)
  }
})
