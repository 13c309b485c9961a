import { Op } from 'sequelize'
import { Episode } from './models'
import { withRole } from './roles'

/** The released episodes of a show, newest first, with what is public of them; of one address part, where that is given. */
export function releasedEpisodes(showId: string, slug?: string): Promise<Episode[]> {
  return Episode.findAll({
    where: { showId, standing: 'released', slug: slug ?? { [Op.not]: null } },
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
