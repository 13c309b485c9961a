import { renderEpisodePage, renderShowPage } from '@site/pages'
import { Op } from 'sequelize'
import { Episode } from '../episodes/models'
import { outgoingOf } from '../episodes/outgoing'
import { withRole } from '../episodes/roles'
import { artworkOf } from '../episodes/artwork'
import { written } from '../media/written'
import type { Platform } from '../platform'
import { writtenAnswers } from '../shows/writtenAnswers'
import { publicEpisode, publicShow } from './facts'

/** The public pages of shows and episodes, written once for each change: released episodes only, as they stand in the feed. */
export function siteService(platform: Pick<Platform, 'configuration' | 'events' | 'siteAssets'>) {
  const {
    configuration: { publicUrl },
    siteAssets,
  } = platform

  function released(showId: string, slug?: string): Promise<Episode[]> {
    return Episode.findAll({
      where: { showId, standing: 'released', slug: slug ?? { [Op.not]: null } },
      attributes: ['id', 'slug', 'releaseAt', 'released'],
      include: withRole('released', 'sha256', 'type', 'bytes', 'durationMs', 'address'),
      order: [
        ['releaseAt', 'DESC'],
        ['id', 'DESC'],
      ],
    })
  }

  return writtenAnswers(platform, async (row, path, lastModified) => {
    const [show, episodes] = await Promise.all([publicShow(row, publicUrl), released(row.id, path || undefined)])
    const artwork = await artworkOf(episodes, publicUrl)
    const facts = episodes.map(episode => publicEpisode(outgoingOf(episode, artwork), row, publicUrl))
    if (path && !facts[0]) return null
    const html = path
      ? await renderEpisodePage({ show, episode: facts[0]! }, siteAssets)
      : await renderShowPage({ show, episodes: facts }, siteAssets)
    return { path: path && episodes[0]!.slug!, answer: await written('text/html; charset=utf-8', html, lastModified) }
  })
}
