import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import sharp from 'sharp'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { FeedChecked, FeedOverview, FeedComparisonView } from '@contract/feed'
import type { Show } from '@contract/shows'
import { makeSound } from '@core/audio/sound.fixture'
import { faultless } from '@core/feed/faultless.fixture'
import { FeedState } from '../feeds/models'
import { type House, openHouse, squarePicture } from '../../testing/house'

type Answer = (request: IncomingMessage, response: ServerResponse) => void

let house: House
let server: Server
let base: string
const answers = new Map<string, Answer>()
const sound = Buffer.alloc(50_000, 7)
const mp4Head = Buffer.from('\0\0\0\x18ftypM4A \0\0\0\0M4A mp42', 'latin1')
let madeSound: Buffer

beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'lake-letter-checking-'))
  madeSound = makeSound(join(folder, 'short.mp3'), 5, ['-b:a', '64k', '-id3v2_version', '0'])
  rmSync(folder, { recursive: true })
  server = createServer((request, response) =>
    (answers.get(request.url!) ?? ((_request, missing) => missing.writeHead(404).end()))(request, response),
  )
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  const host = `127.0.0.1:${(server.address() as AddressInfo).port}`
  base = `http://${host}`
  house = await openHouse({ FETCH_ALLOW: host })
})
afterAll(async () => {
  server.closeAllConnections()
  server.close()
  await house.close()
})

const say =
  (body: string | Buffer, headers: Record<string, string> = {}): Answer =>
  (_request, response) =>
    response.writeHead(200, { 'content-type': 'application/rss+xml', ...headers }).end(body)

/** A host that does everything as it should. */
const well =
  (text: string, type = 'application/rss+xml; charset=utf-8'): Answer =>
  (request, response) => {
    const headers = { 'content-type': type, etag: '"one"', 'cache-control': 'no-cache' }
    if (request.headers['if-none-match'] === '"one"') return void response.writeHead(304, headers).end()
    const isGzip = /gzip/.test(request.headers['accept-encoding'] ?? '')
    response.writeHead(200, { ...headers, ...(isGzip && { 'content-encoding': 'gzip' }) })
    response.end(request.method === 'HEAD' ? undefined : isGzip ? gzipSync(text) : text)
  }
const serve =
  (type: string, bytes: Buffer): Answer =>
  (request, response) => {
    const range = /^bytes=(\d+)-(\d+)$/.exec(request.headers.range ?? '')
    if (!range) {
      response.writeHead(200, { 'content-type': type, 'content-length': bytes.length })
      return void response.end(request.method === 'HEAD' ? undefined : bytes)
    }
    const part = bytes.subarray(Number(range[1]), Number(range[2]) + 1)
    response
      .writeHead(206, { 'content-type': type, 'content-range': `bytes ${range[1]}-${range[2]}/${bytes.length}` })
      .end(part)
  }

const clearPicture = (): Promise<Buffer> =>
  sharp({ create: { width: 1400, height: 1400, channels: 4, background: { r: 8, g: 80, b: 90, alpha: 0.5 } } })
    .png()
    .toBuffer()

/** The faultless feed as this host would have it, sizes and all. */
const here = (): string =>
  faultless.replaceAll('https://tide.example', base).replace(/length="\d+"/g, `length="${sound.length}"`)

const check = (wanted: object) => house.call('POST', '/feed-checks', wanted)
const checked = async (path: string): Promise<FeedChecked> => {
  const answer = await check({ address: `${base}${path}` })
  expect(answer.statusCode, answer.body).toBe(200)
  return answer.json()
}
const names = ({ findings }: Pick<FeedChecked, 'findings'>): string[] => findings.map(({ name }) => name)

describe('checking anybody’s feed', () => {
  beforeEach(async () => {
    house.clock.moveBy(16 * 60_000)
    answers.clear()
    answers.set('/feed.xml', well(here()))
    for (const path of ['/first.mp3', '/second.mp3']) answers.set(path, serve('audio/mpeg', sound))
    answers.set('/art.jpg', serve('image/jpeg', await squarePicture(1400)))
    answers.set('/second.vtt', serve('text/vtt', Buffer.from('WEBVTT\n\n00:01.000 --> 00:02.000\nThe tide.\n')))
    answers.set('/second.json', serve('application/json', Buffer.from('{"chapters":[{"startTime":0,"title":"Ebb"}]}')))
  })

  it('finds nothing where all is well, having asked for everything', async () => {
    const { findings, ...rest } = await checked('/feed.xml')
    expect(findings.map(({ name, places }) => [name, places])).toEqual([])
    expect(rest).toMatchObject({ title: 'The Tide Table', items: 2, asked: 5, named: 5 })
  })

  it.each<[string, () => void | Promise<unknown>, string[]]>([
    ['audio that is gone', () => answers.delete('/first.mp3'), ['audio-answers']],
    ['audio of another size', () => answers.set('/first.mp3', serve('audio/mpeg', sound.subarray(1))), ['audio-bytes']],
    [
      'audio without ranges',
      () => answers.set('/first.mp3', say(sound, { 'content-type': 'audio/mpeg', 'content-length': '50000' })),
      ['audio-ranges'],
    ],
    [
      'audio that is a page',
      () => answers.set('/first.mp3', serve('audio/mpeg', Buffer.alloc(sound.length, '<!doctype html><p>Gone.'))),
      ['audio-form'],
    ],
    [
      'audio that is MP4',
      () => answers.set('/first.mp3', serve('audio/mpeg', Buffer.concat([mp4Head, sound.subarray(mp4Head.length)]))),
      ['audio-form'],
    ],
    [
      'audio of another length, behind a tag with a picture',
      () => {
        const tag = Buffer.from([0x49, 0x44, 0x33, 4, 0, 0, 0, 1, 0x20, 0])
        const long = Buffer.concat([tag, Buffer.alloc(128 * 128 + 32 * 128), madeSound])
        answers.set('/feed.xml', well(here().replaceAll(`length="${sound.length}"`, `length="${long.length}"`)))
        for (const path of ['/first.mp3', '/second.mp3']) answers.set(path, serve('audio/mpeg', long))
      },
      ['audio-duration'],
    ],
    [
      'a page that is called WebVTT',
      () =>
        answers.set('/second.vtt', serve('text/vtt', Buffer.from('<!doctype html><title>x</title><p>Sign in.</p>'))),
      ['transcript-answers'],
    ],
    [
      'artwork that one can see through',
      async () => answers.set('/art.jpg', serve('image/png', await clearPicture())),
      ['artwork-form'],
    ],
    [
      'a charset that the document contradicts',
      () => answers.set('/feed.xml', well(here(), 'application/rss+xml; charset=iso-8859-1')),
      ['encoding'],
    ],
    [
      'artwork that is a page',
      () => answers.set('/art.jpg', say('<html>', { 'content-type': 'text/html' })),
      ['artwork-answers'],
    ],
    ['a transcript of nothing', () => answers.set('/second.vtt', say('')), ['transcript-answers']],
    ['chapters that are none', () => answers.set('/second.json', say('[]')), ['chapters-answer']],
    [
      'no validators, no HEAD',
      () => answers.set('/feed.xml', say(here(), { 'content-encoding': 'identity' })),
      ['validators'],
    ],
    [
      'a redirect for the time being',
      () => {
        answers.set('/feed.xml', (_request, response) =>
          response.writeHead(302, { location: `${base}/real.xml` }).end(),
        )
        answers.set('/real.xml', well(here()))
      },
      ['own-address', 'lasting-redirects'],
    ],
    [
      'a page instead of a feed',
      () => answers.set('/feed.xml', say('<!doctype html><html><p>No.', { 'content-type': 'text/html' })),
      ['well-formed', 'content-type'],
    ],
  ])('finds %s', async (_what, arrange, wanted) => {
    await arrange()
    expect(names(await checked('/feed.xml'))).toEqual(wanted)
  })

  it('reads bytes of another encoding than they say, and says so', async () => {
    const bytes = Buffer.from(here())
    answers.set(
      '/feed.xml',
      say(Buffer.concat([bytes.subarray(0, 700), Buffer.from([0xff, 0xfe]), bytes.subarray(700)])),
    )
    expect(names(await checked('/feed.xml'))).toContain('encoding')
  })

  it('asks one host for no more than it should, however many addresses a feed names, and says so', async () => {
    const many = Array.from(
      { length: 3_000 },
      (_, at) => `<podcast:transcript url="${base}/${at}.vtt" type="text/vtt" />`,
    )
    answers.set('/feed.xml', well(here().replace('</item>', `${many.join('')}</item>`)))
    const { asked, named } = await checked('/feed.xml')
    expect([asked, named]).toEqual([80, 3_005])
  })

  it('reads what others wrote to its end: the worst transcript and feed that we know', async () => {
    answers.set('/second.vtt', serve('text/vtt', Buffer.from('1\n'.repeat(2_000_000))))
    answers.set('/feed.xml', well(here().replace('</channel>', `${'<item/>'.repeat(9_000)}</channel>`)))
    const { items, findings } = await checked('/feed.xml')
    expect(items).toBe(9_002)
    expect(findings.find(({ name }) => name === 'enclosure')!.count).toBe(9_000)
  })

  it('checks so many for one account, and then asks to wait', async () => {
    let answer = await check({ text: here() })
    for (let count = 0; count < 40 && answer.statusCode === 200; count++) answer = await check({ text: here() })
    expect([answer.statusCode, answer.json().code]).toEqual([429, 'too-many-checks'])
    house.clock.moveBy(16 * 60_000)
    expect((await check({ text: here() })).statusCode).toBe(200)
  })

  it('takes a pasted one', async () => {
    const answer = await check({ text: here().replace('<ttl>60', '<ttl>soon') })
    expect(names(answer.json())).toEqual(['ttl'])
  })

  it.each<[string, string | Answer, RegExp]>([
    [
      'larger than is read',
      (_request, response) => {
        response.writeHead(200)
        const more = (): void => {
          while (!response.destroyed && response.write(Buffer.alloc(1_000_000, 97)));
          response.once('drain', more)
        }
        more()
      },
      /larger than 25/,
    ],
    [
      'led in a circle',
      (_request, response) => response.writeHead(302, { location: '/feed.xml' }).end(),
      /redirected more than/,
    ],
  ])('refuses what is %s', async (_what, answer, why) => {
    answers.set('/feed.xml', answer as Answer)
    const refused = await check({ address: `${base}/feed.xml` })
    expect([refused.statusCode, refused.json().code]).toEqual([422, 'feed-refused'])
    expect(refused.json().detail).toMatch(why)
  })

  it('refuses addresses of private networks, and what is no address', async () => {
    for (const address of [
      'http://127.0.0.1:9/feed.xml',
      'http://[::1]/feed.xml',
      'http://169.254.1.1/',
      'http://10.0.0.1/',
    ])
      expect((await check({ address })).json().detail, address).toMatch(/private network/)
    for (const address of ['feed.xml', 'file:///etc/passwd', 'ftp://a.example/f'])
      expect((await check({ address })).json().faults[0].field).toBe('address')
  })

  it('finds its way through 20,000 items in a thread of its own', async () => {
    const item = /<item>[\s\S]*?<\/item>/.exec(here())![0]
    const many = Array.from({ length: 20_000 }, (_item, n) =>
      item
        .replace('tide-2', `tide-${n + 3}`)
        .replace(/<(description|content:encoded|itunes:\w+|podcast:\w+)\b[\s\S]*?(<\/\1>|\/>)/g, ''),
    )
    answers.set('/feed.xml', well(here().replace(item, item + many.join('\n'))))
    const answer = await checked('/feed.xml')
    expect(answer.items).toBe(20_002)
    const same = answer.findings.find(({ name }) => name === 'same-moment')!
    expect([same.count, same.places.length]).toEqual([20_000, 50])
  })
})

describe('the feed of a show', () => {
  let show: Show
  const overview = async (): Promise<FeedOverview> => (await house.call('GET', `/shows/${show.id}/feed`)).json()
  beforeAll(async () => {
    show = await house.makeShow('looked-after')
    for (const [index, title] of ['One', 'Two'].entries()) {
      const made = (await house.makeReady(show.id, title)) as Episode
      const { id, version } = (
        await house.call('PATCH', `/episodes/${made.id}`, { version: made.version, text: { number: index + 1 } })
      ).json() as Episode
      house.clock.moveBy(60_000)
      await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
      await overview()
    }
  })

  it('is told with what became of it, and what there is to mend, by the episode', async () => {
    const told = await overview()
    expect(told).toMatchObject({ items: 2, feedAddress: 'http://lake.example/looked-after/feed.xml' })
    expect(told.rules).toBeGreaterThanOrEqual(60)
    expect(told.states.map(({ words }) => words)).toEqual([['New: episode 2.'], ['The feed as it began.']])
    expect(names(told)).toEqual(['item-notes'])
    const [first] = told.findings[0]!.places
    expect(first).toMatchObject({
      item: { title: 'Two' },
      episode: { id: expect.stringMatching(/^[0-9a-f-]{36}$/), isChanged: false, byPress: null },
    })
    const { comparison } = (
      await house.call('GET', `/shows/${show.id}/feed/states/${told.states[0]!.id}`)
    ).json() as FeedComparisonView
    expect(comparison.added).toMatchObject([{ title: 'Two' }])
  })

  it('says before a change what that would change, and changes nothing', async () => {
    const before = await FeedState.count({ where: { showId: show.id } })
    const { version } = (await house.call('GET', `/shows/${show.id}`)).json() as Show
    const answer = await house.call('POST', `/shows/${show.id}/feed/outlook`, {
      version,
      titlePattern: 'Crossing: {title}',
      feedFacts: { copyright: '© the ferry' },
    })
    expect((answer.json() as FeedComparisonView).words).toEqual([
      'Episode 2: title changed.',
      'Episode 1: title changed.',
      'Show: copyright added.',
      'Apps will not show them as new.',
    ])
    expect(await FeedState.count({ where: { showId: show.id } })).toBe(before)
    expect((await house.app.inject({ url: '/looked-after/feed.xml' })).body).not.toContain('Crossing: ')
  })

  it('knows who has fetched it, what they got, and whether they have the newest', async () => {
    const get = (agent: string, headers: object = {}) =>
      house.app.inject({
        url: '/looked-after/feed.xml',
        headers: { 'user-agent': agent, ...headers },
        remoteAddress: '203.0.113.77',
      })
    const first = await get('Tide Reader/2.1 (+https://tide.example)')
    await get('Tide Reader/2.2', { 'if-none-match': String(first.headers.etag) })
    await get('Mozilla/5.0 (X11)')
    const agents = async () => (await overview()).readers.map(({ agent }) => agent)
    await expect.poll(agents).toEqual(expect.arrayContaining(['Web browser', 'Tide Reader']))
    expect((await overview()).readers).toEqual(
      expect.arrayContaining([
        expect.objectContaining({
          agent: 'Tide Reader',
          address: '203.0.113.0',
          wholeCount: 1,
          sameCount: 1,
          hasNewest: true,
        }),
        expect.objectContaining({ agent: 'Web browser', status: 200 }),
      ]),
    )
    house.clock.moveBy(60_000)
    const { version } = (await house.call('GET', `/shows/${show.id}`)).json() as Show
    await house.call('PATCH', `/shows/${show.id}`, { version, description: 'Another one.' })
    expect((await overview()).readers.map(({ hasNewest }) => hasNewest)).not.toContain(true)
  })
})
