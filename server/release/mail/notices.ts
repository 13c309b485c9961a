import type { Transaction } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { NoticeKind } from '@core/release/notices'
import type { Platform } from '../../platform/platform'
import { Notice } from './models'

/** Something to be told of an episode's moment. */
export interface NewNotice {
  showId: string
  episodeId: string
  kind: NoticeKind
  moment: Date
}

/** Writes down what people are to be told; what was told of the same moment before is not told again. */
export async function note(
  { clock, jobs }: Pick<Platform, 'clock' | 'jobs'>,
  notices: readonly NewNotice[],
  transaction: Transaction,
): Promise<void> {
  if (notices.length === 0) return
  const createdAt = clock.now()
  await Notice.bulkCreate(
    notices.map(notice => ({ id: uuidV7(), ...notice, createdAt })),
    { ignoreDuplicates: true, transaction },
  )
  const shows = [...new Set(notices.map(each => each.showId))]
  await jobs.addOnce(
    shows.map(showId => ({ kind: 'tell-people' as const, payload: { showId }, subject: showId })),
    transaction,
  )
}

/** That episodes went out: their followers are told, and whoever wants to know. */
export async function noteReleased(
  platform: Pick<Platform, 'clock' | 'jobs'>,
  episodes: readonly { id: string; showId: string; releaseAt: Date }[],
  transaction: Transaction,
): Promise<void> {
  await note(
    platform,
    episodes.map(({ id, showId, releaseAt }) => ({ showId, episodeId: id, kind: 'released', moment: releaseAt })),
    transaction,
  )
}
