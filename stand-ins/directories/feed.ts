import Parser from 'rss-parser'
import sharp from 'sharp'
import type { Want } from './characters'

/** A show as a directory has read it. */
export interface ReadShow {
  title: string
  description: string
  ownerEmail: string
  artwork: string
  category: string
  language: string
  episodes: { guid: string; title: string; date: string }[]
}
export interface Artwork {
  widthPx: number
  heightPx: number
  format: string
}

interface ChannelFields {
  'itunes:owner'?: { 'itunes:email'?: string[] }
  'itunes:category'?: { $?: { text?: string } }
  language?: string
}
const parser = new Parser<ChannelFields, object>({ customFields: { feed: ['itunes:category', 'language'] } })
const patienceMs = 10_000
const mostArtworkBytes = 12_000_000

/** A feed that was asked for: what it says, or nothing where it has not changed. Throws with words where it cannot be read. */
export async function fetchShow(
  address: string,
  agent: string,
  etag: string | null,
): Promise<{ show: ReadShow | null; etag: string | null }> {
  const ask = (): Promise<Response> =>
    fetch(address, {
      headers: { 'user-agent': agent, accept: 'application/rss+xml', ...(etag && { 'if-none-match': etag }) },
      signal: AbortSignal.timeout(patienceMs),
    })
  // RFC 9112 section 9.3.1: a line that was kept open may be closed just then; what changes nothing is asked once more.
  const answer = await ask()
    .catch(ask)
    .catch(() => {
      throw new Error('Nobody answers at the address of the feed.')
    })
  if (answer.status === 304) return { show: null, etag }
  if (!answer.ok) throw new Error(`The address of the feed answers with an error (${answer.status}).`)
  const feed = await parser.parseString(await answer.text()).catch(() => {
    throw new Error('What stands at the address is no feed.')
  })
  return {
    etag: answer.headers.get('etag'),
    show: {
      title: feed.title ?? '',
      description: feed.description ?? '',
      ownerEmail: feed.itunes?.owner?.email ?? '',
      artwork: feed.itunes?.image ?? '',
      category: feed['itunes:category']?.$?.text ?? '',
      language: feed.language ?? '',
      episodes: feed.items.flatMap(({ guid, title, isoDate, enclosure }) =>
        guid && enclosure ? [{ guid, title: title ?? '', date: isoDate ?? '' }] : [],
      ),
    },
  }
}

/** How artwork is written; null where there is none that can be read. */
export async function fetchArtwork(address: string): Promise<Artwork | null> {
  try {
    const answer = await fetch(address, { signal: AbortSignal.timeout(patienceMs) })
    const bytes = await answer.arrayBuffer()
    if (!answer.ok || bytes.byteLength > mostArtworkBytes) return null
    const { width, height, format } = await sharp(bytes).metadata()
    return { widthPx: width, heightPx: height, format }
  } catch {
    return null
  }
}

/** What of what a directory wants is not there. */
export function missing(wanted: readonly Want[], show: ReadShow, artwork: Artwork | null): Want[] {
  const isThere: Record<Want, boolean> = {
    episode: show.episodes.length > 0,
    artwork:
      artwork !== null &&
      artwork.widthPx === artwork.heightPx &&
      artwork.widthPx >= 1400 &&
      artwork.widthPx <= 3000 &&
      /^(jpeg|png)$/.test(artwork.format),
    email: /^\S+@\S+\.\S+$/.test(show.ownerEmail),
    description: show.description !== '',
    category: show.category !== '',
    language: show.language !== '',
  }
  return wanted.filter(want => !isThere[want])
}
