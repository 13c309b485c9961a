import { literal, Op, type Sequelize, type Transaction, where } from 'sequelize'
import { beforeMs, type NoticeKind } from '@core/release/notices'
import { type Decided, episodeChanges } from '../../show/episodes/change'
import { Episode } from '../../show/episodes/models'
import { canGoOut, hindrancesNow } from '../../show/episodes/readiness'
import { withFiles } from '../../show/episodes/roles'
import { transact } from '../../platform/database/transact'
import { note, noteReleased } from '../mail/notices'
import type { Platform } from '../../platform/platform'
import { lockShows, touchFeeds } from '../../show/shows/feedRevision'
import { sending } from './sending'

/** How many episodes go out in one step, and how many of what is not ready are told of. */
export const mostAtOnce = 50

/** What the clock brings: what is due goes out, what is at its end leaves, what cannot go out is told of. */
export function dueReleases(platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events' | 'configuration'>) {
  const { database, clock } = platform
  const { applyAll } = episodeChanges(platform)
  const { allAsSent } = sending(platform)

  /** Some episodes, the longest due first, locked; those that another process has at hand are left to it. */
  async function take(
    which: object,
    column: 'releaseAt' | 'retireAt',
    limit: number,
    transaction: Transaction,
  ): Promise<Episode[]> {
    const rows = await Episode.findAll({
      where: { deletedAt: null, ...which },
      attributes: ['id'],
      order: [
        [column, 'ASC'],
        ['id', 'ASC'],
      ],
      limit,
      lock: true,
      skipLocked: true,
      transaction,
    })
    const ids = rows.map(({ id }) => id)
    const found = ids.length > 0 ? await Episode.findAll({ where: { id: ids }, include: withFiles(), transaction }) : []
    const known = new Map(found.map(episode => [episode.id, episode]))
    return ids.map(id => known.get(id)!)
  }

  const due = () => ({ status: 'scheduled' as const, releaseAt: { [Op.lte]: clock.now() } })
  const ready = () => ({ ...due(), [Op.and]: [canGoOut] })
  const ended = () => ({ status: 'released' as const, retireAt: { [Op.lte]: clock.now() } })
  const showsOf = (episodes: readonly Episode[]): string[] => [...new Set(episodes.map(({ showId }) => showId))].sort()

  return {
    /**
     * Releases episodes whose moment has come, so many at most, with that moment as their date; answers how many. The row
     * locks and the status see to it that of any number of processes exactly one releases each, once.
     */
    async releaseDue(most = mostAtOnce): Promise<number> {
      // Mostly nothing is due, and that is seen without a transaction.
      if (!(await Episode.findOne({ where: { deletedAt: null, ...ready() }, attributes: ['id'], raw: true }))) return 0
      return transact(database, async transaction => {
        const taken = await take(ready(), 'releaseAt', most, transaction)
        const going = taken.filter(episode => hindrancesNow(episode).length === 0)
        if (going.length === 0) return 0
        const shows = showsOf(going)
        await lockShows(shows, transaction)
        const sent = await allAsSent(going, transaction)
        const decided: Decided[] = going.map((episode, at) => ({ episode, change: { step: 'release', ...sent[at]! } }))
        await applyAll(decided, transaction, null)
        await touchFeeds(platform, shows, transaction)
        await noteReleased(
          platform,
          going.map(({ id, showId, releaseAt }) => ({ id, showId, releaseAt: releaseAt! })),
          transaction,
        )
        return going.length
      })
    },

    /** Takes out of the feed what is at its end; answers how many. */
    async retireDue(): Promise<number> {
      if (!(await Episode.findOne({ where: { deletedAt: null, ...ended() }, attributes: ['id'], raw: true }))) return 0
      return transact(database, async transaction => {
        const taken = await take(ended(), 'retireAt', mostAtOnce, transaction)
        if (taken.length === 0) return 0
        await applyAll(
          taken.map(episode => ({
            episode,
            change: { step: 'retire', fields: { retireAt: null, retireZone: null, keepsPage: episode.keepsPage } },
          })),
          transaction,
          null,
        )
        await touchFeeds(platform, showsOf(taken), transaction)
        return taken.length
      })
    },

    /** Writes down what people are to be told of: what is held, and what comes up and is not ready. */
    async noteUnready(): Promise<void> {
      const now = +clock.now()
      const rows = await Episode.findAll({
        where: {
          deletedAt: null,
          status: 'scheduled',
          releaseAt: { [Op.lte]: new Date(now + beforeMs['day before']) },
          [Op.and]: [where(canGoOut, Op.is, false), untoldAt(database, now)],
        },
        attributes: ['id', 'showId', 'releaseAt'],
        order: [['releaseAt', 'ASC']],
        limit: mostAtOnce,
        raw: true,
      })
      if (rows.length === 0) return
      const notices = rows.map(({ id, showId, releaseAt }) => ({
        showId,
        episodeId: id,
        kind: kindAt(releaseAt!, now),
        moment: releaseAt!,
      }))
      await transact(database, transaction => note(platform, notices, transaction))
    },
  }
}

/** A finish that is under way gets this long before anybody is told that it keeps an episode waiting. */
const finishGraceMs = 10 * 60_000

const kindAt = (moment: Date, now: number): NoticeKind =>
  +moment <= now ? 'held' : +moment <= now + beforeMs['hour before'] ? 'hour before' : 'day before'

/** Of what nobody was told yet that somebody is to be told at this moment. */
function untoldAt(database: Sequelize, now: number): ReturnType<typeof literal> {
  const [at, inAnHour, graceOver] = [now, now + beforeMs['hour before'], now - finishGraceMs].map(ms =>
    database.escape(new Date(ms).toISOString().replace('T', ' ').slice(0, -1)),
  )
  return literal(`((\`Episode\`.finishing <> 'working' OR \`Episode\`.recipe IS NULL OR \`Episode\`.release_at <= ${graceOver})
    AND NOT EXISTS (SELECT 1 FROM notices n WHERE n.episode_id = \`Episode\`.id AND n.moment = \`Episode\`.release_at
      AND n.kind = IF(\`Episode\`.release_at <= ${at}, 'held', IF(\`Episode\`.release_at <= ${inAnHour}, 'hour before', 'day before'))))`)
}
