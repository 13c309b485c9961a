import jsQR from 'jsqr'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { type House, openHouse } from '../../testing/house'

/** The pages that every show has beside those of its episodes. */

let house: House
let show: Show
const released: Episode[] = []
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
  await house.call('PATCH', `/shows/${show.id}`, {
    version: 1,
    hosts: [{ name: 'Tove Aldermoor', role: 'Host', address: null, pictureId: null }],
  })
  await house.call('POST', `/shows/${show.id}/strands`, {
    slug: 'only-reeds',
    name: 'Only reeds',
    description: null,
    artworkId: null,
    goesBy: 'tag',
    value: 'reeds',
  })
  const facts = [
    { title: 'Ebb', season: 1, tags: ['Reeds', 'wax'], kind: 'full' as const },
    { title: 'Flood', season: 2, tags: ['réeds'], kind: 'trailer' as const },
    { title: 'Slack water', season: 2, tags: ['boats'], kind: 'full' as const },
  ]
  for (const { title, ...text } of facts) {
    house.clock.moveBy(3600_000)
    released.push(
      await house.makeReleased(show.id, title, {
        ...text,
        notes: '<p>All of them: {show link}</p>',
        people: [{ name: 'Odile Varn', role: 'Guest', address: null, pictureId: null }],
      }),
    )
  }
})
afterAll(() => house.close())

const get = (path: string) => house.app.inject({ url: path })
const titles = (html: string): string[] =>
  [...html.matchAll(/<li[^>]*>(?:(?!<\/li>).)*?class="episode-title" href="[^"]*">([^<]*)</gs)].map(
    ([, title]) => title!,
  )

it('a field in the notes for the show’s address is filled in alike: on the page, in its structured data, in the feed', async () => {
  const page = (await get('/bellows-and-reeds/ebb')).body
  const feed = (await get('/bellows-and-reeds/feed.xml')).body
  for (const text of [page, /<script type="application\/ld\+json">(.*?)<\/script>/s.exec(page)![1]!, feed]) {
    expect(text).toContain('All of them: ')
    expect(text).not.toContain('undefined')
  }
})

describe('all episodes', () => {
  it.each([
    ['', ['Slack water', 'Flood', 'Ebb']],
    ['?season=2', ['Slack water', 'Flood']],
    ['?tag=reed', ['Flood', 'Ebb']],
    ['?strand=only-reeds', ['Flood', 'Ebb']],
    ['?year=2026&season=1', ['Ebb']],
    ['?utm=somewhere&season=', ['Slack water', 'Flood', 'Ebb']],
  ])('are listed by choice: %s', async (query, wanted) => {
    const { body, statusCode } = await get(`/bellows-and-reeds/episodes${query}`)
    expect([statusCode, titles(body)]).toEqual([200, wanted])
  })
  it.each(['?season=9', '?tag=nothing', '?strand=none', '?page=2', '?year=1999'])(
    'that are not there answer 404: %s',
    async query => {
      expect((await get(`/bellows-and-reeds/episodes${query}`)).statusCode).toBe(404)
    },
  )
  it('have one address for each choice, however it is spelt', async () => {
    const { body } = await get('/bellows-and-reeds/episodes?tag=wax&x=1&season=1')
    expect(body).toContain(
      '<link rel="canonical" href="http://lake.example/bellows-and-reeds/episodes?season=1&amp;tag=wax">',
    )
  })
})

it('the show’s page has the newest ready to play, and a trailer for newcomers', async () => {
  const { body } = await get('/bellows-and-reeds')
  const ready = [...body.matchAll(/class="kicker">([^<]*)<.*?class="episode-title" href="[^"]*">([^<]*)</gs)]
  expect(ready.map(([, words, title]) => [words, title])).toEqual([
    ['Newest episode', 'Slack water'],
    ['New here? Start with this', 'Flood'],
  ])
  expect(body.match(/<audio controls preload="none" src="[^"]+\.mp3\?from=page"/g)).toHaveLength(2)
})

it('an episode leads to the one before and the one after it', async () => {
  const at = (episode: Episode) => new URL(episode.pageAddress!).pathname
  const near = async (episode: Episode) =>
    [...(await get(at(episode))).body.matchAll(/<a rel="(prev|next)" href="([^"]*)"/g)].map(([, rel, href]) => [
      rel,
      href,
    ])
  const [ebb, flood, slack] = released as [Episode, Episode, Episode]
  expect(await near(flood)).toEqual([
    ['prev', ebb.pageAddress],
    ['next', slack.pageAddress],
  ])
  expect(await near(ebb)).toEqual([['next', flood.pageAddress]])
})

it('people are there once each, those who make it first, with what they are in', async () => {
  const { body } = await get('/bellows-and-reeds/people')
  const names = [...body.matchAll(/<h2>([^<]+)<\/h2>/g)].map(([, name]) => name!.trim())
  expect(names).toEqual(['Tove Aldermoor', 'Odile Varn'])
  for (const { pageAddress } of released) expect(body).toContain(`href="${pageAddress}"`)
})

// ISO/IEC 18004, read back by jsqr.
it('the QR code on “how to listen” leads to the page itself', async () => {
  const { body } = await get('/bellows-and-reeds/listen')
  expect(body).toContain(show.feedAddress)
  const svg = /<svg.*?<\/svg>/s.exec(body)![0]
  const { data, info } = await sharp(Buffer.from(svg), { density: 300 })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  expect(jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data).toBe(
    'http://lake.example/bellows-and-reeds/listen',
  )
})

it('a show without an episode has all its pages', async () => {
  await house.makeShow('empty')
  for (const path of [
    '',
    '/episodes',
    '/people',
    '/listen',
    '/search',
    '/search?q=x',
    '/embed',
    '/sitemap.xml',
    '/manifest.webmanifest',
    '/share.jpg',
  ])
    expect((await get(`/empty${path}`)).statusCode, path).toBe(200)
})

it('an episode that is called like one of the pages gets another address part', async () => {
  for (const title of ['Episodes', 'Search', 'Listen']) {
    const { pageAddress } = await house.makeReleased(show.id, title)
    expect(pageAddress).toBe(`http://lake.example/bellows-and-reeds/${title.toLowerCase()}-2`)
  }
})

it('a title of 300 letters without a space is told whole', async () => {
  const title = 'W'.repeat(300)
  const { pageAddress } = await house.makeReleased(show.id, title)
  const { statusCode, body } = await get(new URL(pageAddress!).pathname)
  expect([statusCode, body.includes(title)]).toEqual([200, true])
  expect((await get(`${new URL(pageAddress!).pathname}/share.jpg`)).statusCode).toBe(200)
})
