import { LRUCache } from 'lru-cache'
import { Op } from 'sequelize'
import type { Clock } from '../../platform/clock'
import { type Audience, goesTo } from '../../show/episodes/audience'
import { Episode, PastDelivery } from '../../show/episodes/models'
import { withPage } from '../../show/episodes/released'
import { fileIn, withRole } from '../../show/episodes/roles'
import type { Events } from '../../platform/events/events'
import { AudioFile, deliveryOf } from '../../media/files/models'
import { type Delivery, etagOf, fileHeaders } from '../../platform/storage/deliver'
import { type Head, headOf } from '../../platform/storage/head'
import { deliveredName } from '../../platform/storage/names'
import { publicAccess } from '../../platform/storage/publicAccess'
import { nosniff } from '../../platform/http/nosniff'
import { singleFlight } from '../../platform/singleFlight'

/** What an address delivers, with the headers that each of its answers has. */
export interface Deliverable extends Delivery {
  showId: string
  fileId: string
  head: Head
  etag: string
  /** Until when a file that was replaced still answers; null for the current one. */
  until: Date | null
}

type Deliverables = ReadonlyMap<string, Deliverable>

/** Another content has another address. */
const cacheControl = 'public, max-age=31536000, immutable'
const none: Deliverables = new Map()
/** A few hundred bytes each. */
const mostKept = 20_000
/** Addresses that deliver nothing are kept apart, so that whoever tries many drives nothing out. */
const mostMisses = 2_000
const columns = ['id', 'fingerprint', 'type', 'bytes', 'address', 'createdAt'] as const

/** Which files the addresses of released episodes deliver: asked of the database once, and again when the news says that an episode has changed. */
export function deliverableFiles(clock: Clock, events: Events) {
  const kept = new LRUCache<string, Deliverables>({ max: mostKept })
  const misses = new LRUCache<string, Deliverables>({ max: mostMisses })
  const loading = singleFlight<Deliverables>()
  let changes = 0
  events.hear(news => {
    if (news !== 'all' && news.kind === 'feed') return forgetShow(news.showId)
    if (news !== 'all' && news.kind !== 'episode') return
    changes++
    for (const cache of [kept, misses]) {
      if (news === 'all') cache.clear()
      else cache.delete(news.id)
    }
    loading.forget(news === 'all' ? undefined : news.id)
  })

  /** Who a show goes out to may be others than before. */
  function forgetShow(showId: string): void {
    changes++
    for (const [episodeId, files] of kept.entries())
      if ([...files.values()].some(file => file.showId === showId)) kept.delete(episodeId)
    misses.clear()
    loading.forget()
  }

  async function load(episodeId: string): Promise<Deliverables> {
    const changesBefore = changes
    const found = await readDeliverables(episodeId, 'everybody', clock.now())
    // What changed while it was read may be older than what it changed to.
    if (changes === changesBefore) (found.size > 0 ? kept : misses).set(episodeId, found)
    return found
  }

  const ask = (episodeId: string): Promise<Deliverables> => loading.get(episodeId, () => load(episodeId))

  const named = (files: Deliverables, name: string): Deliverable | null => {
    const file = files.get(name)
    return file && (file.until === null || file.until > clock.now()) ? file : null
  }

  return {
    /** What an address delivers, where that is known here; undefined where it must be asked for. */
    atHand(episodeId: string, name: string): Deliverable | null | undefined {
      const files = kept.get(episodeId) ?? misses.get(episodeId)
      return files && named(files, name)
    },
    async find(episodeId: string, name: string): Promise<Deliverable | null> {
      return named(await ask(episodeId), name)
    },
  }
}

/** The files of a released episode that goes out to an audience: the current one, and those that were replaced not long ago. What lives elsewhere was never here. */
export async function readDeliverables(episodeId: string, audience: Audience, now: Date): Promise<Deliverables> {
  if (!/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(episodeId)) return none
  const episode = await Episode.findOne({
    where: { id: episodeId, ...withPage },
    attributes: ['id', 'showId'],
    include: withRole('released', ...columns),
  })
  if (!episode) return none
  const isFor = await goesTo(episode.showId, audience)
  const released = isFor && (await Episode.findByPk(episodeId, { attributes: ['id', 'released'], rejectOnEmpty: true }))
  if (isFor && !isFor(released!)) return none
  const past = await PastDelivery.findAll({
    where: { episodeId, until: { [Op.gt]: now } },
    include: { model: AudioFile, as: 'file', attributes: [...columns] },
  })
  const all = [
    ...past.map(({ file, until }) => ({ file: file!, until })),
    { file: fileIn(episode, 'released')!, until: null },
  ]
  return new Map(
    all
      .filter(({ file }) => !file.address)
      .map(({ file, until }) => {
        const delivery = deliveryOf(file, cacheControl)
        return [
          deliveredName(file),
          {
            ...delivery,
            showId: episode.showId,
            fileId: file.id,
            head: headOf({ ...fileHeaders(delivery), ...publicAccess, ...nosniff }),
            etag: etagOf(file.fingerprint),
            until,
          },
        ]
      }),
  )
}
