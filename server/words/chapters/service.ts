import { jsonChapters, jsonChaptersType } from '@core/chapters/json'
import { renderText } from '@core/episode/rendered'
import { type Outlet, publicOutlet } from '../../show/episodes/audience'
import { outgoingOf } from '../../show/episodes/outgoing'
import { releasedPictures } from '../../show/episodes/pictures'
import { releasedEpisode } from '../../show/episodes/released'
import { type Written, written } from '../../platform/storage/written'
import { nosniff } from '../../platform/http/nosniff'
import type { Platform } from '../../platform/platform'
import type { Show } from '../../show/shows/models'
import { renderContextOf } from '../../show/shows/service'
import { writtenAnswers } from '../../show/shows/writtenAnswers'

/** The files of chapters of released episodes, at the address parts of these. */
export function chapterFiles(platform: Pick<Platform, 'configuration' | 'events'>) {
  const { publicUrl } = platform.configuration
  const outlet = publicOutlet(publicUrl)
  return writtenAnswers(platform, (show, path, lastModified) =>
    writeChapters(show, path, lastModified, publicUrl, outlet),
  )
}

/** The file of chapters of a released episode, by its address part; null where there is none. */
export async function writeChapters(
  show: Show,
  path: string,
  lastModified: Date,
  publicUrl: string,
  { audience, base, headers }: Outlet,
): Promise<{ path: string; answer: Written } | null> {
  const episode = await releasedEpisode(show.id, audience, path)
  if (!episode) return null
  const pictureAddress = await releasedPictures([episode], publicUrl)
  const { text, chapters, slug } = outgoingOf(episode, pictureAddress)
  if (chapters.length === 0) return null
  const words = jsonChapters(
    chapters,
    { title: renderText(text, renderContextOf(show, base), chapters).title, podcastName: show.name },
    pictureAddress,
  )
  return { path: slug, answer: await written(jsonChaptersType, words, lastModified, { ...headers, ...nosniff }) }
}
