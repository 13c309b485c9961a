import { promisify } from 'node:util'
import { gunzip } from 'node:zlib'
import { v7 as uuidV7 } from 'uuid'
import { settledAt } from '@core/feed/dates'
import xmlEdition from '@core/feed/xml?edition'
import type { Platform } from '../../platform/platform'
import { digestOf, type Encoded, encoded } from '../../platform/storage/written'
import type { Show } from '../../show/shows/models'
import itemEdition from './item?edition'
import { FeedState } from './models'

/** A feed as it is sent. */
export interface KeptFeed {
  bodies: Encoded
  /** Of its entity tags. */
  tag: string
  lastModified: Date
}

/**
 * The feed of a name as the newest revision has it. What some process has written is taken as it is, so that all send the same
 * bytes; else it is written, and kept where it tells anything else than before. What differs in the date on which it was built
 * only is the same.
 */
export async function keptFeed(
  { clock, configuration }: Pick<Platform, 'clock' | 'configuration'>,
  show: Pick<Show, 'id' | 'feedRevision' | 'feedChangedAt'>,
  name: string,
  write: () => Promise<string>,
): Promise<KeptFeed> {
  const revision = Number(show.feedRevision)
  const writtenBy = writerOf(configuration)
  const newest = await newestState(show.id, name)
  const isCurrent = newest !== null && Number(newest.revision) >= revision
  if (isCurrent && newest.writtenBy === writtenBy) return readKept(newest)
  const words = await write()
  const identity = Buffer.from(words)
  const digest = contentDigest(identity)
  if (digest === newest?.digest) {
    await FeedState.update({ revision, writtenBy }, { where: { id: newest.id } })
    return readKept(newest)
  }
  const bodies = await encoded(identity)
  const state = {
    at: clock.now(),
    changedAt: isCurrent ? notBefore(newest.changedAt, clock.now()) : show.feedChangedAt,
    digest,
    writtenBy,
    words: null,
    bytes: bodies.identity.length,
    gzip: bodies.gzip,
    brotli: bodies.br,
  }
  if (isCurrent) {
    // The show is as it was, and is told otherwise: by another edition of the writer, or for another address of the house.
    await FeedState.update(state, { where: { id: newest.id } })
    return readKept(newest)
  }
  await FeedState.bulkCreate([{ id: uuidV7(), showId: show.id, name, revision, ...state }], { ignoreDuplicates: true })
  if (newest) await FeedState.update({ brotli: null }, { where: { id: newest.id } })
  // Of processes that wrote it together one was first, and all send what that one wrote.
  const settled = await newestState(show.id, name)
  if (settled && settled.digest !== digest) return readKept(settled)
  return feedOf(bodies, digest, show.feedChangedAt)
}

/** A moment, or a second after another one where a clock that was set back says that it was earlier. */
const notBefore = (other: Date, moment: Date): Date => (moment > other ? moment : new Date(+other + 1000))

const writerOf = ({ publicUrl, hubUrl }: Platform['configuration']): string =>
  digestOf(Buffer.from(`${xmlEdition} ${itemEdition} ${publicUrl} ${hubUrl}`))

/** The digest of what a feed tells, whenever it was built. */
function contentDigest(identity: Buffer): string {
  const from = identity.indexOf('<lastBuildDate>')
  const to = identity.indexOf('</lastBuildDate>')
  return from < 0 ? digestOf(identity) : digestOf(identity.subarray(0, from), identity.subarray(to))
}

/**
 * Tag and date of a feed that is kept as the newest revision has it, without its bytes; null where it is to be written first. Whoever
 * has it already is told so by them alone.
 */
export async function keptIdentity(
  { configuration }: Pick<Platform, 'configuration'>,
  show: Pick<Show, 'id' | 'feedRevision'>,
  name: string,
): Promise<Omit<KeptFeed, 'bodies'> | null> {
  const newest = await newestState(show.id, name)
  return newest && Number(newest.revision) >= Number(show.feedRevision) && newest.writtenBy === writerOf(configuration)
    ? identityOf(newest.digest, newest.changedAt)
    : null
}

/** What it tells and the date on which it was built are all that its bytes come from, so they name them. */
const feedOf = (bodies: Encoded, digest: string, changedAt: Date): KeptFeed => ({
  bodies,
  ...identityOf(digest, changedAt),
})
const identityOf = (digest: string, changedAt: Date): Omit<KeptFeed, 'bodies'> => ({
  tag: `${digest.slice(0, 20)}${(+changedAt).toString(36)}`,
  lastModified: settledAt(changedAt),
})

const newestState = (showId: string, name: string): Promise<FeedState | null> =>
  FeedState.findOne({
    where: { showId, name },
    attributes: ['id', 'revision', 'changedAt', 'digest', 'writtenBy'],
    order: [['revision', 'DESC']],
  })

/** A state with its bytes. */
async function readKept({ id }: FeedState): Promise<KeptFeed> {
  return asKept(await FeedState.findByPk(id, { rejectOnEmpty: true }))
}

async function asKept({ gzip, brotli, digest, changedAt }: FeedState): Promise<KeptFeed> {
  const identity = await promisify(gunzip)(gzip)
  return feedOf({ identity, gzip, br: brotli ?? (await encoded(identity)).br }, digest, changedAt)
}
