import { createHmac } from 'node:crypto'
import { Op, type WhereOptions } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import { cleanName, cleanWords, commentFault, type Fault } from '@core/comments/comment'
import type { Columns } from '../database/columns'
import { transact } from '../database/transact'
import type { Episode } from '../episodes/models'
import { note } from '../mail/notices'
import type { Platform } from '../platform'
import { lockShow } from '../shows/feedRevision'
import type { Show } from '../shows/models'
import { Comment, CommentBan } from './models'

/** So many are taken from one address, and for one show, in so long. */
const windowMs = 10 * 60_000
const mostOfOne = 5
const mostOfAll = 60
/** So many may wait to be read; what comes then is too much for anybody. */
const mostWaiting = 1000
/** So many are written down at a time by a process. */
const mostAtOnce = 20

export type Taken = { kind: 'taken' } | { kind: 'faulty'; fault: Fault } | { kind: 'too much' }

/** What listeners write, from wherever they do. Nothing of it is seen before the maker has read it. */
export function commentTaking(platform: Pick<Platform, 'database' | 'clock' | 'jobs'>) {
  const { database, clock } = platform
  let underWay = 0
  return {
    async take(
      show: Show,
      episode: Pick<Episode, 'id'>,
      said: { name: string; words: string; trap: string },
      address: string,
    ): Promise<Taken> {
      const [name, words] = [cleanName(said.name), cleanWords(said.words)]
      const fault = commentFault({ name, words })
      if (fault) return { kind: 'faulty', fault }
      const asker = createHmac('sha256', show.commentSalt!).update(address).digest('base64url')
      // A machine that fills in what no person sees, and whoever was banned, believe that they were heard.
      if (said.trap !== '' || (await CommentBan.count({ where: { showId: show.id, asker } })) > 0)
        return { kind: 'taken' }
      if (underWay >= mostAtOnce) return { kind: 'too much' }
      underWay++
      try {
        return await keep({ showId: show.id, episodeId: episode.id, name, words, asker })
      } finally {
        underWay--
      }
    },
  }

  /** The show's row is locked, so that of those that come at once each is counted. */
  function keep(said: Columns<Comment, 'showId' | 'episodeId' | 'name' | 'words' | 'asker'>): Promise<Taken> {
    const { showId, episodeId, asker } = said
    const now = clock.now()
    return transact(database, async (transaction): Promise<Taken> => {
      await lockShow(showId, transaction)
      const lately = { showId, cameAt: { [Op.gt]: new Date(+now - windowMs) } }
      const count = (where: WhereOptions): Promise<number> => Comment.count({ where, transaction })
      const isTooMuch =
        (await count({ ...lately, asker })) >= mostOfOne ||
        (await count(lately)) >= mostOfAll ||
        (await count({ showId, state: 'waiting' })) >= mostWaiting
      if (isTooMuch) return { kind: 'too much' }
      await Comment.create({ id: uuidV7(), ...said, cameAt: now }, { transaction })
      // One note for all of an hour.
      const moment = new Date(Math.floor(+now / 3600_000) * 3600_000)
      await note(platform, [{ showId, episodeId, kind: 'commented', moment }], transaction)
      return { kind: 'taken' }
    })
  }
}
