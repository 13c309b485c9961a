import { createHmac } from 'node:crypto'
import { Op } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import { cleanName, cleanWords, commentFault, type Fault } from '@core/comments/comment'
import { transact } from '../database/transact'
import type { Episode } from '../episodes/models'
import { note } from '../mail/notices'
import type { Platform } from '../platform'
import type { Show } from '../shows/models'
import { Comment, CommentBan } from './models'

/** So many are taken from one address, and for one show, in so long. */
const windowMs = 10 * 60_000
const mostOfOne = 5
const mostOfAll = 60
/** So many may wait to be read; what comes then is too much for anybody. */
const mostWaiting = 1000

export type Taken = { kind: 'taken' } | { kind: 'faulty'; fault: Fault } | { kind: 'too much' }

/** What listeners write, from wherever they do. Nothing of it is seen before the maker has read it. */
export function commentTaking(platform: Pick<Platform, 'database' | 'clock' | 'jobs'>) {
  const { database, clock } = platform
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
      const now = clock.now()
      const lately = { showId: show.id, cameAt: { [Op.gt]: new Date(+now - windowMs) } }
      const [ofOne, ofAll, waiting] = await Promise.all([
        Comment.count({ where: { ...lately, asker } }),
        Comment.count({ where: lately }),
        Comment.count({ where: { showId: show.id, state: 'waiting' } }),
      ])
      if (ofOne >= mostOfOne || ofAll >= mostOfAll || waiting >= mostWaiting) return { kind: 'too much' }
      await transact(database, async transaction => {
        await Comment.create(
          { id: uuidV7(), showId: show.id, episodeId: episode.id, name, words, asker, cameAt: now },
          { transaction },
        )
        // One note for all of an hour.
        const moment = new Date(Math.floor(+now / 3600_000) * 3600_000)
        await note(platform, [{ showId: show.id, episodeId: episode.id, kind: 'commented', moment }], transaction)
      })
      return { kind: 'taken' }
    },
  }
}
