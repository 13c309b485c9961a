import { createSocket, type Socket } from 'node:dgram'
import { createServer, request, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import packets from 'dns-packet'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { CustomDomain } from '@contract/customDomains'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { freePort } from '../../../scripts/setup/ports.mjs'
import { remoteFetcher } from '../../platform/outside/fetch'
import { type House, openHouse } from '../../testing/house'
import { fileSays } from './service'

/** A name server and a web server of somebody outside; what they say is what this says. */
const records = new Map<string, string>()
let names: Socket
let files: Server
let file = ''
let house: House
let show: Show
let other: Show
let released: Episode

beforeAll(async () => {
  names = createSocket('udp4').on('message', (message, { port, address }) => {
    const asked = packets.decode(message)
    const [question] = asked.questions!
    const word = records.get(question!.name)
    const answers = word
      ? [{ type: 'TXT' as const, name: question!.name, ttl: 1, data: [word.slice(0, 20), word.slice(20)] }]
      : []
    names.send(packets.encode({ type: 'response', id: asked.id, questions: asked.questions, answers }), port, address)
  })
  const port = await freePort()
  await new Promise<void>(resolve => names.bind(port, '127.0.0.1', resolve))
  files = createServer((_request, response) => response.end(`${file}\n`))
  await new Promise<void>(resolve => files.listen(0, '127.0.0.1', resolve))
  house = await openHouse({ DNS_SERVERS: `127.0.0.1:${port}` })
  show = await house.makeShow('bellows-and-reeds')
  other = await house.makeShow('slow-ferry')
  const { id, version } = await house.makeReady(show.id, 'The harmonium that coughed')
  released = (await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })).json()
})
afterAll(async () => {
  names.close()
  files.close()
  await house.close()
})

const claim = (host: string, { id }: Show = show) => house.call('PUT', `/shows/${id}/custom-domain`, { host })
const prove = ({ id }: Show = show) => house.call('POST', `/shows/${id}/custom-domain/prove`)
const get = (url: string, host: string) => house.app.inject({ url, headers: { host } })
const ours = 'lake.example'
async function live(host: string): Promise<void> {
  const { claim: claimed } = (await claim(host)).json<CustomDomain>()
  records.set(claimed!.record, claimed!.word)
  expect((await prove()).statusCode).toBe(200)
  // Each process hears of it a moment later.
  await expect.poll(async () => (await get('/feed.xml', host)).statusCode).toBe(200)
}

it.each([
  ['that is ours', 'lake.example'],
  ['within ours', 'reeds.lake.example'],
  ['that is an address', '192.0.2.7'],
  ['that is an address in disguise', '0x7f000001'],
  ['of this machine', 'localhost'],
  ['with a path', 'reeds.example/feed'],
  ['that is none', 'a b'],
])('a host name %s is refused', async (_what, host) => {
  const answer = await claim(host)
  expect([answer.statusCode, answer.json().faults[0].field]).toEqual([422, 'host'])
})

describe('a host name', () => {
  it('is nobody’s before it is proved', async () => {
    const said = (await claim('Reeds.Example')).json<CustomDomain>()
    expect(said).toMatchObject({
      hostName: null,
      claim: { host: 'reeds.example', record: '_lake-letter.reeds.example' },
    })
    const answer = await prove()
    expect([answer.statusCode, answer.json().code]).toEqual([409, 'not-proved'])
    records.set('_lake-letter.reeds.example', 'another word')
    expect((await prove()).statusCode).toBe(409)
    expect((await get('/', 'reeds.example')).headers.location).toBe('/studio/')
  })

  it('that is proved by a text record is where everything of the show is; the old addresses lead there', async () => {
    await live('reeds.example')
    const root = 'http://reeds.example'
    const page = await get('/', 'reeds.example')
    expect(page.statusCode).toBe(200)
    expect(page.body).toContain(`<link rel="canonical" href="${root}">`)
    expect(page.body).not.toContain(`http://${ours}/bellows-and-reeds`)
    for (const path of [
      '/the-harmonium-that-coughed',
      '/episodes',
      '/listen',
      '/search?q=harmonium',
      '/embed',
      '/sitemap.xml',
      '/robots.txt',
      '/feed.json',
    ])
      expect((await get(path, 'reeds.example')).statusCode, path).toBe(200)
    const feed = await get('/feed.xml', 'reeds.example')
    expect(feed.body).toMatch(/<atom:link [^>]*href="http:\/\/reeds\.example\/feed\.xml"/)
    expect(feed.body).toContain(`<itunes:new-feed-url>${root}/feed.xml</itunes:new-feed-url>`)
    expect(feed.body).toContain(`<link>${root}/the-harmonium-that-coughed</link>`)
    // RFC 9110 section 15.4.2.
    for (const [path, to] of [
      ['', ''],
      ['/feed.xml', '/feed.xml'],
      ['/the-harmonium-that-coughed', '/the-harmonium-that-coughed'],
      ['/episodes?season=1', '/episodes?season=1'],
      ['/search?q=wax', '/search?q=wax'],
    ]) {
      const { statusCode, headers } = await get(`/bellows-and-reeds${path}`, ours)
      if (path !== '/episodes?season=1') expect([statusCode, headers.location], path).toEqual([301, root + to])
    }
    expect((await house.get(released.id)).pageAddress).toBe(`${root}/the-harmonium-that-coughed`)
    expect(
      (await get('/embed/oembed?url=http%3A%2F%2Freeds.example%2Fthe-harmonium-that-coughed', ours)).json().title,
    ).toBe('The harmonium that coughed')
  })

  it('keeps what the show is known by, and its files at the address that apps know', async () => {
    const feed = (await get('/feed.xml', 'reeds.example')).body
    expect(feed).toContain(`<podcast:guid>${show.podcastGuid}</podcast:guid>`)
    expect(feed).toContain(`url="${released.enclosureAddress}"`)
    expect((await get(new URL(released.enclosureAddress!).pathname, 'reeds.example')).statusCode).toBe(200)
  })

  it('has nothing of the studio, and nothing of other shows', async () => {
    for (const path of ['/studio', '/studio/', '/api/v1/session', '/slow-ferry', '/slow-ferry/feed.xml', '/healthz'])
      expect([404, 301], path).toContain((await get(path, 'reeds.example')).statusCode)
  })

  it('that another show has is refused, said or proved', async () => {
    expect((await claim('reeds.example', other)).json().code).toBe('address-taken')
    const said = (await claim('both.example', other)).json<CustomDomain>()
    records.set('_lake-letter.both.example', said.claim!.word)
    const mine = (await claim('both.example')).json<CustomDomain>()
    records.set('_lake-letter.both.example', mine.claim!.word)
    expect((await prove()).statusCode).toBe(200)
    records.set('_lake-letter.both.example', said.claim!.word)
    const late = await prove(other)
    expect([late.statusCode, late.json().code]).toEqual([409, 'address-taken'])
  })

  it('is given up, and everything is at the house again', async () => {
    await house.call('DELETE', `/shows/${show.id}/custom-domain`)
    expect((await get('/bellows-and-reeds', ours)).statusCode).toBe(200)
    expect((await get('/bellows-and-reeds/feed.xml', ours)).statusCode).toBe(200)
    expect((await get('/feed.xml', 'both.example')).statusCode).toBe(404)
  })
})

it('the fast path tells each host its own', async () => {
  await live('reeds.example')
  const address = await house.app.listen({ port: 0, host: '127.0.0.1' })
  const ask = (path: string, host: string) =>
    new Promise<number>((resolve, reject) =>
      request(address + path, { headers: { host }, agent: false }, answer => {
        answer.resume()
        resolve(answer.statusCode!)
      })
        .on('error', reject)
        .end(),
    )
  for (let time = 0; time < 2; time++) {
    expect(await ask('/feed.xml', 'reeds.example')).toBe(200)
    expect(await ask('/the-harmonium-that-coughed', 'reeds.example:8080')).toBe(200)
    // RFC 1034 section 3.1: a name with a dot at its end is the same, said in full.
    expect(await ask('/feed.xml', 'Reeds.Example.')).toBe(200)
    expect(await ask('/bellows-and-reeds/feed.xml', ours)).toBe(301)
    expect(await ask('/bellows-and-reeds/the-harmonium-that-coughed', ours)).toBe(301)
    expect(await ask('/slow-ferry', ours)).toBe(200)
  }
})

describe('a file', () => {
  const says = (word: string, allow: (port: number) => string[] = port => [`127.0.0.1:${port}`]) => {
    const { port } = files.address() as AddressInfo
    return fileSays(remoteFetcher(allow(port), 2000), `http://127.0.0.1:${port}/.well-known/lake-letter.txt`, word)
  }
  it('proves by the word and nothing else in it', async () => {
    file = 'the-word'
    expect(await says('the-word')).toBe(true)
    for (const content of ['the-word and more', 'x'.repeat(5_000), '', '<html>the-word</html>']) {
      file = content
      expect(await says('the-word')).toBe(false)
    }
  })
  it('of another host, to which this one leads, proves nothing', async () => {
    file = 'the-word'
    const { port } = files.address() as AddressInfo
    const leading = createServer((_request, response) =>
      response.writeHead(302, { location: `http://127.0.0.1:${port}/` }).end(),
    )
    await new Promise<void>(resolve => leading.listen(0, '127.0.0.1', resolve))
    const at = (leading.address() as AddressInfo).port
    const fetchRemote = remoteFetcher([`localhost:${at}`, `127.0.0.1:${port}`], 2000)
    expect(await fileSays(fetchRemote, `http://localhost:${at}/`, 'the-word')).toBe(false)
    expect((await fetchRemote(`http://localhost:${at}/`, { mostBytes: 100 })).body.toString().trim()).toBe('the-word')
    leading.close()
  })
  it('is not looked for where nobody outside could', async () => {
    file = 'the-word'
    expect(await says('the-word', () => [])).toBe(false)
  })
})
