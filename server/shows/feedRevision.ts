import { literal, type Transaction } from 'sequelize'
import { noteFeedWrite } from './freshness'
import { Show } from './models'

/** Says that what a show's feed and pages tell has changed; in the transaction that changes it. */
export async function touchFeed(showId: string, at: Date, transaction: Transaction): Promise<void> {
  noteFeedWrite(transaction)
  await Show.update({ feedRevision: literal('feed_revision + 1'), feedChangedAt: at }, { where: { id: showId }, transaction })
}

/** Keeps a show's row to this transaction, so that of those that choose something unique in the show each sees the other's choice. */
export async function lockShow(showId: string, transaction: Transaction): Promise<void> {
  await Show.findByPk(showId, { attributes: ['id'], lock: true, transaction })
}
