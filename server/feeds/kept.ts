import { promisify } from 'node:util'
import { gunzip } from 'node:zlib'
import { v7 as uuidV7 } from 'uuid'
import { settledAt } from '@core/feed/dates'
import type { Platform } from '../platform'
import { digestOf, type Encoded, encoded } from '../media/written'
import type { Show } from '../shows/models'
import { FeedState } from './models'

/** A feed as it is sent. */
export interface KeptFeed {
  bodies: Encoded
  digest: string
  lastModified: Date
}

/**
 * The feed of a name as the newest revision has it. What some process has written is taken as it is, so that all send the same
 * bytes; else it is written, and kept where it tells anything else than before. `write` writes it as of a date; of two that
 * differ in that date only the older stays.
 */
export async function keptFeed(
  { clock }: Pick<Platform, 'clock'>,
  show: Pick<Show, 'id' | 'feedRevision' | 'feedChangedAt'>,
  name: string,
  write: (changedAt: Date) => Promise<(changedAt: Date) => string>,
): Promise<KeptFeed> {
  const revision = Number(show.feedRevision)
  const newest = await newestState(show.id, name)
  if (newest && Number(newest.revision) >= revision) return asKept(newest)
  const wordsOf = await write(show.feedChangedAt)
  if (newest && digestOf(wordsOf(newest.changedAt)) === newest.digest) {
    await FeedState.update({ revision }, { where: { id: newest.id } })
    return asKept(newest)
  }
  const words = wordsOf(show.feedChangedAt)
  const bodies = await encoded(words)
  const digest = digestOf(bodies.identity)
  await FeedState.bulkCreate(
    [
      {
        id: uuidV7(),
        showId: show.id,
        name,
        revision,
        at: clock.now(),
        changedAt: show.feedChangedAt,
        digest,
        bytes: bodies.identity.length,
        gzip: bodies.gzip,
        brotli: bodies.br,
      },
    ],
    { ignoreDuplicates: true },
  )
  if (newest) await FeedState.update({ brotli: null }, { where: { id: newest.id } })
  const settled = await newestState(show.id, name)
  if (settled && settled.digest !== digest) return asKept(settled)
  return { bodies, digest, lastModified: settledAt(show.feedChangedAt) }
}

const newestState = (showId: string, name: string): Promise<FeedState | null> =>
  FeedState.findOne({ where: { showId, name }, order: [['revision', 'DESC']] })

async function asKept({ gzip, brotli, digest, changedAt }: FeedState): Promise<KeptFeed> {
  const identity = await promisify(gunzip)(gzip)
  return {
    bodies: { identity, gzip, br: brotli ?? (await encoded(identity.toString())).br },
    digest,
    lastModified: settledAt(changedAt),
  }
}
