import { createHmac } from 'node:crypto'
import type { WhereOptions } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import { networksOf } from '@core/address/network'
import { cleanName, cleanWords, type CommentFault, commentFault } from '@core/comments/comment'
import type { Columns } from '../../platform/database/columns'
import { rateCounts } from '../../platform/database/rateCounts'
import { transact } from '../../platform/database/transact'
import type { Episode } from '../../show/episodes/models'
import { note } from '../../release/mail/notices'
import type { Platform } from '../../platform/platform'
import { lockShow } from '../../show/shows/feedRevision'
import type { Show } from '../../show/shows/models'
import { Comment, CommentBan } from './models'

/**
 * So many are taken in so long from one network, and from the networks of one place; and so many of one network may wait to be read.
 * What others write counts for nobody else, so that a flood silences only those whom it comes from.
 */
const windowMs = 10 * 60_000
const mostOfOne = 5
const mostOfSite = 20
const mostWaitingOfOne = 20
/** More than this nobody reads, and the disk is everybody's. */
const mostWaiting = 20_000
/** So many are written down at a time by a process: of the networks of one place, and of all. */
const mostAtOnceOfSite = 4
const mostAtOnce = 500

export type Taken = { kind: 'taken' } | { kind: 'faulty'; fault: CommentFault } | { kind: 'too much' }

/** What listeners write, from wherever they do. Nothing of it is seen before the maker has read it. */
export function commentTaking(platform: Pick<Platform, 'database' | 'clock' | 'jobs'>) {
  const { database, clock } = platform
  const counts = rateCounts(platform, windowMs)
  /** By what tells places apart. */
  const underWay = new Map<string, number>()
  let all = 0
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
      const markOf = (network: string): string =>
        createHmac('sha256', show.commentSalt!).update(network).digest('base64url')
      const { own, site } = networksOf(address)
      const asker = markOf(own)
      // Whoever was banned before networks were told apart was so by the address.
      const banned = { showId: show.id, asker: [asker, markOf(address)] }
      // A machine that fills in what no person sees, and whoever was banned, believe that they were heard.
      if (said.trap !== '' || (await CommentBan.count({ where: banned })) > 0) return { kind: 'taken' }
      const place = markOf(site)
      const theirs = underWay.get(place) ?? 0
      if (theirs >= mostAtOnceOfSite || all >= mostAtOnce) return { kind: 'too much' }
      underWay.set(place, theirs + 1)
      all++
      try {
        return await keep({ showId: show.id, episodeId: episode.id, name, words, asker }, place)
      } finally {
        all--
        const left = underWay.get(place)! - 1
        if (left > 0) underWay.set(place, left)
        else underWay.delete(place)
      }
    },
  }

  /** The show's row is locked, so that of those that come at once each is counted. */
  function keep(
    said: Columns<Comment, 'showId' | 'episodeId' | 'name' | 'words' | 'asker'>,
    site: string,
  ): Promise<Taken> {
    const { showId, episodeId, asker } = said
    const now = clock.now()
    return transact(database, async (transaction): Promise<Taken> => {
      await lockShow(showId, transaction)
      const waiting = (of: WhereOptions): Promise<number> =>
        Comment.count({ where: { showId, state: 'waiting', ...of }, transaction })
      const isTooMuch =
        (await counts.count('comment', asker, transaction)) > mostOfOne ||
        (await counts.count('comment site', site, transaction)) > mostOfSite ||
        (await waiting({ asker })) >= mostWaitingOfOne ||
        (await waiting({})) >= mostWaiting
      if (isTooMuch) return { kind: 'too much' }
      await Comment.create({ id: uuidV7(), ...said, cameAt: now }, { transaction })
      // One note for all of an hour.
      const moment = new Date(Math.floor(+now / 3600_000) * 3600_000)
      await note(platform, [{ showId, episodeId, kind: 'commented', moment }], transaction)
      return { kind: 'taken' }
    })
  }
}
