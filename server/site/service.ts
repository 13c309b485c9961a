import { type EpisodePage, renderEpisodePage, renderShowPage, type ShowPage } from '@site/pages'
import { Op } from 'sequelize'
import { readSnapshot } from '@core/episode/snapshot'
import { plainNotes } from '@core/notes/plain'
import { cut } from '@core/words/line'
import { Episode } from '../episodes/models'
import { fileIn, withRole } from '../episodes/roles'
import { artworkOf } from '../episodes/artwork'
import { toldOf } from '../episodes/told'
import { enclosureAddress } from '../episodes/views'
import { written } from '../media/written'
import { Picture } from '../pictures/models'
import { publicPictureAddress } from '../pictures/names'
import type { Platform } from '../platform'
import type { Show } from '../shows/models'
import { addressesOf } from '../shows/service'
import { writtenAnswers } from '../shows/writtenAnswers'

/** The public pages of shows and episodes, written once for each change: released episodes only, as they stand in the feed. */
export function siteService(platform: Pick<Platform, 'configuration' | 'events' | 'siteAssets'>) {
  const {
    configuration: { publicUrl },
    siteAssets,
  } = platform

  async function showFacts(row: Show): Promise<ShowPage['show']> {
    const picture = await Picture.findByPk(row.artworkId, { rejectOnEmpty: true })
    const { name, description, author, language, zone } = row
    return {
      name,
      description,
      author,
      language,
      zone,
      artworkAddress: publicPictureAddress(publicUrl, picture),
      ...addressesOf(publicUrl, row.slug),
    }
  }

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

  function episodeFacts(
    episode: Episode,
    row: Show,
    pageAddress: string,
    artwork: ReadonlyMap<string, string>,
  ): EpisodePage['episode'] {
    const file = fileIn(episode, 'released')!
    const text = readSnapshot(episode.released!)
    const { number, hook, tags, people, extras } = text
    const { title, notesHtml } = toldOf(text, row, pageAddress)
    return {
      title,
      // Where the pattern tells it, the line below the title need not.
      number: title === text.title.trim() ? number : null,
      hook: hook.trim(),
      notesHtml,
      summary: hook.trim() || cut(plainNotes(notesHtml).slice(0, 1200), 300),
      tags,
      people,
      artworkAddress: artwork.get(text.artworkId ?? '') ?? null,
      author: extras.author,
      page: extras.page,
      discussion: extras.discussion,
      isPromotion: extras.isPromotion,
      isExplicit: extras.explicit ?? row.explicit,
      licence: extras.licence,
      place: extras.place,
      pageAddress: `${pageAddress}/${episode.slug}`,
      soundAddress: enclosureAddress(publicUrl, episode.id, file),
      soundType: file.type,
      bytes: Number(file.bytes),
      durationMs: file.durationMs,
      releasedAt: episode.releaseAt!.toISOString(),
    }
  }

  return writtenAnswers(platform, async (row, path, lastModified) => {
    const [show, episodes] = await Promise.all([showFacts(row), released(row.id, path || undefined)])
    const artwork = await artworkOf(episodes, publicUrl)
    const facts = episodes.map(episode => episodeFacts(episode, row, show.pageAddress, artwork))
    if (path && !facts[0]) return null
    const html = path
      ? await renderEpisodePage({ show, episode: facts[0]! }, siteAssets)
      : await renderShowPage({ show, episodes: facts }, siteAssets)
    return { path: path && episodes[0]!.slug!, answer: await written('text/html; charset=utf-8', html, lastModified) }
  })
}
