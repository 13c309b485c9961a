import type { MetAddress, MetFeed } from './met'
import { readFeed } from './read'

/** A feed of an invented maker, written by hand from the specifications, in which there is nothing to find. */
export const faultless = `<?xml version="1.0" encoding="UTF-8"?>
<rss version="2.0" xmlns:itunes="http://www.itunes.com/dtds/podcast-1.0.dtd" xmlns:podcast="https://podcastindex.org/namespace/1.0" xmlns:atom="http://www.w3.org/2005/Atom" xmlns:content="http://purl.org/rss/1.0/modules/content/">
<channel>
<title>The Tide Table</title>
<link>https://tide.example/</link>
<description>What the water does, told each week.</description>
<language>en-gb</language>
<copyright>The Tide Table</copyright>
<pubDate>Tue, 10 Mar 2026 06:00:00 +0000</pubDate>
<lastBuildDate>Tue, 10 Mar 2026 06:00:00 +0000</lastBuildDate>
<ttl>60</ttl>
<image><url>https://tide.example/art.jpg</url><title>The Tide Table</title><link>https://tide.example/</link></image>
<atom:link rel="self" href="https://tide.example/feed.xml" type="application/rss+xml"/>
<itunes:author>Runa Skerry</itunes:author>
<itunes:owner><itunes:name>Runa Skerry</itunes:name><itunes:email>runa@tide.example</itunes:email></itunes:owner>
<itunes:image href="https://tide.example/art.jpg"/>
<itunes:category text="Science"><itunes:category text="Nature"/></itunes:category>
<itunes:explicit>false</itunes:explicit>
<itunes:type>episodic</itunes:type>
<itunes:keywords>tide, water</itunes:keywords>
<podcast:guid>2f450908-b7f8-58de-91f4-bc312b527759</podcast:guid>
<podcast:locked owner="runa@tide.example">yes</podcast:locked>
<podcast:funding url="https://tide.example/give">Give something</podcast:funding>
<item>
<title>The second flood</title>
<itunes:title>The second flood</itunes:title>
<link>https://tide.example/second</link>
<guid isPermaLink="false">tide-2</guid>
<pubDate>Tue, 10 Mar 2026 06:00:00 +0000</pubDate>
<enclosure url="https://tide.example/second.mp3" length="2000000" type="audio/mpeg"/>
<description>Why it comes again.</description>
<content:encoded><![CDATA[<p>Why it comes <em>again</em>. <a href="https://tide.example/more">More</a></p>]]></content:encoded>
<itunes:subtitle>Why it comes again.</itunes:subtitle>
<itunes:image href="https://tide.example/second.jpg"/>
<itunes:duration>1500</itunes:duration>
<itunes:episode>2</itunes:episode>
<itunes:season>1</itunes:season>
<itunes:episodeType>full</itunes:episodeType>
<itunes:explicit>false</itunes:explicit>
<podcast:transcript url="https://tide.example/second.vtt" type="text/vtt"/>
<podcast:chapters url="https://tide.example/second.json" type="application/json+chapters"/>
<podcast:person role="host">Runa Skerry</podcast:person>
<podcast:soundbite startTime="60.0" duration="30.0">The turn</podcast:soundbite>
</item>
<item>
<title>The first ebb</title>
<itunes:title>The first ebb</itunes:title>
<link>https://tide.example/first</link>
<guid isPermaLink="false">tide-1</guid>
<pubDate>Tue, 03 Mar 2026 06:00:00 +0000</pubDate>
<enclosure url="https://tide.example/first.mp3" length="1000000" type="audio/mpeg"/>
<description>Where it goes.</description>
<itunes:duration>25:00</itunes:duration>
<itunes:episode>1</itunes:episode>
<itunes:season>1</itunes:season>
</item>
</channel>
</rss>
`

const answered: MetAddress = {
  status: 200,
  problem: null,
  contentType: 'audio/mpeg',
  bytes: null,
  takesRanges: true,
  headStatus: 200,
  redirects: 0,
  picture: null,
  form: null,
  durationMs: null,
  fault: null,
}

/** How everything in it answered. */
export const faultlessAnswers = new Map<string, MetAddress>([
  ['https://tide.example/second.mp3', { ...answered, bytes: 2_000_000, form: 'mp3', durationMs: 1_500_400 }],
  ['https://tide.example/first.mp3', { ...answered, bytes: 1_000_000, form: 'mp3' }],
  [
    'https://tide.example/art.jpg',
    {
      ...answered,
      contentType: 'image/jpeg',
      picture: { format: 'jpeg', widthPx: 3000, heightPx: 3000, space: 'srgb', isTransparent: false },
    },
  ],
  ['https://tide.example/second.vtt', { ...answered, contentType: 'text/vtt', form: 'vtt' }],
  ['https://tide.example/second.json', { ...answered, contentType: 'application/json+chapters' }],
])

/** It as it was met, with something else about it. */
export const metFeed = (text = faultless, change: Partial<MetFeed> = {}): MetFeed => ({
  feed: readFeed(text),
  address: 'https://tide.example/feed.xml',
  bytes: text.length,
  now: new Date('2026-03-12T12:00:00Z'),
  encodingFault: null,
  answer: {
    status: 200,
    contentType: 'application/rss+xml; charset=utf-8',
    cacheControl: 'public, no-cache',
    hasEtag: true,
    hasLastModified: true,
    conditionalStatus: 304,
    isCompressed: true,
    headStatus: 200,
    redirects: [],
  },
  answers: faultlessAnswers,
  ...change,
})
