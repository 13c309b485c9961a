import { deepEqual } from 'fast-equals'
import type { Transaction } from 'sequelize'
import { filesOfMix } from '@core/mix/document'
import { AudioFile } from '../../media/files/models'
import type { Episode } from './models'
import { fileIdOf, fileIdsOf, giveRoles } from './roles'

/** Keeps hold of the files that an episode is put together of, as it is written and as its source was made, so that they stay on the shelf. */
export async function holdMixed(episode: Episode, transaction: Transaction): Promise<void> {
  const sourceId = fileIdOf(episode, 'source')
  const source = sourceId && (await AudioFile.findByPk(sourceId, { attributes: ['id', 'mix'], transaction }))
  const mixes = [episode.mix, source ? source.mix : null].filter(mix => mix != null)
  const named = new Set(mixes.flatMap(filesOfMix))
  if (named.size === 0 && fileIdsOf(episode, 'mixed').length === 0) return
  // What is not on this shelf is not held; whoever makes a sound of the mix is told.
  const there = await AudioFile.findAll({
    where: { id: [...named], showId: episode.showId },
    attributes: ['id'],
    order: ['id'],
    lock: transaction.LOCK.SHARE,
    transaction,
  })
  const held = there.map(({ id }) => id)
  if (!deepEqual(held, fileIdsOf(episode, 'mixed'))) await giveRoles(episode, { mixed: held }, transaction)
}
