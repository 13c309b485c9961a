import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { fetchFeed } from './feed'

const feed = `<?xml version="1.0"?><rss version="2.0" xmlns:itunes="http://www.itunes.com/dtds/podcast-1.0.dtd" xmlns:content="http://purl.org/rss/1.0/modules/content/">
<channel><title>Slow Ferry</title><description>Five minutes.</description><itunes:image href="http://lake.example/a.jpg"/>
<item><title>The last boat</title><guid isPermaLink="false">g-1</guid><pubDate>Thu, 05 Mar 2026 05:00:00 +0000</pubDate>
<enclosure url="http://lake.example/a.mp3" length="5" type="audio/mpeg"/><itunes:duration>60</itunes:duration>
<content:encoded>&lt;p onclick="x()"&gt;Dark &lt;script&gt;alert(1)&lt;/script&gt;&lt;b&gt;water&lt;/b&gt;&lt;/p&gt;</content:encoded></item>
<item><title>Words only</title><guid>g-2</guid></item></channel></rss>`

let server: Server
let address: string
beforeAll(async () => {
  server = createServer((request, response) => {
    if (request.url === '/feed.xml') response.end(feed)
    else if (request.url === '/page') response.end('<html><body>Not a feed</body></html>')
    else response.writeHead(404).end()
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(() => server.close())

it('hears what a feed tells: artwork, titles, dates, lengths, and notes without anything that runs', async () => {
  expect(await fetchFeed(`${address}/feed.xml`)).toEqual({
    title: 'Slow Ferry',
    description: 'Five minutes.',
    artwork: 'http://lake.example/a.jpg',
    episodes: [
      {
        guid: 'g-1',
        title: 'The last boat',
        date: '2026-03-05T05:00:00.000Z',
        duration: '60',
        notes: '<p>Dark <b>water</b></p>',
        sound: 'http://lake.example/a.mp3',
        type: 'audio/mpeg',
      },
    ],
  })
})

it.each([
  ['/page', 'What stands at this address is no feed.'],
  ['/gone', 'The address answers with status 404.'],
])('%s is told apart in words', async (path, words) => {
  await expect(fetchFeed(address + path)).rejects.toThrow(words)
})

it('an address where nobody answers, and one that is none, are told apart in words', async () => {
  await expect(fetchFeed('http://127.0.0.1:1/feed.xml')).rejects.toThrow('Nobody answers at this address.')
  await expect(fetchFeed('file:///etc/hosts')).rejects.toThrow('it begins with http')
})
