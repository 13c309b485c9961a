import Parser from 'rss-parser'
import sanitizeHtml from 'sanitize-html'

export interface HeardFeed {
  title: string
  description: string
  artwork: string | null
  episodes: {
    guid: string
    title: string
    date: string
    duration: string
    notes: string
    sound: string
    type: string
  }[]
}

const parser = new Parser<object, { itunes?: { duration?: string }; 'content:encoded'?: string }>()

/** Fetches a feed as any app would and reads it with a library; throws with words where it cannot. */
export async function fetchFeed(address: string): Promise<HeardFeed> {
  if (!/^https?:\/\//.test(address)) throw new Error('Give the address of a feed; it begins with http.')
  const response = await fetch(address, {
    headers: { accept: 'application/rss+xml, application/xml' },
    signal: AbortSignal.timeout(10_000),
  }).catch(() => {
    throw new Error('Nobody answers at this address.')
  })
  if (!response.ok) throw new Error(`The address answers with status ${response.status}.`)
  const feed = await parser.parseString(await response.text()).catch(() => {
    throw new Error('What stands at this address is no feed.')
  })
  return {
    title: feed.title ?? '',
    description: feed.description ?? '',
    artwork: feed.itunes?.image ?? null,
    episodes: feed.items.flatMap(item =>
      item.enclosure
        ? [
            {
              guid: item.guid ?? item.enclosure.url,
              title: item.title ?? '',
              date: item.isoDate ?? '',
              duration: item.itunes?.duration ?? '',
              notes: sanitizeHtml(item['content:encoded'] ?? item.content ?? ''),
              sound: item.enclosure.url,
              type: item.enclosure.type ?? '',
            },
          ]
        : [],
    ),
  }
}
