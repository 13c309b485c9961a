import { once } from 'node:events'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { brotliDecompressSync, gunzipSync } from 'node:zlib'
import type { FastifyInstance } from 'fastify'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import type { Episode, EpisodePage } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { type EpisodeField, episodeFields, fields, unsetText } from '@core/episode/fields'
import { createApp } from '../../app/app'
import { createEvents } from '../../platform/events/events'
import { FeedState } from './models'
import { type House, openHouse, squarePicture } from '../../testing/house'

let house: House
/** A host elsewhere: a feed, a page, nothing, and an address that leads back here. */
let there: { address: string; stop(): Promise<unknown> }
async function openThere(): Promise<typeof there> {
  const server = createServer(({ url }, response) => {
    if (url === '/back') response.writeHead(302, { location: 'http://lake.example/slow-ferry/feed.xml' }).end()
    else if (url === '/feed.xml') response.end('<?xml version="1.0"?><rss version="2.0"><channel/></rss>')
    else if (url === '/page') response.end('<!doctype html><title>A page</title>')
    else response.writeHead(404).end()
  }).listen(0, '127.0.0.1')
  await once(server, 'listening')
  const { port } = server.address() as AddressInfo
  return { address: `http://127.0.0.1:${port}`, stop: () => once(server.close(), 'close') }
}
beforeAll(async () => {
  there = await openThere()
  house = await openHouse({ FETCH_ALLOW: `${there.address.slice('http://'.length)},lake.example:80` })
  const show = await house.makeShow('slow-ferry')
  const episode = (await house.makeReady(show.id, 'The last boat')) as Episode
  await house.call('POST', `/episodes/${episode.id}/release`, { version: episode.version, when: { kind: 'now' } })
  await house.makeReady(show.id, 'A draft that nobody sees')
  house.clock.moveBy(5_000)
})
afterAll(async () => {
  await house.close()
  await there.stop()
})

const get = (headers: Record<string, string> = {}, method: 'GET' | 'HEAD' = 'GET') =>
  house.app.inject({ method, url: '/slow-ferry/feed.xml', headers })

/** What is read of released episodes from now on. */
function readings(): () => string[] {
  const spy = vi.spyOn(house.platform.database, 'query')
  return () => {
    const statements = spy.mock.calls.map(([statement]) => String(statement))
    spy.mockRestore()
    return statements
      .filter(statement => /JOIN episode_files/.test(statement))
      .map(statement => (/e\.released/.test(statement) ? 'what is told of them' : 'which are out'))
  }
}

// RFC 9110: sections 8.8 (validators), 12.5.3 (content coding), 13 (conditional requests).
describe('serving a feed', () => {
  it('has the right type, a strong entity tag and a date, and released episodes only', async () => {
    const answer = await get()
    expect(answer.headers).toMatchObject({
      'content-type': 'application/rss+xml; charset=utf-8',
      etag: expect.stringMatching(/^"[\w-]+"$/),
      'last-modified': 'Tue, 10 Mar 2026 05:00:01 GMT',
    })
    expect(answer.body).toContain('The last boat')
    expect(answer.body).not.toContain('A draft that nobody sees')
  })

  it('answers 304 without a body to its own entity tag, to a list with it, and to its date', async () => {
    const {
      headers: { etag, 'last-modified': modified },
    } = await get()
    const conditions: [string, string][] = [
      ['if-none-match', String(etag)],
      ['if-none-match', `"other", W/${String(etag)}`],
      ['if-none-match', '*'],
      ['if-modified-since', String(modified)],
    ]
    for (const [name, value] of conditions) {
      const answer = await get({ [name]: value })
      expect([answer.statusCode, answer.body], `${name}: ${value}`).toEqual([304, ''])
      expect(answer.headers.etag).toBe(etag)
    }
  })

  it('reads none of its bytes for whoever has it, when it is asked for the first time after a start', async () => {
    const {
      headers: { etag, 'last-modified': modified },
    } = await get()
    const app = await createApp(house.platform)
    const query = house.platform.database.query
    const statements: string[] = []
    const spy = vi.spyOn(house.platform.database, 'query').mockImplementation(function (
      this: typeof house.platform.database,
      ...given: Parameters<typeof house.platform.database.query>
    ) {
      statements.push(String(given[0]))
      return query.apply(this, given)
    } as never)
    for (const headers of [{ 'if-none-match': String(etag) }, { 'if-modified-since': String(modified) }]) {
      const answer = await app.inject({ url: '/slow-ferry/feed.xml', headers })
      expect([answer.statusCode, answer.headers.etag, answer.body]).toEqual([304, etag, ''])
    }
    spy.mockRestore()
    // The second time it is known.
    expect(statements.filter(statement => /feed_states/.test(statement))).toHaveLength(1)
    expect(statements.filter(statement => /gzip|brotli/.test(statement))).toEqual([])
    await app.close()
  })

  it('answers 200 to another tag, also when the date would match, and to an unreadable date', async () => {
    const {
      headers: { 'last-modified': modified },
    } = await get()
    expect((await get({ 'if-none-match': '"other"', 'if-modified-since': String(modified) })).statusCode).toBe(200)
    expect((await get({ 'if-modified-since': 'yesterday' })).statusCode).toBe(200)
    expect((await get({ 'if-modified-since': 'Mon, 09 Mar 2026 05:00:00 GMT' })).statusCode).toBe(200)
    expect((await get({ 'if-match': '"other"' })).statusCode).toBe(412)
  })

  it('is sent as brotli or gzip, each with an entity tag of its own', async () => {
    const plain = await get()
    const gzip = await get({ 'accept-encoding': 'gzip' })
    const br = await get({ 'accept-encoding': 'gzip, deflate, br' })
    expect(gunzipSync(gzip.rawPayload).toString()).toBe(plain.body)
    expect(brotliDecompressSync(br.rawPayload).toString()).toBe(plain.body)
    expect([gzip.headers['content-encoding'], br.headers['content-encoding']]).toEqual(['gzip', 'br'])
    expect(new Set([plain, gzip, br].map(answer => answer.headers.etag)).size).toBe(3)
    expect(gzip.headers.vary).toBe('accept-encoding')
    expect((await get({ 'accept-encoding': 'br;q=0, gzip' })).headers['content-encoding']).toBe('gzip')
    expect((await get({ 'accept-encoding': 'brotli' })).headers['content-encoding']).toBeUndefined()
    expect((await get({ 'accept-encoding': 'gzip', 'if-none-match': String(gzip.headers.etag) })).statusCode).toBe(304)
  })

  it('answers HEAD with the length and without the body', async () => {
    const [whole, head] = [await get(), await get({}, 'HEAD')]
    expect(head.body).toBe('')
    expect(head.headers['content-length']).toBe(String(Buffer.byteLength(whole.body)))
  })

  it('changes its tag when an episode changes, and only then', async () => {
    const before = (await get()).headers.etag
    expect((await get()).headers.etag).toBe(before)
    const { id } = (await house.call('GET', '/shows/at/slow-ferry')).json()
    const draft = ((await house.call('GET', `/shows/${id}/episodes`)).json() as EpisodePage).episodes[0]!
    await house.call('PATCH', `/episodes/${draft.id}`, {
      version: (await house.call('GET', `/episodes/${draft.id}`)).json().version,
      text: { title: 'Still a draft' },
    })
    expect((await get()).headers.etag).toBe(before)
    const show = (await house.call('GET', `/shows/${id}`)).json()
    await house.call('PATCH', `/shows/${id}`, { version: show.version, description: 'Five minutes.' })
    expect((await get()).headers.etag).not.toBe(before)
  })

  it('answers in full where two changes within one second share a date that was sent', async () => {
    const show = (await house.call('GET', '/shows/at/slow-ferry')).json()
    const describe = async (version: number, description: string) =>
      (await house.call('PATCH', `/shows/${show.id}`, { version, description })).json()
    house.clock.moveTo(new Date('2026-03-10T06:00:00.100Z'))
    const { version } = await describe(show.version, 'The first of two.')
    const {
      headers: { 'last-modified': sent },
    } = await get()
    expect(Date.parse(String(sent))).toBeLessThanOrEqual(+house.clock.now())
    house.clock.moveBy(500)
    await describe(version, 'The second of two.')
    house.clock.moveBy(60_000)
    const later = await get({ 'if-modified-since': String(sent) })
    expect([later.statusCode, later.body.includes('The second of two.')]).toEqual([200, true])
    expect((await get({ 'if-modified-since': String(later.headers['last-modified']) })).statusCode).toBe(304)
  })

  it('does not change where nothing did', async () => {
    const show = (await house.call('GET', '/shows/at/slow-ferry')).json()
    const before = await get()
    house.clock.moveBy(10_000)
    const same = await house.call('PATCH', `/shows/${show.id}`, {
      version: show.version,
      name: show.name,
      description: show.description,
      category: show.category,
      explicit: show.explicit,
    })
    expect(same.json().version).toBe(show.version)
    const {
      headers: { etag, 'last-modified': modified },
    } = await get()
    expect([etag, modified]).toEqual([before.headers.etag, before.headers['last-modified']])
  })

  it.each([
    ['yesterday', 200],
    ['2030-01-01', 200],
    ['1893456000000', 200],
    ['Tue, 01 Jan 2030 00:00:00 GMT', 304],
    ['Tuesday, 01-Jan-30 00:00:00 GMT', 304],
  ])('takes If-Modified-Since: %s for what it is', async (date, status) =>
    expect((await get({ 'if-modified-since': date })).statusCode).toBe(status),
  )

  // RFC 9110 section 12.5.3.
  it.each([
    ['gzip;q=0.5, br;q=0.9', 'br'],
    ['br;q=0.2, gzip;q=0.8', 'gzip'],
    ['identity;q=0.5, gzip;q=0.1', undefined],
    ['*', 'br'],
    ['gzip;q=0, br;q=0', undefined],
    ['identity;q=0, gzip', 'gzip'],
    ['', undefined],
  ])('comes as Accept-Encoding %j weighs it', async (accepted, encoding) => {
    const answer = await get({ 'accept-encoding': accepted })
    expect([answer.statusCode, answer.headers['content-encoding']]).toEqual([200, encoding])
  })
  it('is not acceptable where the request takes no encoding at all', async () =>
    expect((await get({ 'accept-encoding': 'identity;q=0' })).json()).toMatchObject({
      status: 406,
      code: 'not-acceptable',
    }))

  it('says which methods it takes, and lets pages of other sites ask', async () => {
    const refused = await house.app.inject({ method: 'POST', url: '/slow-ferry/feed.xml' })
    expect([refused.statusCode, refused.headers.allow]).toEqual([405, 'GET, HEAD, OPTIONS'])
    const asked = await house.app.inject({
      method: 'OPTIONS',
      url: '/slow-ferry/feed.xml',
      headers: {
        origin: 'https://player.example',
        'access-control-request-method': 'GET',
        'access-control-request-headers': 'if-none-match',
      },
    })
    expect(asked.statusCode).toBe(204)
    expect(asked.headers).toMatchObject({
      'access-control-allow-origin': '*',
      'access-control-allow-methods': 'GET, HEAD',
      'access-control-allow-headers': expect.stringContaining('if-none-match'),
    })
    expect((await get()).headers['access-control-expose-headers']).toContain('etag')
    expect((await get()).headers['x-content-type-options']).toBe('nosniff')
  })

  it('leads another spelling of its address to the one that it has', async () => {
    const answer = await house.app.inject({ url: '/Slow-FERRY/feed.xml' })
    expect([answer.statusCode, answer.headers.location]).toEqual([301, 'http://lake.example/slow-ferry/feed.xml'])
  })

  it('knows no other show', async () =>
    expect((await house.app.inject({ url: '/nowhere/feed.xml' })).statusCode).toBe(404))
})

describe('the states of a feed', () => {
  const change = async (facts: object): Promise<Show> => {
    const { id, version } = (await house.call('GET', '/shows/at/slow-ferry')).json() as Show
    house.clock.moveBy(5_000)
    const answer = await house.call('PATCH', `/shows/${id}`, { version, ...facts })
    expect(answer.statusCode, answer.body).toBe(200)
    return answer.json()
  }
  const states = (name = 'feed.xml'): Promise<FeedState[]> =>
    FeedState.findAll({ where: { name }, order: [['revision', 'ASC']] })

  it('are kept where they differ, and its date moves only then', async () => {
    await change({ description: 'As it was.' })
    house.clock.moveBy(5_000)
    const before = await get()
    const count = (await states()).length
    // Listeners of another zone: nothing of that stands in the feed. A name and back again is the same feed.
    await change({ name: 'Slow Ferries' })
    await change({ name: 'Bellows & Reeds' })
    const after = await get()
    expect([after.headers.etag, after.headers['last-modified'], after.body]).toEqual([
      before.headers.etag,
      before.headers['last-modified'],
      before.body,
    ])
    expect(await states()).toHaveLength(count)
    await change({ description: 'As it is now.' })
    const changed = await get()
    expect(changed.headers.etag).not.toBe(before.headers.etag)
    const all = await states()
    expect(all).toHaveLength(count + 1)
    expect(gunzipSync(all.at(-1)!.gzip).toString()).toBe(changed.body)
    expect(all.map(({ brotli }) => brotli !== null)).toEqual(all.map((_state, at) => at === all.length - 1))
  })

  it('are written by one process, and sent as they are by another that was not there', async () => {
    await change({ description: 'Written once.' })
    const told = (await get()).body
    const reads = readings()
    const app = await createApp(house.platform)
    expect((await app.inject({ url: '/slow-ferry/feed.xml' })).body).toBe(told)
    expect(reads()).toEqual([])
    await app.close()
  })

  it('come as JSON Feed, too, and in parts where that was chosen', async () => {
    const show = await house.makeShow('in-parts')
    for (let number = 1; number <= 12; number++) {
      const { id, version } = (await house.makeReady(show.id, `Part ${number}`)) as Episode
      house.clock.moveBy(60_000)
      await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
    }
    const at = (path: string) => house.app.inject({ url: `/in-parts/${path}` })
    const json = await at('feed.json')
    expect(json.headers['content-type']).toBe('application/feed+json; charset=utf-8')
    expect(json.json().items).toHaveLength(12)
    expect((await at('parts/2/feed.xml')).statusCode).toBe(404)
    const { version } = (await house.call('GET', `/shows/${show.id}`)).json() as Show
    const answer = await house.call('PATCH', `/shows/${show.id}`, { version, feedFacts: { itemsPerPart: 10 } })
    expect(answer.json().feedFacts).toMatchObject({ itemsPerPart: 10, isLocked: true })
    const titles = ({ body }: { body: string }) => [...body.matchAll(/<title>(Part \d+)</g)].map(([, title]) => title)
    expect(titles(await at('feed.xml'))).toHaveLength(10)
    expect(titles(await at('parts/2/feed.xml'))).toEqual(['Part 2', 'Part 1'])
    // JSON Feed 1.1: "next_url is the URL of a feed that provides the next n items".
    const [first, second] = [(await at('feed.json')).json(), (await at('parts/2/feed.json')).json()]
    expect(first).toMatchObject({
      feed_url: 'http://lake.example/in-parts/feed.json',
      next_url: 'http://lake.example/in-parts/parts/2/feed.json',
    })
    expect(second.feed_url).toBe(first.next_url)
    expect(second.next_url).toBeUndefined()
    expect([...first.items, ...second.items].map(({ title }) => title)).toEqual(
      json.json().items.map(({ title }: { title: string }) => title),
    )
    expect((await at('parts/2/feed.xml')).body).toContain(
      '<atom:link rel="alternate" href="http://lake.example/in-parts/parts/2/feed.json" type="application/feed+json"/>',
    )
    expect((await at('parts/3/feed.xml')).statusCode).toBe(404)
    expect((await at('parts/1/feed.xml')).statusCode).toBe(404)
  })

  it('are written anew by a house that is found at another address, for the same revision too', async () => {
    const before = await get()
    const other = {
      ...house.platform,
      configuration: { ...house.platform.configuration, publicUrl: 'https://new.example' },
    }
    const app = await createApp(other)
    const moved = await app.inject({ url: '/slow-ferry/feed.xml' })
    expect(moved.body).toContain('<link>https://new.example/slow-ferry<')
    expect(moved.headers.etag).not.toBe(before.headers.etag)
    await app.close()
    await change({ description: 'Back again.' })
    expect((await get()).body).toContain('<link>http://lake.example/slow-ferry<')
  })

  it('say where it has moved to, and lead there when that was chosen', async () => {
    const { address } = there
    await change({ feedFacts: { movedTo: `${address}/feed.xml` } })
    expect((await get()).body).toContain(`<itunes:new-feed-url>${address}/feed.xml<`)
    await change({ feedFacts: { isRedirected: true } })
    const { statusCode, headers } = await get()
    // It can be undone, and whoever kept it would lead in a circle then.
    expect([statusCode, headers.location, headers['cache-control']]).toEqual([301, `${address}/feed.xml`, 'no-cache'])
    await change({ feedFacts: { movedTo: null, isRedirected: false } })
    expect((await get()).statusCode).toBe(200)
  })

  it('lead to nowhere where no feed answers, and not in a circle, however the circle is spelt', async () => {
    const own = 'http://lake.example/slow-ferry'
    for (const [movedTo, words] of [
      [`${own}/feed.xml?from=here`, 'does not lead back'],
      [`${own}/feed.xml#top`, 'does not lead back'],
      ['http://LAKE.example:80/Slow-Ferry/feed.xml', 'does not lead back'],
      [`${own}/%66eed.xml`, 'does not lead back'],
      [`${own}/feed.json`, 'does not lead back'],
      [`${own}/parts/2/feed.xml`, 'does not lead back'],
      [own, 'does not lead back'],
      [`${there.address}/back`, 'it leads to http://lake.example/slow-ferry/feed.xml'],
      [`${there.address}/gone`, 'this one answers 404'],
      [`${there.address}/page`, 'what answers there is none'],
      ['https://nobody.invalid/feed.xml', 'An address where a feed answers.'],
    ] as const) {
      const { id, version } = (await house.call('GET', '/shows/at/slow-ferry')).json() as Show
      const refused = await house.call('PATCH', `/shows/${id}`, {
        version,
        feedFacts: { movedTo, isRedirected: true },
      })
      expect([refused.statusCode, refused.json().faults?.[0].field], movedTo).toEqual([422, 'feedFacts.movedTo'])
      expect(refused.json().faults[0].rule, movedTo).toContain(words)
    }
    // Nor over another show of the house, at an address that it had before.
    const other = await house.makeShow('round-about')
    const moved = await house.call('POST', `/shows/${other.id}/address`, {
      version: other.version,
      slug: 'round-again',
    })
    expect(moved.statusCode, moved.body).toBe(200)
    await change({ feedFacts: { movedTo: `${there.address}/feed.xml`, isRedirected: true } })
    const { version } = moved.json() as Show
    const back = await house.call('PATCH', `/shows/${other.id}`, {
      version,
      feedFacts: { movedTo: `${own}/feed.xml`, isRedirected: false },
    })
    expect(back.statusCode).toBe(200)
    await change({ feedFacts: { movedTo: null, isRedirected: false } })
  })

  it('have a date that never goes back, though the clock of the house does', async () => {
    const before = await get()
    house.clock.moveBy(-3600_000)
    await change({ description: 'Written while the clock was an hour late.' })
    const after = await get({ 'if-modified-since': String(before.headers['last-modified']) })
    expect(after.statusCode).toBe(200)
    expect(after.body).toContain('an hour late')
    house.clock.moveBy(3600_000)
  })

  it('refuse facts that are none, by field, value and rule', async () => {
    const { id, version } = (await house.call('GET', '/shows/at/slow-ferry')).json() as Show
    for (const [facts, field] of [
      [{ movedTo: 'new.example' }, 'feedFacts.movedTo'],
      [{ movedTo: 'http://lake.example/slow-ferry/feed.xml' }, 'feedFacts.movedTo'],
      [{ secondCategory: { category: 'Tides', subcategory: null } }, 'feedFacts.secondCategory'],
      [{ itemsPerPart: 3 }, 'feedFacts.itemsPerPart'],
      [{ funding: [{ words: 'Give', address: 'here' }] }, 'feedFacts.funding.0.address'],
      [{ webmaster: 'nobody' }, 'feedFacts.webmaster'],
      [
        {
          seasonNames: [
            { season: 1, name: 'One' },
            { season: 1, name: 'Two' },
          ],
        },
        'feedFacts.seasonNames',
      ],
    ] as const) {
      const answer = await house.call('PATCH', `/shows/${id}`, { version, feedFacts: facts })
      expect([answer.statusCode, answer.json().faults?.[0]?.field]).toEqual([422, field])
      expect(answer.json().faults[0].rule).toMatch(/\S/)
    }
  })
})

describe('any number of processes', () => {
  it('tell the same: what another changes is told within half a second, what a process changes itself at once', async () => {
    const events = createEvents(house.platform.database, house.clock, () => undefined)
    const app = await createApp({ ...house.platform, events })
    const told = async (from: FastifyInstance) => (await from.inject({ url: '/slow-ferry/feed.xml' })).body
    const show = (await house.call('GET', '/shows/at/slow-ferry')).json() as Show
    expect(await told(app)).toBe(await told(house.app))
    await house.call('PATCH', `/shows/${show.id}`, { version: show.version, description: 'Told by both.' })
    expect(await told(house.app)).toContain('Told by both.')
    await expect.poll(() => told(app), { interval: 20 }).toContain('Told by both.')
    await events.stop()
    await app.close()
  })

  it('write a feed once for all who ask for it together', async () => {
    const reads = readings()
    const { id, version } = (await house.call('GET', '/shows/at/slow-ferry')).json() as Show
    await house.call('PATCH', `/shows/${id}`, { version, description: 'Asked for by fifty.' })
    const answers = await Promise.all(Array.from({ length: 50 }, () => get()))
    expect(new Set(answers.map(({ body }) => body)).size).toBe(1)
    expect(answers[0]!.body).toContain('Asked for by fifty.')
    // Once for which episodes there are; of those themselves nothing changed.
    expect(reads()).toEqual(['which are out'])
  })
})

describe('where a field appears', () => {
  const values: Record<EpisodeField, [unknown, unknown]> = {
    title: ['Before', 'After'],
    number: [1, 2],
    season: [3, 4],
    kind: ['full', 'bonus'],
    notes: ['<p>Before</p>', '<p>After</p>'],
    hook: ['', 'Listen'],
    tags: [[], ['reeds', 'lake']],
    people: [[], [{ name: 'Odile', role: 'Guest', address: 'https://lake.example/odile' }]],
    links: [[], [{ words: 'The list', address: 'https://lake.example/list' }]],
    chapters: [null, [{ id: 'a', fromMs: 0, title: 'The quay', address: null, pictureId: null, isListed: true }]],
    soundbites: [[], [{ id: 'a', fromMs: 0, toMs: 1000, title: 'The bell' }]],
    mix: [null, { version: 1, pieces: [], beds: [] }],
    artworkId: [null, 'brought'],
    extras: [
      unsetText.extras,
      {
        explicit: true,
        author: 'Odile',
        page: 'https://lake.example/page',
        discussion: 'https://lake.example/talk',
        discussionProtocol: 'activitypub',
        numberShown: 'Chapter 2',
        isPromotion: true,
        licence: 'cc-by-4.0',
        place: 'The workshop',
      },
    ],
  }
  /** The elements of the only item, by their names. */
  const item = async (slug: string): Promise<Map<string, string>> => {
    const { body } = await house.app.inject({ url: `/${slug}/feed.xml` })
    const inside = /<item>([\s\S]*)<\/item>/.exec(body)![1]!
    const told = new Map<string, string>()
    for (const [whole, name] of inside.matchAll(/<([\w:]+)[^>]*?(?:\/>|>[\s\S]*?<\/\1>)/g))
      told.set(name!, (told.get(name!) ?? '') + whole)
    return told
  }

  async function bringArtwork(): Promise<string> {
    const { body } = await house.app.inject({
      method: 'POST',
      url: '/api/v1/artwork',
      headers: { cookie: house.cookie, 'content-type': 'application/octet-stream' },
      payload: await squarePicture(1500),
    })
    return (JSON.parse(body) as { id: string }).id
  }

  it.each(episodeFields)('a change of %s changes the elements that the registry names, and no others', async field => {
    const [before, wanted] = values[field]
    const after = wanted === 'brought' ? await bringArtwork() : wanted
    const show = await house.makeShow(`appears-${field.toLowerCase()}`)
    const { id } = await house.makeReady(show.id, 'Before')
    const step = async (path: string, more: object = {}): Promise<void> => {
      const { version } = await house.get(id)
      const answer = await house.call(path ? 'POST' : 'PATCH', `/episodes/${id}${path}`, { version, ...more })
      expect(answer.statusCode, answer.body).toBe(200)
    }
    await step('', { text: { number: 1, season: 3, kind: 'full', notes: '<p>Before</p>', [field]: before } })
    await step('/release', { when: { kind: 'now' } })
    const page = new URL((await house.get(id)).pageAddress!).pathname
    const html = async (): Promise<string> => (await house.app.inject({ url: page })).body
    const [told, shown] = [await item(show.slug), await html()]
    await step('', { text: { [field]: after } })
    const { artworkAddress, text } = await house.get(id)
    expect(artworkAddress).toBe(text.artworkId && `/api/v1/pictures/${text.artworkId}.jpg`)
    await step('/send-changes')
    const retold = await item(show.slug)
    expect((await html()) !== shown, 'the page tells it').toBe(fields[field].appears.page !== null)
    const changed = [...new Set([...told.keys(), ...retold.keys()])].filter(name => told.get(name) !== retold.get(name))
    expect(changed.toSorted()).toEqual([...fields[field].appears.feed].sort())
  })
})
