import { Op } from 'sequelize'
import { Episode } from './models'
import { withRole } from './roles'

/** What answers at its own address: what is released, and what is retired and keeps its page. */
export const withPage = {
  [Op.or]: [{ standing: 'released' as const }, { standing: 'retired' as const, keepsPage: true }],
}

/**
 * The released episodes of a show, newest first, with what is public of them; of one address part, where that is given, also
 * one that has left the feed and keeps its page.
 */
export function releasedEpisodes(showId: string, slug?: string): Promise<Episode[]> {
  const which = slug === undefined ? { standing: 'released' as const, slug: { [Op.not]: null } } : { ...withPage, slug }
  return Episode.findAll({
    where: { showId, ...which },
    attributes: ['id', 'guid', 'slug', 'releaseAt', 'released'],
    include: withRole('released', 'sha256', 'type', 'bytes', 'durationMs', 'address'),
    order: [
      ['releaseAt', 'DESC'],
      ['id', 'DESC'],
    ],
  })
}

/** The released episode at an address part; null where none is. */
export const releasedEpisode = async (showId: string, slug: string): Promise<Episode | null> =>
  (await releasedEpisodes(showId, slug))[0] ?? null

export const releasedCount = (showId: string): Promise<number> => Episode.count({ where: { showId, standing: 'released' } })
