import { literal, type Transaction } from 'sequelize'
import type { Platform } from '../platform'
import { Show } from './models'

/** Says that what a show's feed and pages tell has changed, with the news of it; in the transaction that changes it. */
export async function touchFeed(
  { clock, events }: Pick<Platform, 'clock' | 'events'>,
  showId: string,
  transaction: Transaction,
): Promise<void> {
  await Show.update(
    { feedRevision: literal('feed_revision + 1'), feedChangedAt: clock.now() },
    { where: { id: showId }, transaction },
  )
  await events.note({ kind: 'feed', showId, id: showId }, transaction)
}

/** Keeps a show's row to this transaction, so that of those that choose something unique in the show each sees the other's choice. */
export async function lockShow(showId: string, transaction: Transaction): Promise<void> {
  await Show.findByPk(showId, { attributes: ['id'], lock: true, transaction })
}
