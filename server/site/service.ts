import type { EpisodePage, ShowPage } from '@site/pages'
import { Op } from 'sequelize'
import { readSnapshot } from '@core/episode/snapshot'
import { plainNotes } from '@core/notes/plain'
import { cut } from '@core/words/line'
import { Episode } from '../episodes/models'
import { fileIn, withRole } from '../episodes/roles'
import { enclosureAddress } from '../episodes/views'
import { Picture } from '../pictures/models'
import { publicPictureAddress } from '../pictures/names'
import type { Platform } from '../platform'
import { Show } from '../shows/models'
import { addressesOf } from '../shows/service'

/** What the public pages tell: released episodes only, as they stand in the feed. */
export function siteService({ configuration: { publicUrl } }: Pick<Platform, 'configuration'>) {
  async function showFacts(slug: string): Promise<{ row: Show; facts: ShowPage['show'] } | null> {
    const row = await Show.findOne({ where: { slug } })
    if (!row) return null
    const picture = await Picture.findByPk(row.artworkId, { rejectOnEmpty: true })
    const { name, description, author, language, zone } = row
    const artworkAddress = publicPictureAddress(publicUrl, picture)
    return { row, facts: { name, description, author, language, zone, artworkAddress, ...addressesOf(publicUrl, row.slug) } }
  }

  function released(showId: string, slug?: string): Promise<Episode[]> {
    return Episode.findAll({
      where: { showId, standing: 'released', slug: slug ?? { [Op.not]: null } },
      include: withRole('released', 'sha256', 'type', 'bytes', 'durationMs', 'address'),
      order: [['releaseAt', 'DESC'], ['id', 'DESC']],
    })
  }

  function episodeFacts(episode: Episode, pageAddress: string): EpisodePage['episode'] {
    const file = fileIn(episode, 'released')!
    const { title, number, notes } = readSnapshot(episode.released!)
    return {
      title,
      number,
      notesHtml: notes,
      summary: cut(plainNotes(notes).slice(0, 1200), 300),
      pageAddress: `${pageAddress}/${episode.slug}`,
      soundAddress: enclosureAddress(publicUrl, episode.id, file),
      soundType: file.type,
      bytes: Number(file.bytes),
      durationMs: file.durationMs,
      releasedAt: episode.releaseAt!.toISOString(),
    }
  }

  return {
    async show(slug: string): Promise<ShowPage | null> {
      const found = await showFacts(slug)
      if (!found) return null
      const episodes = await released(found.row.id)
      return { show: found.facts, episodes: episodes.map(episode => episodeFacts(episode, found.facts.pageAddress)) }
    },

    async episode(showSlug: string, slug: string): Promise<EpisodePage | null> {
      const found = await showFacts(showSlug)
      const [episode] = found ? await released(found.row.id, slug) : []
      return found && episode ? { show: found.facts, episode: episodeFacts(episode, found.facts.pageAddress) } : null
    },
  }
}
