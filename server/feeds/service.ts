import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { feedXml } from '@core/feed/xml'
import type { FeedModel } from '@core/feed/model'
import { plainNotes } from '@core/notes/plain'
import type { EpisodeText } from '@core/episode/text'
import { Episode } from '../episodes/models'
import { enclosureAddress } from '../episodes/views'
import { AudioFile } from '../files/models'
import { pictureName } from '../media/routes'
import type { Platform } from '../platform'
import { isDatabaseDown } from '../problems'
import { Picture, Show } from '../shows/models'
import { addressesOf } from '../shows/service'
import { joined } from './freshness'

export type Encoding = 'identity' | 'gzip' | 'br'

/** A feed in one encoding, with the headers that go with it. */
export interface Variant {
  body: Buffer
  etag: string
  headers: Readonly<Record<string, string>>
}

/** A feed as it is sent, with its validators. */
export interface WrittenFeed {
  revision: number
  lastModified: Date
  variants: Readonly<Record<Encoding, Variant>>
}

export const generator = 'Lake Letter'

/** How long a process may overlook what another one wrote; what it wrote itself it never overlooks. */
const revisionKeptMs = 50

/**
 * The feeds, written once for each change. Which revision is current is asked of the database (requests that come
 * together share the question), so any number of processes tell the same; while the database is away, the last feed
 * written here still goes out.
 */
export function feedService({ configuration: { publicUrl } }: Pick<Platform, 'configuration'>) {
  const written = new Map<string, WrittenFeed>()
  const writing = new Map<string, Promise<WrittenFeed>>()
  const revisions = joined(async () => {
    const shows = await Show.findAll({ attributes: ['slug', 'feedRevision'], raw: true })
    return new Map(shows.map(show => [show.slug, Number(show.feedRevision)]))
  }, revisionKeptMs)

  async function write(slug: string): Promise<WrittenFeed> {
    const show = await Show.findOne({ where: { slug }, rejectOnEmpty: true })
    const body = Buffer.from(feedXml(await modelOf(show)))
    const [gzipped, brotlied] = await Promise.all([
      promisify(gzip)(body),
      promisify(brotliCompress)(body, { params: { [constants.BROTLI_PARAM_QUALITY]: 6 } }),
    ])
    const digest = createHash('sha256').update(body).digest('base64url').slice(0, 27)
    const feed: WrittenFeed = {
      revision: Number(show.feedRevision),
      lastModified: show.feedChangedAt,
      // RFC 9110 section 8.8.3.3: a strong entity tag differs between the encodings of one content.
      variants: {
        identity: variantOf(body, `"${digest}"`, show.feedChangedAt),
        gzip: variantOf(gzipped, `"${digest}-gzip"`, show.feedChangedAt),
        br: variantOf(brotlied, `"${digest}-br"`, show.feedChangedAt),
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
        include: { model: AudioFile, as: 'releasedFile', attributes: ['sha256', 'type', 'bytes', 'durationMs', 'address'] },
        order: [['releaseAt', 'DESC'], ['id', 'DESC']],
      }),
    ])
    const { pageAddress, feedAddress } = addressesOf(publicUrl, show.slug)
    return {
      channel: {
        title: show.name,
        link: pageAddress,
        feedAddress,
        description: show.description,
        language: show.language,
        author: show.author,
        owner: { name: show.author, email: show.ownerEmail },
        artworkAddress: `${publicUrl}/media/artwork/${pictureName(picture)}`,
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
    const file = episode.releasedFile!
    const { title, notes, number, season, kind } = episode.releasedText as EpisodeText
    return {
      title,
      guid: episode.guid,
      link: `${pageAddress}/${episode.slug}`,
      publishedAt: episode.releaseAt!,
      enclosure: { address: enclosureAddress(publicUrl, episode.id, file), bytes: Number(file.bytes), type: file.type },
      durationMs: file.durationMs,
      description: plainNotes(notes),
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
      return (await revisions.ask()).get(slug) ?? null
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
      return known && known.revision === revisions.kept()?.get(slug) ? known : null
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

function variantOf(body: Buffer, etag: string, changedAt: Date): Variant {
  return {
    body,
    etag,
    headers: {
      etag,
      'last-modified': changedAt.toUTCString(),
      // Kept by whoever likes, and asked about each time: the copy an app shows is always the current one.
      'cache-control': 'public, no-cache',
      vary: 'accept-encoding',
      'access-control-allow-origin': '*',
    },
  }
}
