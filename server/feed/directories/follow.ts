import type { Transaction } from 'sequelize'
import { transact } from '../../platform/database/transact'
import { goesTo } from '../../show/episodes/audience'
import { Episode } from '../../show/episodes/models'
import type { NewJob } from '../../platform/jobs/jobs'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import { tellListed } from '../../release/mail/tell'
import { Refused, Trouble } from '../../platform/outside/service'
import type { Platform } from '../../platform/platform'
import { touchFeed } from '../../show/shows/feedRevision'
import { directoriesAt, type SubmissionState } from './client'
import { ListingRow } from '../../show/shows/listings'

const minuteMs = 60_000
/** How long after a look at a submission the next one follows. */
const pausesMs: Readonly<Record<ListingRow['state'], number | null>> = {
  reading: 2_000,
  'to confirm': 10 * minuteMs,
  'in review': 20 * minuteMs,
  listed: 60 * minuteMs,
  refused: null,
}
/** So soon where it lacks an episode that is out. */
const waitingMs = 10 * minuteMs
/** One that was to have looked by now will any moment; it is asked ever less often while it does not. */
const soonMs = 1_500

export const following = (id: string, afterMs = 0): NewJob => ({
  kind: 'follow-listing',
  payload: { listingId: id },
  subject: id,
  afterMs,
})

/** Writes down how a submission stands, with the news of it, and when it is looked at again. */
export async function noteState(
  platform: Pick<Platform, 'clock' | 'events' | 'jobs' | 'configuration' | 'database'>,
  listing: ListingRow,
  { state, since, why, sentTo, isClosed, listingAddress, fetchedAt, nextFetchAt, guids }: SubmissionState,
  transaction: Transaction,
): Promise<void> {
  const isNewlyListed = state === 'listed' && listing.state !== 'listed'
  const isOtherAddress = listingAddress !== listing.listingAddress
  await listing.update(
    { state, since, why, sentTo, isClosed, listingAddress, fetchedAt, nextFetchAt, guids, problem: null },
    { transaction },
  )
  await platform.events.note({ kind: 'listing', showId: listing.showId, id: listing.id }, transaction)
  // Its address is on the public page.
  if (isOtherAddress) await touchFeed(platform, listing.showId, transaction)
  if (isNewlyListed) await tellListed(platform, listing, transaction)
  await askAgain(platform, listing, transaction)
}

async function askAgain(
  { clock, jobs }: Pick<Platform, 'clock' | 'jobs'>,
  listing: ListingRow,
  transaction: Transaction,
): Promise<void> {
  const pause = pausesMs[listing.state]
  await jobs.cancel('follow-listing', listing.id, transaction)
  if (pause === null) return
  const isOverdue = listing.nextFetchAt !== null && listing.nextFetchAt <= clock.now()
  await listing.update({ overdue: isOverdue ? listing.overdue + 1 : 0 }, { transaction })
  const isBehind = listing.state === 'listed' && (await lacking(listing)).length > 0
  const usual = isBehind ? waitingMs : pause
  await jobs.add(
    following(listing.id, isOverdue ? Math.min(usual, soonMs * 2 ** Math.min(listing.overdue, 20)) : usual),
    transaction,
  )
}

/** The released episodes that a directory could have and does not have yet, the newest first. */
export async function lacking({ showId, guids }: Pick<ListingRow, 'showId' | 'guids'>): Promise<Episode[]> {
  const has = new Set(guids)
  const isFor = await goesTo(showId, 'everybody')
  const released = await Episode.findAll({
    where: { showId, status: 'released' },
    attributes: ['id', 'guid', 'title', 'number', 'releaseAt', ...(isFor ? ['released' as const] : [])],
    order: [['releaseAt', 'DESC']],
  })
  return released.filter(episode => !has.has(episode.guid) && (!isFor || isFor(episode)))
}

/** The job: asks a directory how a show stands there, ever again for as long as it is followed. */
export function followListing(platform: Platform): JobDefinition<Payloads['follow-listing']> {
  const { database, configuration, jobs, events } = platform

  async function trouble(listing: ListingRow, { message }: Error): Promise<void> {
    await transact(database, async transaction => {
      await listing.update({ problem: message.slice(0, 300) }, { transaction })
      await events.note({ kind: 'listing', showId: listing.showId, id: listing.id }, transaction)
      await jobs.cancel('follow-listing', listing.id, transaction)
      await jobs.add(following(listing.id, waitingMs), transaction)
    })
  }

  return {
    lane: 'network',
    limitMs: minuteMs,
    async run({ listingId }, { signal }) {
      const listing = await ListingRow.findByPk(listingId)
      const { directory, submissionId } = listing ?? {}
      if (!listing || !directory || !submissionId || !configuration.directoriesUrl) return
      try {
        const state = await directoriesAt(configuration.directoriesUrl).look(directory, submissionId, signal)
        if (!state) return await trouble(listing, new Trouble('The directory does not know of it any more.'))
        await transact(database, async transaction => {
          // Whoever hands it in anew meanwhile is not written over.
          const current = await ListingRow.findByPk(listingId, { transaction, lock: true })
          if (current?.submissionId === submissionId) await noteState(platform, current, state, transaction)
        })
      } catch (error) {
        if (!(error instanceof Trouble || error instanceof Refused)) throw error
        await trouble(listing, error)
      }
    },
    gaveUp: null,
  }
}
