import { renderEpisodePage, renderShowPage } from '@site/pages'
import { outgoingOf } from '../episodes/outgoing'
import { releasedEpisodes } from '../episodes/released'
import { releasedPictures } from '../episodes/pictures'
import { written } from '../media/written'
import type { Platform } from '../platform'
import { writtenAnswers } from '../shows/writtenAnswers'
import { releasedWords } from '../transcripts/release'
import { publicEpisode, publicShow } from './facts'

/** The public pages of shows and episodes, written once for each change: released episodes only, as they stand in the feed. */
export function siteService(platform: Pick<Platform, 'configuration' | 'events' | 'siteAssets'>) {
  const {
    configuration: { publicUrl },
    siteAssets,
  } = platform

  return writtenAnswers(platform, async (row, path, lastModified) => {
    const [show, episodes] = await Promise.all([
      publicShow(row, publicUrl),
      releasedEpisodes(row.id, { slug: path || undefined }),
    ])
    const pictureAddress = await releasedPictures(episodes, publicUrl)
    const said = path && episodes[0] ? await releasedWords(episodes[0].id) : []
    const facts = episodes.map(episode => publicEpisode(outgoingOf(episode, pictureAddress), row, publicUrl, said))
    if (path && !facts[0]) return null
    const html = path
      ? await renderEpisodePage({ show, episode: facts[0]! }, siteAssets)
      : await renderShowPage({ show, episodes: facts }, siteAssets)
    return { path: path && episodes[0]!.slug!, answer: await written('text/html; charset=utf-8', html, lastModified) }
  })
}
