import { LRUCache } from 'lru-cache'
import { settledAt } from '@core/feed/dates'
import { bytesOf, type Written } from '../media/written'
import { isDatabaseDown } from '../problems'
import { joined } from './freshness'
import { Show } from './models'

/** What is told of a show, as it was written for a revision of it. */
export interface Told {
  showId: string
  /** The show's address part as it is written. */
  slug: string
  /** The path within the show as it is written; empty for the show itself. */
  path: string
  revision: number
  answer: Written
}

/** How long a process may overlook what another one wrote; what it wrote itself it never overlooks. */
const revisionKeptMs = 50

/** Which revision of a show is current, asked of the database; requests that come together share the question. */
const revisionsOf = () => joined<number | null>(async slugs => {
  const shows = await Show.findAll({ where: { slug: slugs }, attributes: ['slug', 'feedRevision'], raw: true })
  const found = new Map(shows.map(show => [show.slug.toLowerCase(), Number(show.feedRevision)]))
  return new Map(slugs.map(slug => [slug, found.get(slug.toLowerCase()) ?? null]))
}, null, revisionKeptMs)

/**
 * Feeds and pages, written once for each revision of their show, so that any number of processes tell the same; while the
 * database is away, what was written here last still goes out. `write` writes what is at a path of a show, and tells
 * how the path is spelt; null where nothing is.
 */
export function writtenAnswers(mostBytes: number, write: (show: Show, path: string, lastModified: Date) => Promise<Pick<Told, 'path' | 'answer'> | null>) {
  const kept = new LRUCache<string, Told>({ maxSize: Math.max(1, mostBytes), sizeCalculation: ({ answer }) => bytesOf(answer) })
  const writing = new Map<string, Promise<Told | null>>()
  const revisions = revisionsOf()
  const keyOf = (slug: string, path: string): string => `${slug}/${path}`

  async function writeNow(slug: string, path: string): Promise<Told | null> {
    const show = await Show.findOne({ where: { slug }, rejectOnEmpty: true })
    const what = await write(show, path, settledAt(show.feedChangedAt))
    if (!what) return null
    const told = { showId: show.id, slug: show.slug, revision: Number(show.feedRevision), ...what }
    // Other spellings only lead to this one.
    if (told.slug === slug && told.path === path) kept.set(keyOf(slug, path), told)
    return told
  }

  /** The revision that the database holds; the one written here while the database is away. */
  async function askedRevision(slug: string, path: string): Promise<number | null> {
    try {
      return await revisions.ask(slug)
    } catch (error) {
      const known = kept.get(keyOf(slug, path))
      if (known && isDatabaseDown(error)) return known.revision
      throw error
    }
  }

  return {
    /** What is told now, where that is known without asking anybody; else null. */
    atHand(slug: string, path = ''): Told | null {
      const known = kept.get(keyOf(slug, path))
      return known && known.revision === revisions.kept(slug) ? known : null
    },

    /** What is told now; null where there is no such show, or nothing at the path. */
    async current(slug: string, path = ''): Promise<Told | null> {
      const revision = await askedRevision(slug, path)
      if (revision === null) return null
      const key = keyOf(slug, path)
      const known = kept.get(key)
      if (known && known.revision >= revision) return known
      const underway = writing.get(key) ?? writeNow(slug, path).finally(() => writing.delete(key))
      writing.set(key, underway)
      const fresh = await underway
      return !fresh || fresh.revision >= revision ? fresh : writeNow(slug, path)
    },
  }
}
