import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { z } from 'zod'
import type { Episode } from '@contract/episodes'
import { problem } from '@contract/problem'
import { type House, openHouse, showFacts } from '../testing/house'

// A route answers 500 only for our own fault. Every route is asked with what its own schema takes, with one thing in it bad
// at a time, and with what no schema has thought of; the seed stands still, so that a failure can be met again.

interface Route {
  method: string
  url: string
  schema?: { body?: z.ZodType; querystring?: z.ZodType; params?: z.ZodType }
}

let house: House
let routes: Route[]
let ids: Record<string, string[]>

beforeAll(async () => {
  house = await openHouse()
  const show = await house.makeShow('fuzzed')
  const released = await house.makeReady(show.id, 'Released')
  await house.call('POST', `/episodes/${released.id}/release`, { version: released.version, when: { kind: 'now' } })
  const draft = await house.makeReady(show.id, 'Draft')
  const file = draft.sound.source!.id
  ids = {
    id: [show.id, released.id, draft.id, file],
    fileId: [file],
    show: ['fuzzed'],
    episode: ['released'],
    episodeId: [released.id],
    name: [`${draft.sound.source!.fingerprint.slice(0, 16)}.mp3`],
  }
  // The stream of news has no end.
  routes = house.routes.filter(({ url }) => url !== '/api/v1/events') as Route[]
})
afterAll(() => house.close())

const oddStrings = fc.constantFrom(
  '',
  ' ',
  '\0',
  '\ud800',
  '\udfff lone',
  '\u202e',
  '🪗'.repeat(200),
  'x'.repeat(5000),
  "'; DROP TABLE shows; --",
  '../../../etc/passwd',
  '%00',
  '%ZZ',
  '{{7*7}}',
  '-1',
  '1e309',
  'NaN',
  'true',
  'null',
  '[]',
  '0000-00-00T00:00',
  '9999-12-31T23:59',
  '2026-02-30T25:61',
  'Europe/Nowhere',
  'http://[::1',
  'data:text/html,x',
  'a\nb',
  '\ufeff',
  'é'.normalize('NFD'),
  '__proto__',
  'constructor',
  '1',
  'http://127.0.0.1:1/a.mp3',
)
const oddValues = fc.oneof(
  oddStrings,
  fc.constantFrom<unknown>(
    null,
    true,
    false,
    0,
    -1,
    1.5,
    2 ** 31,
    2 ** 53,
    -(2 ** 63),
    1e308,
    [],
    {},
    [[]],
    { a: { b: {} } },
    [null],
    Array.from({ length: 500 }, () => 'x'),
  ),
  fc.anything({
    maxDepth: 3,
    withBigInt: false,
    withDate: false,
    withMap: false,
    withSet: false,
    withTypedArray: false,
    withSparseArray: false,
  }),
)

/** Something that a schema of JSON takes, most of the time. */
function fitting(schema: Record<string, unknown>): fc.Arbitrary<unknown> {
  const given = schema as {
    anyOf?: Record<string, unknown>[]
    oneOf?: Record<string, unknown>[]
    const?: unknown
    enum?: unknown[]
    type?: string
    properties?: Record<string, Record<string, unknown>>
    items?: Record<string, unknown>
    format?: string
    minimum?: number
    maximum?: number
  }
  const choices = given.anyOf ?? given.oneOf
  if (choices) return fc.oneof(...choices.map(fitting))
  if ('const' in given) return fc.constant(given.const)
  if (given.enum) return fc.constantFrom(...given.enum)
  if (given.type === 'object') {
    const fields = Object.fromEntries(
      Object.entries(given.properties ?? {}).map(([name, field]) => [
        name,
        name === 'version'
          ? fc.constantFrom(1, 2, 3, 4)
          : name in showFacts
            ? fc.constant(showFacts[name as keyof typeof showFacts])
            : fitting(field),
      ]),
    )
    return fc.record(fields, { requiredKeys: Object.keys(fields) })
  }
  if (given.type === 'array') return fc.array(fitting(given.items ?? {}), { maxLength: 3 })
  if (given.type === 'boolean') return fc.boolean()
  if (given.type === 'integer' || given.type === 'number')
    return fc.integer({ min: Math.max(given.minimum ?? 0, -1000), max: Math.min(given.maximum ?? 1000, 100_000) })
  if (given.type === 'null') return fc.constant(null)
  if (given.format === 'uuid') return fc.constantFrom(...ids.id!, randomUUID())
  return fc.oneof(fc.string({ maxLength: 40 }), fc.constant('2026-12-03T06:00'), fc.constant('Europe/Zurich'))
}

/** The same with one thing in it bad, missing or too much. */
const spoilt = (good: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  fc
    .tuple(good, oddValues, fc.nat(), fc.constantFrom('replace', 'leave out', 'add', 'leave'))
    .map(([value, odd, at, how]) => {
      if (how === 'leave' || typeof value !== 'object' || value === null) return how === 'replace' ? odd : value
      const copy = structuredClone(value) as Record<string, unknown>
      const places = placesIn(copy)
      const place = places[at % Math.max(1, places.length)]
      if (how === 'add' || !place) copy.added = odd
      else if (how === 'leave out') delete place.of[place.key]
      else place.of[place.key] = odd
      return copy
    })

function placesIn(value: Record<string, unknown>): { of: Record<string, unknown>; key: string }[] {
  return Object.entries(value).flatMap(([key, inner]) => [
    { of: value, key },
    ...(inner && typeof inner === 'object' ? placesIn(inner as Record<string, unknown>) : []),
  ])
}

const jsonOf = (type: z.ZodType | undefined): Record<string, unknown> =>
  type ? (z.toJSONSchema(type, { unrepresentable: 'any', io: 'input' }) as Record<string, unknown>) : {}

function requests({
  method,
  url,
  schema,
}: Route): fc.Arbitrary<{ method: string; url: string; payload?: string; headers: Record<string, string> }> {
  const names = [...url.matchAll(/:(\w+)/g)].map(([, name]) => name!)
  const part = (name: string): fc.Arbitrary<string> =>
    fc
      .oneof({ weight: 4, arbitrary: fc.constantFrom(...(ids[name] ?? ids.id!)) }, { weight: 1, arbitrary: oddStrings })
      .map(text => encodeURIComponent(text.toWellFormed()).slice(0, 300) || '-')
  const query = schema?.querystring ? spoilt(fitting(jsonOf(schema.querystring))) : fc.constant({})
  const body = schema?.body ? spoilt(fitting(jsonOf(schema.body))) : fc.constant(undefined)
  return fc
    .tuple(
      fc.tuple(...names.map(part)),
      query,
      body,
      fc.constantFrom('application/json', 'application/json; charset=utf-8', 'text/plain', 'multipart/form-data', ''),
      fc.nat(9),
    )
    .map(([parts, asked, wanted, odd, dice]) => {
      const path = parts
        .reduce((filled, text, index) => filled.replace(`:${names[index]!}`, () => text), url)
        .replace('*', 'x')
      const search =
        asked && typeof asked === 'object'
          ? new URLSearchParams(
              Object.entries(asked).map(([key, value]) => [
                key.toWellFormed(),
                String(typeof value === 'object' ? JSON.stringify(value) : value)
                  .toWellFormed()
                  .slice(0, 2000),
              ]),
            ).toString()
          : ''
      const type = dice === 0 ? odd : 'application/json'
      return {
        method,
        url: search ? `${path}?${search}` : path,
        headers: {
          ...(dice !== 1 && { cookie: house.cookie }),
          ...(wanted !== undefined && type && { 'content-type': type }),
        },
        ...(wanted !== undefined && { payload: JSON.stringify(wanted) ?? 'null' }),
      }
    })
}

describe('two thousand odd requests', () => {
  it('meet every route, and none of them breaks the server', async () => {
    // Signing out would end the session of all that follow; audio elsewhere is asked in tests of its own, for it takes its time.
    const asked = routes.filter(({ method, url }) => !(method === 'DELETE' && url.endsWith('/session')))
    const each = Math.ceil(2000 / asked.length)
    const broken: string[] = []
    let sent = 0
    for (const route of asked) {
      for (const request of fc.sample(requests(route), { numRuns: each, seed: 20_261_125 })) {
        const answer = await house.app.inject(request as never)
        sent++
        if (answer.statusCode >= 500 && answer.statusCode !== 503)
          broken.push(
            `${request.method} ${request.url.slice(0, 120)} ${request.payload?.slice(0, 200) ?? ''} -> ${answer.statusCode}`,
          )
        if (
          answer.statusCode >= 400 &&
          request.url.startsWith('/api/') &&
          !request.url.includes('/uploads') &&
          request.method !== 'HEAD'
        ) {
          expect(answer.headers['content-type'], request.url).toContain('application/problem+json')
          expect(answer.json(), request.url).toEqual(problem.parse(answer.json()))
        }
        expect(answer.body).not.toMatch(/SELECT |INSERT INTO|ER_[A-Z]+|node_modules|at Object\./)
      }
    }
    expect(broken).toEqual([])
    expect(sent).toBeGreaterThanOrEqual(2000)
    const shows = (await house.call('GET', '/shows')).json().shows as { id: string }[]
    for (const { id } of shows) {
      const episodes = (await house.call('GET', `/shows/${id}/episodes`)).json().episodes as Episode[]
      for (const episode of episodes) expect((await house.call('GET', `/episodes/${episode.id}`)).statusCode).toBe(200)
    }
  }, 300_000)

  it.each(['/api/v1/session', '/api/v1/accounts', '/api/v1/shows'])(
    'JSON nested a hundred thousand deep is refused at %s, with or without sign-in',
    async url => {
      for (const [open, close] of [
        ['[', ']'],
        ['{"a":', '}'],
      ] as const) {
        for (const cookie of ['', house.cookie]) {
          const answer = await house.app.inject({
            method: 'POST',
            url,
            payload: `${open.repeat(100_000)}1${close.repeat(100_000)}`,
            headers: { 'content-type': 'application/json', ...(cookie && { cookie }) },
          })
          expect(answer.statusCode).toBeLessThan(500)
          expect(answer.headers['content-type']).toContain('application/problem+json')
        }
      }
    },
  )

  it('a path that is no text is refused in the form of a problem', async () => {
    const answer = await house.app.inject({ url: '/api/v1/episodes/%E0%A4%A' })
    expect([answer.statusCode, answer.headers['content-type']]).toEqual([
      400,
      'application/problem+json; charset=utf-8',
    ])
  })

  it('a method that an address does not take is named, with those that it takes', async () => {
    const answer = await house.app.inject({ method: 'PUT', url: '/api/v1/shows', headers: { cookie: house.cookie } })
    expect([answer.statusCode, answer.headers.allow]).toEqual([405, 'GET, HEAD, POST'])
    expect((await house.app.inject({ method: 'DELETE', url: '/media/artwork/x.jpg' })).statusCode).toBe(405)
  })

  it('every answer of API, feed, pages and media forbids guessing at its type', async () => {
    for (const url of [
      '/api/v1/shows',
      '/fuzzed/feed.xml',
      '/fuzzed',
      '/nowhere/at/all',
      `/media/${ids.episodeId![0]}/x.mp3`,
      '/healthz',
    ]) {
      expect(
        (await house.app.inject({ url, headers: { cookie: house.cookie } })).headers['x-content-type-options'],
        url,
      ).toBe('nosniff')
    }
    const { etag } = (await house.app.inject({ url: '/fuzzed/feed.xml' })).headers
    expect(
      (await house.app.inject({ url: '/fuzzed/feed.xml', headers: { 'if-none-match': String(etag) } })).headers,
    ).toMatchObject({ 'x-content-type-options': 'nosniff' })
    expect(
      (await house.app.inject({ method: 'OPTIONS', url: '/api/v1/uploads', headers: { cookie: house.cookie } }))
        .headers,
    ).toMatchObject({ 'tus-version': '1.0.0', 'x-content-type-options': 'nosniff' })
  })
})
