import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { LRUCache } from 'lru-cache'
import { settledAt } from '@core/feed/dates'
import { itemDescription, safeInBothReadings } from '@core/feed/description'
import { feedXml } from '@core/feed/xml'
import type { FeedModel } from '@core/feed/model'
import { plainNotes } from '@core/notes/plain'
import { readSnapshot } from '@core/episode/snapshot'
import { Episode } from '../episodes/models'
import { fileIn, withRole } from '../episodes/roles'
import { enclosureAddress } from '../episodes/views'
import { publicAccess } from '../media/publicAccess'
import { Picture } from '../pictures/models'
import { publicPictureAddress } from '../pictures/names'
import { nosniff } from '../nosniff'
import type { Platform } from '../platform'
import { isDatabaseDown } from '../problems'
import { Show } from '../shows/models'
import { addressesOf } from '../shows/service'
import type { Encoding } from './encodings'
import { joined } from '../shows/freshness'

/** A feed in one encoding, with the headers that go with it. */
export interface Variant {
  body: Buffer
  etag: string
  headers: Readonly<Record<string, string>>
}

/** A feed as it is sent, with its validators. */
export interface WrittenFeed {
  /** The show's address part as it is written. */
  slug: string
  revision: number
  lastModified: Date
  variants: Readonly<Record<Encoding, Variant>>
}

export const generator = 'Lake Letter'

/** How long a process may overlook what another one wrote; what it wrote itself it never overlooks. */
const revisionKeptMs = 50

/** Room for feeds in this process; those that are not asked for give way. */
const mostFeedBytes = 64_000_000

/**
 * The feeds, written once for each change. Which revision is current is asked of the database (requests that come
 * together share the question), so any number of processes tell the same; while the database is away, the last feed
 * written here still goes out.
 */
export function feedService({ configuration: { publicUrl } }: Pick<Platform, 'configuration'>) {
  const written = new LRUCache<string, WrittenFeed>({
    maxSize: mostFeedBytes,
    sizeCalculation: ({ variants }) => Object.values(variants).reduce((sum, { body }) => sum + body.length, 2_000),
  })
  const writing = new Map<string, Promise<WrittenFeed>>()
  const revisions = joined<number | null>(async slugs => {
    const shows = await Show.findAll({ where: { slug: slugs }, attributes: ['slug', 'feedRevision'], raw: true })
    const found = new Map(shows.map(show => [show.slug.toLowerCase(), Number(show.feedRevision)]))
    return new Map(slugs.map(slug => [slug, found.get(slug.toLowerCase()) ?? null]))
  }, null, revisionKeptMs)

  async function write(slug: string): Promise<WrittenFeed> {
    const show = await Show.findOne({ where: { slug }, rejectOnEmpty: true })
    const body = Buffer.from(feedXml(await modelOf(show)))
    const [gzipped, brotlied] = await Promise.all([
      promisify(gzip)(body),
      promisify(brotliCompress)(body, { params: { [constants.BROTLI_PARAM_QUALITY]: 6 } }),
    ])
    const digest = createHash('sha256').update(body).digest('base64url').slice(0, 27)
    const lastModified = settledAt(show.feedChangedAt)
    const feed: WrittenFeed = {
      slug: show.slug,
      revision: Number(show.feedRevision),
      lastModified,
      // RFC 9110 section 8.8.3.3: a strong entity tag differs between the encodings of one content.
      variants: {
        identity: variantOf(body, `"${digest}"`, lastModified),
        gzip: variantOf(gzipped, `"${digest}-gzip"`, lastModified),
        br: variantOf(brotlied, `"${digest}-br"`, lastModified),
      },
    }
    written.set(slug, feed)
    return feed
  }

  async function modelOf(show: Show): Promise<FeedModel> {
    const [picture, episodes] = await Promise.all([
      Picture.findByPk(show.artworkId, { rejectOnEmpty: true }),
      Episode.findAll({
        where: { showId: show.id, standing: 'released' },
        attributes: { exclude: ['title', 'notes'] },
        include: withRole('released', 'sha256', 'type', 'bytes', 'durationMs', 'address'),
        order: [['releaseAt', 'DESC'], ['id', 'DESC']],
      }),
    ])
    const { pageAddress, feedAddress } = addressesOf(publicUrl, show.slug)
    return {
      channel: {
        title: show.name,
        link: pageAddress,
        feedAddress,
        description: safeInBothReadings(show.description),
        language: show.language,
        author: show.author,
        owner: { name: show.author, email: show.ownerEmail },
        artworkAddress: publicPictureAddress(publicUrl, picture),
        category: show.category,
        subcategory: show.subcategory,
        explicit: show.explicit,
        type: show.type,
        podcastGuid: show.podcastGuid,
        changedAt: show.feedChangedAt,
        generator,
      },
      items: episodes.map(episode => itemOf(episode, show, pageAddress)),
    }
  }

  function itemOf(episode: Episode, show: Show, pageAddress: string): FeedModel['items'][number] {
    const file = fileIn(episode, 'released')!
    const { title, notes, number, season, kind } = readSnapshot(episode.released!)
    return {
      title,
      guid: episode.guid,
      link: `${pageAddress}/${episode.slug}`,
      publishedAt: episode.releaseAt!,
      enclosure: { address: enclosureAddress(publicUrl, episode.id, file), bytes: Number(file.bytes), type: file.type },
      durationMs: file.durationMs,
      description: itemDescription(plainNotes(notes)),
      notesHtml: notes,
      number,
      season,
      kind,
      explicit: show.explicit,
    }
  }

  /** The revision that the database holds; the one written here while the database is away. */
  async function askedRevision(slug: string): Promise<number | null> {
    try {
      return await revisions.ask(slug)
    } catch (error) {
      const known = written.get(slug)
      if (known && isDatabaseDown(error)) return known.revision
      throw error
    }
  }

  return {
    /** The feed as it is now, where that can be told without asking anybody; else null. */
    atHand(slug: string): WrittenFeed | null {
      const known = written.get(slug)
      return known && known.revision === revisions.kept(slug) ? known : null
    },

    /** The feed of the show at this address part as it is now; null where there is no such show. */
    async current(slug: string): Promise<WrittenFeed | null> {
      const revision = await askedRevision(slug)
      if (revision === null) return null
      const known = written.get(slug)
      if (known && known.revision >= revision) return known
      const underway = writing.get(slug) ?? write(slug).finally(() => writing.delete(slug))
      writing.set(slug, underway)
      const fresh = await underway
      return fresh.revision >= revision ? fresh : write(slug)
    },
  }
}

function variantOf(body: Buffer, etag: string, lastModified: Date): Variant {
  return {
    body,
    etag,
    headers: {
      etag,
      'last-modified': lastModified.toUTCString(),
      // Kept by whoever likes, and asked about each time: the copy an app shows is always the current one.
      'cache-control': 'public, no-cache',
      vary: 'accept-encoding',
      ...publicAccess,
      ...nosniff,
    },
  }
}
