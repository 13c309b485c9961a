import { describe, expect, it } from 'vitest'
import { checkFeed } from './check'
import { faultlessAnswers, faultless, metFeed } from './faultless.fixture'
import type { FeedAnswer, MetAddress, MetFeed } from './met'
import { modelOf, itemOf } from './model.fixture'
import { readFeed } from './read'
import { feedRules } from './rules'
import { feedXml } from './xml'

const found = (met: MetFeed): string[] => checkFeed(met).map(({ name }) => name)
const instead = (was: string, is: string): MetFeed => {
  expect(faultless).toContain(was)
  return metFeed(faultless.replace(was, is))
}
const without = (element: string): MetFeed => instead(element, '')
const answering = (change: Partial<FeedAnswer>, more: Partial<MetFeed> = {}): MetFeed =>
  metFeed(faultless, { answer: { ...metFeed().answer!, ...change }, ...more })
const met = (address: string, change: Partial<MetAddress>): MetFeed =>
  metFeed(faultless, {
    answers: new Map([...faultlessAnswers, [address, { ...faultlessAnswers.get(address)!, ...change }]]),
  })
const [second, art] = ['https://tide.example/second.mp3', 'https://tide.example/art.jpg']
const many = 'a'.repeat(5_000)

/** Faults as makers have them, each with the rule that finds it, and no other does. */
const faults: Record<string, () => MetFeed> = {
  'well-formed': () => instead('<ttl>60</ttl>', '<ttl>60'),
  encoding: () => metFeed(faultless, { encodingFault: 'said to be UTF-8, and byte 812 is none of it' }),
  'rss-version': () => instead('version="2.0"', 'version="0.91"'),
  'one-channel': () => instead('</channel>', '</channel><channel/>'),
  'known-namespaces': () =>
    instead('http://www.w3.org/2005/Atom"', 'http://www.w3.org/2005/Atom" xmlns:dc="http://purl.org/dc/terms/"'),
  'no-doctype': () => instead('<rss ', '<!DOCTYPE rss><rss '),
  'feed-size': () => metFeed(faultless, { bytes: 12_000_000 }),
  'plain-elements': () => instead('<ttl>60</ttl>', '<ttl>60</ttl><subtitle>Tides</subtitle>'),
  'show-title': () => without('<title>The Tide Table</title>'),
  'show-title-length': () => instead('<title>The Tide Table</title>', `<title>${'tide '.repeat(60)}</title>`),
  'show-link': () => instead('<link>https://tide.example/</link>\n<desc', '<link>tide.example</link>\n<desc'),
  'show-description': () => without('<description>What the water does, told each week.</description>'),
  'show-description-length': () => instead('What the water does', many),
  'show-language': () => instead('en-gb', 'English (British)'),
  'show-category': () => without('<itunes:category text="Science"><itunes:category text="Nature"/></itunes:category>'),
  'known-category': () => instead('text="Nature"', 'text="Tides"'),
  'show-explicit': () => without('<itunes:explicit>false</itunes:explicit>'),
  'explicit-value': () => instead('<itunes:explicit>false', '<itunes:explicit>mostly'),
  'show-artwork': () => without('<itunes:image href="https://tide.example/art.jpg"/>'),
  'show-image': () => without('<url>https://tide.example/art.jpg</url>'),
  'show-author': () => without('<itunes:author>Runa Skerry</itunes:author>'),
  'owner-email': () => instead('<itunes:email>runa@tide.example', '<itunes:email>runa at tide'),
  'show-type': () => instead('episodic</', 'weekly</'),
  'serial-numbers': () =>
    metFeed(faultless.replace('episodic</', 'serial</').replace('<itunes:episode>1</itunes:episode>', '')),
  'self-link': () => without('rel="self" '),
  'own-address': () => instead('href="https://tide.example/feed.xml"', 'href="https://old.tide.example/feed.xml"'),
  'show-guid': () => instead('2f450908-b7f8', 'tide'),
  'locked-show': () => instead('>yes</podcast:locked>', '>maybe</podcast:locked>'),
  'blocked-show': () => instead('<ttl>', '<itunes:block>yes</itunes:block><ttl>'),
  'moved-show': () => instead('<ttl>', '<itunes:new-feed-url>new.example</itunes:new-feed-url><ttl>'),
  'moving-show': () => instead('<ttl>', '<itunes:new-feed-url>https://new.example/f</itunes:new-feed-url><ttl>'),
  'complete-show': () => instead('<ttl>', '<itunes:complete>Yes</itunes:complete><ttl>'),
  'built-date': () => instead('<lastBuildDate>Tue, 10', '<lastBuildDate>10.3.'),
  ttl: () => instead('<ttl>60', '<ttl>an hour'),
  'funding-address': () => instead('url="https://tide.example/give"', 'url="give"'),
  'any-items': () => metFeed(faultless.replace(/<item>[\s\S]*<\/item>/, '')),
  'many-keywords': () => instead('tide, water', 'a,b,c,d,e,f,g,h,i,j,k,l,m'),
  'item-title': () => metFeed(faultless.replace('<title>The first ebb</title>\n', '')),
  'bare-title': () => instead('<itunes:title>The second', '<itunes:title>Episode 2: The second'),
  'same-title': () => instead('<title>The first ebb', '<title>The second flood'),
  'title-letters': () => instead('<title>The first ebb', '<title>The first ebb &amp;amp; flood'),
  'item-guid': () => without('<guid isPermaLink="false">tide-1</guid>'),
  'same-guid': () => instead('>tide-1<', '>tide-2<'),
  'permalink-guid': () => instead('<guid isPermaLink="false">tide-1', '<guid>tide-1'),
  'item-date': () => without('<pubDate>Tue, 03 Mar 2026 06:00:00 +0000</pubDate>'),
  'date-form': () => instead('Tue, 03 Mar 2026 06:00:00 +0000', '2026-03-03T06:00:00Z'),
  'date-weekday': () => instead('Tue, 03 Mar', 'Fri, 03 Mar'),
  'date-zone': () => instead('Tue, 03 Mar 2026 06:00:00 +0000', 'Tue, 03 Mar 2026 01:00:00 EST'),
  'date-ahead': () =>
    metFeed(faultless.replaceAll('Tue, 10 Mar 2026 06:00:00 +0000', 'Sat, 10 Oct 2026 06:00:00 +0000')),
  'newest-first': () =>
    metFeed(
      faultless
        .replace('<itunes:episode>2', '<itunes:episode>0')
        .replace('<itunes:episode>1', '<itunes:episode>2')
        .replace('<itunes:episode>0', '<itunes:episode>1')
        .replace('Tue, 03 Mar 2026', 'Wed, 11 Mar 2026'),
    ),
  'same-moment': () => instead('Tue, 03 Mar 2026', 'Tue, 10 Mar 2026'),
  'number-order': () => metFeed(faultless.replace('<itunes:episode>1', '<itunes:episode>3')),
  'same-number': () => instead('<itunes:episode>1', '<itunes:episode>2'),
  'number-form': () => instead('<itunes:season>1', '<itunes:season>one'),
  'episode-kind': () => instead('>full<', '>special<'),
  enclosure: () => without('<enclosure url="https://tide.example/first.mp3" length="1000000" type="audio/mpeg"/>'),
  'one-enclosure': () =>
    instead(
      '<itunes:duration>25:00',
      '<enclosure url="https://tide.example/first.ogg" length="1" type="audio/ogg"/><itunes:duration>25:00',
    ),
  'enclosure-address': () => instead('https://tide.example/first.mp3', 'https://tide.example/the first.mp3'),
  'enclosure-length': () =>
    metFeed(faultless.replace('length="1000000"', 'length="0"'), {
      answers: new Map([...faultlessAnswers].filter(([address]) => !address.endsWith('first.mp3'))),
    }),
  'enclosure-type': () =>
    metFeed(
      faultless.replace('length="1000000" type="audio/mpeg"', 'length="1000000" type="application/octet-stream"'),
      {
        answers: new Map(),
      },
    ),
  'enclosure-ending': () =>
    metFeed(faultless.replace('tide.example/first.mp3', 'tide.example/first.m4a'), { answers: new Map() }),
  'same-enclosure': () => metFeed(faultless.replace('/first.mp3" length="1000000"', '/second.mp3" length="2000000"')),
  'lasting-address': () => instead('first.mp3"', 'first.mp3?Expires=1773200000&amp;Signature=x"'),
  duration: () => instead('<itunes:duration>25:00', '<itunes:duration>25 min'),
  'item-notes': () => without('<description>Where it goes.</description>'),
  'notes-length': () => instead('Where it goes.', many),
  'notes-markup': () => instead('<p>Why it comes <em>', '<p><img src="https://tide.example/i.png"/><em>'),
  'notes-script': () => instead('<p>Why it comes <em>', '<p><script>go()</script><em>'),
  'notes-closed': () => instead('again</em>', 'again'),
  'notes-links': () => instead('href="https://tide.example/more"', 'href="/more"'),
  'hook-length': () => instead('<itunes:subtitle>Why', `<itunes:subtitle>${'why '.repeat(70)}`),
  'item-link': () => instead('<link>https://tide.example/first', '<link>first'),
  'transcript-type': () => instead('type="text/vtt"', 'type="application/msword"'),
  'chapters-type': () => instead('type="application/json+chapters"', 'type="text/plain"'),
  'person-name': () => instead('>Runa Skerry</podcast:person>', '> </podcast:person>'),
  'soundbite-place': () => instead('startTime="60.0"', 'startTime="1490"'),
  'item-artwork': () => instead('href="https://tide.example/second.jpg"', 'href="second.jpg"'),
  answers: () => answering({ status: 503 }),
  'content-type': () => answering({ contentType: 'text/html' }),
  'secure-address': () =>
    metFeed(faultless.replace('href="https://tide.example/feed.xml"', 'href="http://tide.example/feed.xml"'), {
      address: 'http://tide.example/feed.xml',
    }),
  validators: () => answering({ hasEtag: false, hasLastModified: false, conditionalStatus: null }),
  'not-modified': () => answering({ conditionalStatus: 200 }),
  caching: () => answering({ cacheControl: 'public, max-age=86400' }),
  compressed: () => answering({ isCompressed: false }, { bytes: 200_000 }),
  'head-answer': () => answering({ headStatus: 405 }),
  'lasting-redirects': () => answering({ redirects: [{ status: 302, to: 'https://tide.example/feed.xml' }] }),
  'audio-answers': () => met(second, { status: 404 }),
  'audio-bytes': () => met(second, { bytes: 1_999_999 }),
  'audio-type': () => met(second, { contentType: 'text/html' }),
  'audio-form': () => met(second, { form: 'm4a' }),
  'audio-duration': () => met(second, { durationMs: 86_000 }),
  'audio-ranges': () => met(second, { takesRanges: false }),
  'audio-head': () => met(second, { headStatus: 403 }),
  'audio-redirects': () => met(second, { redirects: 4 }),
  'artwork-answers': () => met(art, { picture: null, status: 404 }),
  'artwork-size': () =>
    met(art, { picture: { format: 'jpeg', widthPx: 1200, heightPx: 1200, space: 'srgb', isTransparent: false } }),
  'artwork-form': () =>
    met(art, { picture: { format: 'jpeg', widthPx: 3000, heightPx: 3000, space: 'cmyk', isTransparent: false } }),
  'transcript-answers': () => met('https://tide.example/second.vtt', { fault: 'It does not begin with WEBVTT.' }),
  'chapters-answer': () => met('https://tide.example/second.json', { status: 404 }),
}

describe('the rules of feeds', () => {
  it('find nothing in a faultless feed, nor in one of ours', () => {
    expect(found(metFeed())).toEqual([])
    const ours = feedXml(modelOf([itemOf()]))
    const address = 'https://lake.example/bellows-and-reeds/feed.xml'
    expect(found({ ...metFeed(ours, { address, answers: new Map() }) })).toEqual([])
  })

  it.each(feedRules.map(({ name }) => name))('%s finds its fault, and nothing else is found', name =>
    expect(found(faults[name]!())).toEqual([name]),
  )

  it('let a feed that came from elsewhere say that this is where it is', () => {
    const own = 'https://tide.example/feed.xml'
    const moved = instead('<ttl>', `<itunes:new-feed-url>${own}</itunes:new-feed-url><ttl>`)
    expect(checkFeed(moved).map(({ name }) => name)).toEqual([])
    expect(checkFeed({ ...moved, address: null, answer: null }).map(({ name }) => name)).toEqual([])
  })
  it('are told whole, each once', () => {
    expect(new Set(feedRules.map(({ name }) => name)).size).toBe(feedRules.length)
    expect(Object.keys(faults).sort()).toEqual(feedRules.map(({ name }) => name).sort())
    for (const { name, says, rule, source, ifItStays, fix } of feedRules) {
      for (const words of [says, rule, ifItStays, fix]) expect(words, name).toMatch(/^\S.*\.$/)
      expect(source.length, name).toBeGreaterThan(5)
    }
  })

  it.each([
    ['Tide &amp;amp; wind', 'escaped twice'],
    ['The &lt;b&gt;first&lt;/b&gt; ebb', 'tags'],
    ['Die FlutmÃ¼hle', 'UTF-8 read as windows-1252'],
    ['The tideâ€™s way', 'the same, of a quote'],
    ['The f\ufffdrst ebb', 'a letter that was lost'],
  ])('the title “%s” has signs that nobody meant: %s', title => {
    expect(found(instead('<title>The first ebb', `<title>${title}`))).toEqual(['title-letters'])
  })
  it.each(['Tide &amp; wind', 'Ãrea de maré', 'a &lt; b', '5 &lt;3', 'São João', 'Â, the letter'])(
    'the title “%s” has none',
    title => expect(found(instead('<title>The first ebb', `<title>${title}`))).toEqual([]),
  )
  it('a namespace in other letters is another one (Namespaces in XML 1.0, section 2.3)', () => {
    const shouted = 'http://www.itunes.com/DTDs/Podcast-1.0.dtd'
    expect(found(instead('http://www.itunes.com/dtds/podcast-1.0.dtd', shouted))).toEqual(['known-namespaces'])
  })
  it('an empty description is none, whatever stands in itunes:summary', () => {
    const summary = '<description></description><itunes:summary>Where it goes.</itunes:summary>'
    expect(found(instead('<description>Where it goes.</description>', summary))).toEqual(['item-notes'])
    expect(found(instead('<description>What the water does, told each week.</description>', summary))).toEqual([
      'show-description',
    ])
  })
  it('a duration that is none says nothing of soundbites', () => {
    expect(found(instead('<itunes:duration>1500', '<itunes:duration>25 min'))).toEqual(['duration'])
  })
  it.each([
    ['<p>One<p>Two<ul><li>Three</ul>', []],
    ['<p>One <a href="https://tide.example/">two</p><p>three', ['notes-closed']],
    ['<ul><li>One', ['notes-closed']],
    ['<p>One<br>two', []],
  ])('notes %s', (notes, wanted) => {
    expect(
      found(instead('<p>Why it comes <em>again</em>. <a href="https://tide.example/more">More</a></p>', notes)),
    ).toEqual(wanted)
  })

  // Eleven ways in which makers write dates; RFC 5322 section 3.3 and its obsolete forms (section 4.3) are two of them.
  it.each([
    ['Tue, 03 Mar 2026 06:00:00 +0000', []],
    ['3 Mar 2026 06:00 +0100', []],
    ['Tue, 03 Mar 2026 06:00:00 GMT', []],
    ['Tue, 03 Mar 2026 06:00:00 PST', ['date-zone']],
    ['2026-03-03T06:00:00Z', ['date-form']],
    ['2026-03-03 06:00:00', ['date-form']],
    ['03/03/2026', ['date-form']],
    ['March 3, 2026', ['date-form']],
    ['1772517600', ['date-form']],
    ['Tue, 31 Feb 2026 06:00:00 +0000', ['date-form']],
    ['Tuesday, 3 March 2026 06:00:00 +0000', ['date-form']],
  ])('take the date %s for what it is', (date, names) =>
    expect(found(instead('Tue, 03 Mar 2026 06:00:00 +0000', date))).toEqual(names),
  )
})

describe('reading a feed', () => {
  it('does not follow what a document declares', () => {
    const bomb = `<?xml version="1.0"?><!DOCTYPE r [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><rss version="2.0"><channel><title>&b;</title></channel></rss>`
    const outside = `<!DOCTYPE r [<!ENTITY x SYSTEM "file:///etc/passwd">]><rss version="2.0"><channel><title>&x;</title></channel></rss>`
    for (const text of [bomb, outside]) {
      const { document } = readFeed(text)
      expect(document.hasDoctype).toBe(true)
      expect(document.fault?.says).toMatch(/entity/)
      expect(JSON.stringify(document.root)).not.toMatch(/aaaaaaaaaaa|root:/)
    }
  })

  it.each([
    ['', 'empty'],
    ['<html><body><p>Not here', 'a page'],
    ['{"version": "https://jsonfeed.org/version/1.1"}', 'JSON'],
    ['\u0000\u0001', 'bytes'],
    ['<rss>'.repeat(1000), 'deep'],
    [faultless.slice(0, 900), 'broken off'],
  ])('says where %j stops being one (%s)', text => {
    const { document } = readFeed(text)
    expect(document.fault).toMatchObject({ line: expect.any(Number), says: expect.stringMatching(/\S/) })
  })

  it('reads 50,000 items', () => {
    const item = /<item>[\s\S]*?<\/item>/.exec(faultless)![0]
    const feed = readFeed(faultless.replace(item, item.repeat(50_000)))
    expect([feed.document.fault, feed.items.length]).toEqual([null, 50_001])
  })
})
