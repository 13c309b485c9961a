import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import sharp from 'sharp'
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { type Book, bookOf, type Submission } from './book'
import { directoriesServer } from './server'
import { afterWorkingDays, isWorkingDay } from './workingDays'

const hourMs = 3600_000
let at = Date.parse('2026-12-22T09:00:00Z')
let house: Server
let feedAddress: string
let feed = { episodes: 1, side: 1400, email: 'tove@bellows.example' }
let asked = 0
const items = (): string =>
  Array.from(
    { length: feed.episodes },
    (_item, n) =>
      `<item><title>Episode ${n + 1}</title><guid>e-${n + 1}</guid><pubDate>Tue, 0${n + 1} Dec 2026 05:00:00 +0000</pubDate><enclosure url="${feedAddress}.mp3" length="1" type="audio/mpeg"/></item>`,
  ).join('')
const mails: { to: string; text: string }[] = []
let kept: Submission[] = []
let book: Book
let directories: Server
let base: string

beforeAll(async () => {
  house = createServer(async (request, response) => {
    if (request.url === '/art.jpg') {
      const { side } = feed
      const picture = sharp({ create: { width: side, height: side, channels: 3, background: '#123' } }).jpeg()
      return void response.writeHead(200, { 'content-type': 'image/jpeg' }).end(await picture.toBuffer())
    }
    asked++
    const etag = `"${feed.episodes}"`
    if (request.headers['if-none-match'] === etag) return void response.writeHead(304).end()
    response.writeHead(200, { 'content-type': 'application/rss+xml', etag })
    response.end(
      `<rss version="2.0" xmlns:itunes="http://www.itunes.com/dtds/podcast-1.0.dtd"><channel><title>Bellows</title><link>https://b.example</link><description>Reeds.</description><language>en</language><itunes:category text="Leisure"/><itunes:image href="${feedAddress.replace('/feed.xml', '/art.jpg')}"/><itunes:owner><itunes:email>${feed.email}</itunes:email></itunes:owner>${items()}</channel></rss>`,
    )
  })
  await new Promise<void>(resolve => house.listen(0, '127.0.0.1', resolve))
  feedAddress = `http://127.0.0.1:${(house.address() as AddressInfo).port}/feed.xml`
})
beforeEach(async () => {
  feed = { episodes: 1, side: 1400, email: 'tove@bellows.example' }
  mails.length = 0
  open([])
  directories?.close()
  directories = directoriesServer(
    book,
    () => base,
    () => at,
  )
  await new Promise<void>(resolve => directories.listen(0, '127.0.0.1', resolve))
  base = `http://127.0.0.1:${(directories.address() as AddressInfo).port}`
})
afterAll(() => {
  house.close()
  directories.close()
})

function open(submissions: Submission[]): void {
  book = bookOf(submissions, {
    now: () => at,
    mail: async (to, _subject, text) => void mails.push({ to, text }),
    keep: all => {
      kept = structuredClone([...all])
    },
  })
}
async function call(method: string, path: string, body?: object) {
  const answer = await fetch(base + path, { method, ...(body && { body: JSON.stringify(body) }) })
  return { status: answer.status, body: (await answer.json()) as Record<string, unknown> }
}
const code = (): string => /code: (\d{6})/.exec(mails.at(-1)!.text)![1]!

it('is read, confirmed by a code, listed by the quick one, and looked at again every hour', async () => {
  await call('PUT', '/mossbird/submissions/one', { feedAddress })
  await book.tick()
  expect((await call('GET', '/mossbird/submissions/one')).body).toMatchObject({
    state: 'to confirm',
    sentTo: 'tove@bellows.example',
  })
  expect((await call('POST', '/mossbird/submissions/one/code', { code: '000000' })).status).toBe(400)
  const { body } = await call('POST', '/mossbird/submissions/one/code', { code: code() })
  expect(body).toMatchObject({ state: 'listed', listingAddress: `${base}/mossbird/shows/one`, guids: ['e-1'] })
  feed.episodes = 2
  const before = asked
  at += 50 * 60_000
  await book.tick()
  expect(asked).toBe(before)
  at += 11 * 60_000
  await book.tick()
  expect((await call('GET', '/mossbird/submissions/one')).body.guids).toEqual(['e-1', 'e-2'])
  expect(await (await fetch(`${base}/mossbird/shows/one`)).text()).toContain('Episode 2')
})

it('tells of the next look only once this one is over', async () => {
  await call('PUT', '/mossbird/submissions/one', { feedAddress })
  await book.tick()
  const due = book.get('mossbird', 'one')!.nextFetchAt
  at += 61 * 60_000
  const look = book.tick()
  expect(book.get('mossbird', 'one')!.nextFetchAt).toBe(due)
  await look
  expect(book.get('mossbird', 'one')!).toMatchObject({ nextFetchAt: at + hourMs, fetchedAt: at })
})

it('is reviewed by people on working days, not over holidays, and the slow one comes after six to twelve hours', async () => {
  at = Date.parse('2026-12-23T09:00:00Z')
  await call('PUT', '/harbour-list/submissions/one', { feedAddress })
  await call('PUT', '/old-pier/submissions/one', { feedAddress })
  await book.tick()
  for (const { text } of mails.splice(0)) {
    const sent = /code: (\d{6})/.exec(text)![1]!
    await call('POST', `/${text.includes('Harbour') ? 'harbour-list' : 'old-pier'}/submissions/one/code`, {
      code: sent,
    })
  }
  const review = async () => (await call('GET', '/harbour-list/submissions/one')).body
  expect(await review()).toMatchObject({ state: 'in review', isClosed: false, listingAddress: null })
  at = Date.parse('2026-12-25T12:00:00Z')
  await book.tick()
  expect(await review()).toMatchObject({ state: 'in review', isClosed: true })
  at = Date.parse('2027-01-06T12:00:00Z')
  await book.tick()
  expect(await review()).toMatchObject({ state: 'listed' })

  const pier = (): Submission => book.get('old-pier', 'one')!
  const hours = (pier().nextFetchAt - pier().fetchedAt!) / hourMs
  expect(hours).toBeGreaterThanOrEqual(6)
  expect(hours).toBeLessThanOrEqual(12)
})

it('refuses by what is lacking, takes it again once that is mended, and never twice', async () => {
  feed.side = 800
  await call('PUT', '/harbour-list/submissions/one', { feedAddress })
  await book.tick()
  const { body } = await call('GET', '/harbour-list/submissions/one')
  expect(body).toMatchObject({ state: 'refused', why: 'It lacks: Square artwork, 1400 to 3000 px, JPEG or PNG.' })
  feed.side = 1400
  await call('PUT', '/harbour-list/submissions/two', { feedAddress })
  await book.tick()
  expect((await call('GET', '/harbour-list/submissions/two')).body).toMatchObject({ state: 'to confirm' })
  expect(await call('PUT', '/harbour-list/submissions/three', { feedAddress })).toMatchObject({
    status: 409,
    body: { why: expect.stringContaining('already') },
  })
})

it('remembers all of it when it is started anew, and says what is wrong with a request', async () => {
  await call('PUT', '/mossbird/submissions/one', { feedAddress })
  await book.tick()
  open(kept)
  expect(book.get('mossbird', 'one')).toMatchObject({ state: 'to confirm', show: { title: 'Bellows' } })
  expect((await call('PUT', '/mossbird/submissions/x', { feedAddress: 'here' })).body.why).toContain(
    'feedAddress="here"',
  )
  expect((await call('GET', '/nowhere/submissions/x')).status).toBe(404)
  expect((await call('DELETE', '/mossbird/submissions/one')).status).toBe(405)
  const all = (await call('GET', '/directories')).body as unknown as { id: string }[]
  expect(all.map(({ id }) => id)).toEqual(['harbour-list', 'mossbird', 'old-pier'])
})

it('counts working days', () => {
  expect(isWorkingDay(Date.parse('2026-12-25T12:00:00Z'))).toBe(false)
  expect(isWorkingDay(Date.parse('2026-12-27T12:00:00Z'))).toBe(false)
  // From Wednesday the 23rd: 28, 29, 30 December are the next ones; the 24th to the 27th and the 31st are none.
  expect(new Date(afterWorkingDays(Date.parse('2026-12-23T09:00:00Z'), 4)).toISOString()).toBe(
    '2027-01-04T10:00:00.000Z',
  )
})
