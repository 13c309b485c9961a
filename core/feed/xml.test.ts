import { execFileSync } from 'node:child_process'
import { parseFeed } from '@rowanmanning/feed-parser'
import { parseRssFeed } from 'feedsmith'
import { DateTime } from 'luxon'
import Parser from 'rss-parser'
import { describe, expect, it } from 'vitest'
import { modelOf, itemOf } from './model.fixture'
import { feedXml } from './xml'

const awkward = 'שלום 🪗 ]]> <b>& "quotes" \u0007\ud800 end'

describe('a feed', () => {
  const model = modelOf([
    itemOf({ title: awkward, notesHtml: '<p>5 &lt; 6 &amp; a ]]&gt; b</p>', number: 2, season: 1 }),
    itemOf({ title: 'Plain', number: null, kind: 'trailer', publishedAt: new Date('2026-02-28T23:30:00Z') }),
  ])
  const xml = feedXml(model)

  it('is well-formed for xmllint', () => {
    expect(execFileSync('xmllint', ['--noout', '-'], { input: xml, encoding: 'utf8' })).toBe('')
  })

  it('has no element of which nothing is said, and no text of over 128 letters where the namespace wants no more', () => {
    const long = 'Reeds '.repeat(40).trim()
    const words = feedXml(
      modelOf([
        itemOf({
          title: 'Bare',
          bareTitle: long,
          kind: 'trailer',
          description: '',
          notesHtml: '',
          soundbites: [{ fromMs: 0, durationMs: 30_000, title: long }],
        }),
      ]),
    )
    const item = words.slice(words.indexOf('<item>'))
    expect(item).not.toMatch(/<(description|content:encoded)/)
    for (const name of ['trailer', 'soundbite']) {
      const [, text] = new RegExp(`<podcast:${name}[^>]*>([^<]*)<`).exec(words)!
      expect([text!.length <= 128, text!.length > 100]).toEqual([true, true])
    }
  })

  // RSS 2.0, itunes, podcast, atom and content namespaces, read back by feedsmith.
  it('says the same to feedsmith', () => {
    const read = parseRssFeed(xml)
    expect(read.title).toBe(model.channel.title)
    expect(read.atom?.links?.[0]).toMatchObject({ rel: 'self', href: model.channel.feedAddress })
    expect(read.itunes).toMatchObject({
      author: model.channel.author,
      explicit: false,
      type: 'episodic',
      categories: [{ text: 'Leisure', categories: [{ text: 'Crafts' }] }],
    })
    expect(read.podcast?.guid).toBe(model.channel.podcastGuid)
    read.items!.forEach((item, index) => {
      const wrote = model.items[index]!
      expect(item.guid).toMatchObject({ value: wrote.guid, isPermaLink: false })
      expect(item.enclosures?.[0]).toMatchObject({
        url: wrote.enclosure.address,
        length: wrote.enclosure.bytes,
        type: wrote.enclosure.type,
      })
      expect(item.content?.encoded).toBe(wrote.notesHtml)
      expect(item.itunes?.episodeType).toBe(wrote.kind)
      expect(new Date(String(item.pubDate))).toEqual(wrote.publishedAt)
    })
    expect(read.items![0]!.title).toBe('שלום 🪗 ]]> <b>& "quotes"  end')
  })

  it('says the same to rss-parser', async () => {
    const read = await new Parser().parseString(xml)
    expect(
      read.items.map(({ title, guid, isoDate, enclosure }) => ({
        title,
        guid,
        isoDate,
        url: enclosure?.url,
        length: Number(enclosure?.length),
        type: enclosure?.type,
      })),
    ).toEqual(
      model.items.map(item => ({
        title: item.title.replace(/[\u0007\ud800]/g, ''),
        guid: item.guid,
        isoDate: item.publishedAt.toISOString(),
        url: item.enclosure.address,
        length: item.enclosure.bytes,
        type: item.enclosure.type,
      })),
    )
  })

  it('says the same to @rowanmanning/feed-parser', () => {
    const read = parseFeed(xml)
    expect([read.title, read.url, read.language]).toEqual([
      model.channel.title,
      model.channel.link,
      model.channel.language,
    ])
    expect(read.items.map(({ id, published, media }) => ({ id, published, media }))).toEqual(
      model.items.map(({ guid, publishedAt, enclosure: { address, bytes, type } }) => ({
        id: guid,
        published: publishedAt,
        media: [expect.objectContaining({ url: address, length: bytes, mimeType: type })],
      })),
    )
  })

  // RFC 5322 section 3.3, read by luxon; the day of the week agrees or it would not be valid.
  it('writes dates that RFC 5322 readers take', () => {
    const dates = [...xml.matchAll(/<(?:pubDate|lastBuildDate)>([^<]+)</g)].map(([, date]) => date!)
    expect(dates).toHaveLength(4)
    for (const date of dates) expect(DateTime.fromRFC2822(date).isValid, date).toBe(true)
    expect(dates[3]).toBe('Sat, 28 Feb 2026 23:30:00 +0000')
  })

  it('leaves out numbers that an episode does not have', () => {
    const [first, second] = xml.split('<item>').slice(1)
    expect(first).toContain('<itunes:episode>2</itunes:episode>')
    expect(second).not.toContain('itunes:episode>')
  })

  it('without episodes is well-formed too', () => {
    expect(parseRssFeed(feedXml(modelOf([]))).items ?? []).toEqual([])
  })
})
