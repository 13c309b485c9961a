import { jsonChapters, jsonChaptersType } from '@core/chapters/json'
import { toldOf } from '@core/episode/told'
import { outgoingOf } from '../episodes/outgoing'
import { releasedPictures } from '../episodes/pictures'
import { releasedEpisode } from '../episodes/released'
import { publicAccess } from '../media/publicAccess'
import { written } from '../media/written'
import { nosniff } from '../nosniff'
import type { Platform } from '../platform'
import { tellerOf } from '../shows/service'
import { writtenAnswers } from '../shows/writtenAnswers'

/** The files of chapters of released episodes, at the address parts of these. */
export function chapterFiles(platform: Pick<Platform, 'configuration' | 'events'>) {
  const { publicUrl } = platform.configuration
  return writtenAnswers(platform, async (show, path, lastModified) => {
    const episode = await releasedEpisode(show.id, path)
    if (!episode) return null
    const pictureAddress = await releasedPictures([episode], publicUrl)
    const { text, chapters, slug } = outgoingOf(episode, pictureAddress)
    if (chapters.length === 0) return null
    const words = jsonChapters(
      chapters,
      { title: toldOf(text, tellerOf(show, publicUrl), chapters).title, podcastName: show.name },
      pictureAddress,
    )
    return { path: slug, answer: await written(jsonChaptersType, words, lastModified, { ...publicAccess, ...nosniff }) }
  })
}
