import { execFileSync, spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { parseRssFeed } from 'feedsmith'
import { describe, expect, it } from 'vitest'
import { feedJson } from './json'
import { channel, whole } from './full.fixture'
import { itemOf, modelOf } from './model.fixture'
import { partOf } from './parts'
import { feedXml } from './xml'

describe('everything that a feed can say', () => {
  const xml = feedXml({ ...whole, channel })
  const read = parseRssFeed(xml)

  it('is well-formed, and said of the show as feedsmith reads it', () => {
    expect(execFileSync('xmllint', ['--noout', '-'], { input: xml, encoding: 'utf8' })).toBe('')
    expect(read).toMatchObject({
      link: 'https://workshop.example/',
      copyright: '© the workshop',
      ttl: 60,
      docs: 'https://www.rssboard.org/rss-specification',
      dc: { creators: ['Tove Aldermoor'] },
      itunes: {
        block: true,
        complete: true,
        newFeedUrl: 'https://new.example/feed.xml',
        categories: [{ text: 'Leisure', categories: [{ text: 'Crafts' }] }, { text: 'Music' }],
        owner: { name: 'Tove Aldermoor', email: 'workshop@bellowsandreeds.example' },
      },
      podcast: {
        guid: channel.podcastGuid,
        medium: 'podcast',
        locked: { value: true, owner: 'workshop@bellowsandreeds.example' },
        fundings: [{ url: 'https://workshop.example/give', display: 'Buy a reed' }],
        persons: [{ display: 'Tove', role: 'host', href: 'https://lake.example/tove' }],
        license: { display: 'cc-by-4.0' },
        locations: [{ display: 'The lake' }],
        txts: [{ display: 'abc-123', purpose: 'verify' }],
        podroll: {
          remoteItems: [{ feedGuid: '917393e3-1b1e-5cef-ace4-edaa54e1f810', feedUrl: 'https://slow.example/feed.xml' }],
        },
        updateFrequency: {
          display: 'Every other Tuesday at 05:00',
          rrule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU',
          complete: true,
        },
        trailers: [{ display: 'The harmonium that coughed', season: 3, length: 696_341 }],
      },
    })
    expect(read.atom?.links?.map(({ rel }) => rel)).toEqual(['self', 'alternate', 'alternate', 'hub'])
    expect(read.podcast?.images).toMatchObject([
      { href: 'https://lake.example/a.jpg', width: 3000 },
      { href: 'https://lake.example/a-480.jpg', width: 480 },
    ])
  })

  // A schema written from the RSS 2.0 specification; xmllint is the judge.
  const judged = (text: string): string => {
    const schema = join(import.meta.dirname, 'rss.fixture.rng')
    return spawnSync('xmllint', ['--noout', '--relaxng', schema, '-'], { input: text, encoding: 'utf8' }).stderr.trim()
  }
  it('is RSS 2.0 by a schema of its specification', () => {
    expect(judged(xml)).toBe('- validates')
    expect(judged(feedXml(modelOf([itemOf(), itemOf({ number: null })])))).toBe('- validates')
    expect(judged(feedXml(modelOf([])))).toBe('- validates')
  })
  it.each([
    ['a date of another form', (text: string) => text.replace(/<pubDate>[^<]+/, '<pubDate>2026-03-05')],
    ['an enclosure without its length', (text: string) => text.replace(/(<enclosure [^>]*?) length="\d+"/, '$1')],
    ['a channel without a link', (text: string) => text.replace(/<link>[^<]+<\/link>/, '')],
    ['an element that RSS does not have', (text: string) => text.replace('<ttl>', '<subtitle>x</subtitle><ttl>')],
  ])('the schema refuses %s', (_what, broken) => expect(judged(broken(xml))).toMatch(/fails to validate/))

  it('is said of an item', () => {
    expect(read.items![0]).toMatchObject({
      comments: 'https://talk.example/2',
      source: { url: 'https://lake.example/bellows-and-reeds/feed.xml', title: 'Bellows & Reeds' },
      dc: { creators: ['Odile'] },
      itunes: { author: 'Odile', subtitle: 'Why they wheeze', season: 3, episodeType: 'trailer' },
      podcast: {
        season: { number: 3, name: 'The winter boats' },
        episode: { number: 2 },
        transcripts: [{ url: 'https://lake.example/2.vtt', type: 'text/vtt', language: 'en', rel: 'captions' }],
        alternateEnclosures: [
          {
            type: 'audio/mpeg',
            length: 696_341,
            default: true,
            sources: [{ uri: 'https://lake.example/media/one/two.mp3' }],
            integrity: { type: 'sri' },
          },
        ],
      },
    })
  })
})

it.each([
  ['cc-by-4.0', '<podcast:license>cc-by-4.0</podcast:license>'],
  [
    'The reed licence https://tide.example/licence',
    '<podcast:license url="https://tide.example/licence">The reed licence</podcast:license>',
  ],
  [
    'https://tide.example/licence',
    '<podcast:license url="https://tide.example/licence">https://tide.example/licence</podcast:license>',
  ],
])('the licence “%s” stands with its address where it has one', (licence, wanted) => {
  expect(feedXml(modelOf([itemOf({ licence })]))).toContain(wanted)
})

// RFC 5005 section 3: a paged feed is a set of documents that lead to each other; together they are the whole.
describe('a feed in parts', () => {
  const items = Array.from({ length: 25 }, (_, index) => itemOf({ number: 25 - index }))
  const parts = [1, 2, 3].map(part => parseRssFeed(feedXml(partOf(modelOf(items), part, 10))))
  const linkOf = (part: number, rel: string) => parts[part - 1]!.atom?.links?.find(link => link.rel === rel)?.href

  it('leads from each part to the others, and has each item once', () => {
    expect(parts.flatMap(part => part.items!.map(({ guid }) => guid!.value))).toEqual(items.map(({ guid }) => guid))
    const base = 'https://lake.example/bellows-and-reeds'
    expect([linkOf(1, 'self'), linkOf(1, 'next'), linkOf(1, 'last')]).toEqual([
      `${base}/feed.xml`,
      `${base}/parts/2/feed.xml`,
      `${base}/parts/3/feed.xml`,
    ])
    expect([linkOf(1, 'previous'), linkOf(3, 'next')]).toEqual([undefined, undefined])
    expect([linkOf(2, 'previous'), linkOf(2, 'first'), linkOf(3, 'self')]).toEqual([
      `${base}/feed.xml`,
      `${base}/feed.xml`,
      `${base}/parts/3/feed.xml`,
    ])
  })

  it('is one where all fit', () => {
    expect(partOf(modelOf(items), 1, 25).channel.parts).toBeNull()
    expect(partOf(modelOf(items), 1, null).items).toHaveLength(25)
  })
})

// JSON Feed 1.1: what a feed and an item must have, and the types of the rest.
describe('as JSON Feed', () => {
  const read = JSON.parse(feedJson({ ...whole, channel })) as Record<string, unknown> & {
    items: Record<string, unknown>[]
  }

  it('has what it must have', () => {
    expect(read).toMatchObject({ version: 'https://jsonfeed.org/version/1.1', title: 'Bellows & Reeds', expired: true })
    expect(read.hubs).toEqual([{ type: 'WebSub', url: 'https://hub.example/' }])
    for (const item of read.items) {
      expect(item).toMatchObject({ id: expect.any(String), content_html: expect.any(String) })
      expect(new Date(item.date_published as string).toISOString()).toBe(item.date_published)
    }
    expect(read.items[0]!.attachments).toEqual([
      {
        url: 'https://lake.example/media/one/two.mp3',
        mime_type: 'audio/mpeg',
        size_in_bytes: 696_341,
        duration_in_seconds: 86,
      },
    ])
  })
})
