import type { Transaction } from 'sequelize'
import type { Platform } from '../../platform/platform'
import { Show } from './models'

/** Says that what a show's feed and pages tell has changed, with the news of it, and has the feed looked at; in the transaction that changes it. */
export const touchFeed = (platform: Touching, showId: string, transaction: Transaction): Promise<void> =>
  touchFeeds(platform, [showId], transaction)

/** Says that what a show's pages tell has changed, and nothing in its feed. */
export const touchPages = (
  platform: Pick<Touching, 'clock' | 'events'>,
  showId: string,
  transaction: Transaction,
): Promise<void> => noteRevision(platform, [showId], transaction)

async function noteRevision(
  { clock, events }: Pick<Touching, 'clock' | 'events'>,
  showIds: readonly string[],
  transaction: Transaction,
): Promise<void> {
  if (showIds.length === 0) return
  // Its date never goes back, though a clock may: readers that go by it alone would keep what they have for good.
  await Show.sequelize!.query(
    `UPDATE shows SET feed_revision = feed_revision + 1,
        feed_changed_at = IF(feed_changed_at > :now, feed_changed_at + INTERVAL 1 SECOND, :now) WHERE id IN (:ids)`,
    { replacements: { now: clock.now(), ids: [...showIds] }, transaction },
  )
  await events.note(
    showIds.map(id => ({ kind: 'feed' as const, showId: id, id })),
    transaction,
  )
}

/** The same as touchFeed of several shows. */
export async function touchFeeds(
  platform: Touching,
  showIds: readonly string[],
  transaction: Transaction,
): Promise<void> {
  const { jobs, configuration } = platform
  await noteRevision(platform, showIds, transaction)
  const always = ['check-feed', 'index-words'] as const
  const kinds = configuration.hubUrl ? ([...always, 'announce-feed'] as const) : always
  await jobs.addOnce(
    [...new Set(showIds)].flatMap(id => kinds.map(kind => ({ kind, payload: { showId: id }, subject: id }))),
    transaction,
  )
}
type Touching = Pick<Platform, 'clock' | 'events' | 'jobs' | 'configuration'>

/** Keeps a show's row to this transaction, so that of those that choose something unique in the show each sees the other's choice. */
export async function lockShow(showId: string, transaction: Transaction): Promise<void> {
  await Show.findByPk(showId, { attributes: ['id'], lock: true, transaction })
}

/** The same of several shows, always in the same order, so that none waits for one that waits for it. */
export async function lockShows(showIds: readonly string[], transaction: Transaction): Promise<void> {
  const where = { id: [...showIds] }
  await Show.findAll({ where, attributes: ['id'], order: [['id', 'ASC']], lock: true, transaction, raw: true })
}
