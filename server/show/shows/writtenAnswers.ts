import { LRUCache } from 'lru-cache'
import { settledAt } from '@core/feed/dates'
import { bytesOf, type Written } from '../../platform/storage/written'
import type { Platform } from '../../platform/platform'
import { isDatabaseDown } from '../../platform/http/problems'
import { singleFlight } from '../../platform/singleFlight'
import { currentSlug } from './addresses'
import { Show } from './models'

/** What is told of a show, as it was written for a revision of it. */
export interface WrittenAnswer {
  showId: string
  /** The show's address part as it is written. */
  slug: string
  /** The host name that is the show's own; null where it lives at the house's. */
  hostName: string | null
  /** The path within the show as it is written; empty for the show itself. */
  path: string
  revision: number
  answer: Written
  /** Where what was here has moved to, where it leads there at once. */
  movedTo?: string | null
}

/**
 * Feeds and pages, written once for each revision of their show, so that any number of processes tell the same. What is
 * written serves until the news says that its show has changed: at once for changes by this process, within half a second
 * for those of others. While the database is away, what was written here last still goes out. `write` writes what is at a
 * path of a show, and tells how the path is spelt; null where nothing is. `share` is what it may take of the room for answers.
 */
export function writtenAnswers(
  { events, configuration: { cacheBytes } }: Pick<Platform, 'events' | 'configuration'>,
  write: (
    show: Show,
    path: string,
    lastModified: Date,
  ) => Promise<Pick<WrittenAnswer, 'path' | 'answer' | 'movedTo'> | null>,
  share = 1 / 4,
) {
  // Feeds, pages, files of chapters and transcripts have a quarter of the room each.
  const kept = new LRUCache<string, WrittenAnswer>({
    maxSize: Math.max(1, Math.floor(cacheBytes * share)),
    sizeCalculation: ({ answer }) => bytesOf(answer),
  })
  /** What no news has come of since it was looked at. */
  const settled = new WeakSet<WrittenAnswer>()
  const looking = singleFlight<WrittenAnswer | null>()
  let news = 0
  events.hear(heard => {
    if (heard !== 'all' && heard.kind !== 'feed') return
    news++
    for (const told of kept.values()) if (heard === 'all' || told.showId === heard.showId) settled.delete(told)
    looking.forget()
  })
  const keyOf = (slug: string, path: string): string => `${slug}/${path}`

  /** What is told by what the database holds: what is kept, where its revision is the newest. */
  async function look(slug: string, path: string): Promise<WrittenAnswer | null> {
    const newsBefore = news
    const told = await upToDate(slug, path)
    if (told && news === newsBefore) settled.add(told)
    return told
  }

  async function upToDate(slug: string, path: string): Promise<WrittenAnswer | null> {
    const known = kept.get(keyOf(slug, path))
    try {
      const show = await Show.findOne({ where: { slug }, attributes: ['feedRevision'], raw: true })
      if (!show) {
        const moved = await currentSlug(slug)
        return moved === null ? null : current(moved, path)
      }
      return known && known.revision >= Number(show.feedRevision) ? known : await writeNow(slug, path)
    } catch (error) {
      if (known && isDatabaseDown(error)) return known
      throw error
    }
  }

  async function writeNow(slug: string, path: string): Promise<WrittenAnswer | null> {
    const show = await Show.findOne({ where: { slug }, rejectOnEmpty: true })
    const what = await write(show, path, settledAt(show.feedChangedAt))
    if (!what) return null
    const told = {
      showId: show.id,
      slug: show.slug,
      hostName: show.hostName,
      revision: Number(show.feedRevision),
      ...what,
    }
    // Other spellings only lead to this one.
    if (told.slug === slug && told.path === path) kept.set(keyOf(slug, path), told)
    return told
  }

  const current = (slug: string, path = ''): Promise<WrittenAnswer | null> =>
    looking.get(keyOf(slug, path), () => look(slug, path))

  return {
    /** What is told now, where that is known without asking anybody; else null. */
    atHand(slug: string, path = ''): WrittenAnswer | null {
      const known = kept.get(keyOf(slug, path))
      return known && settled.has(known) ? known : null
    },

    /**
     * What is told now, at the address that its show has now; null where there is no such show, or nothing at the path.
     */
    current,
  }
}
