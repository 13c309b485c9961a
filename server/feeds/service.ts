import { safeInBothReadings } from '@core/feed/description'
import type { FeedModel } from '@core/feed/model'
import { feedXml } from '@core/feed/xml'
import { outgoingOf } from '../episodes/outgoing'
import { releasedEpisodes } from '../episodes/released'
import { releasedPictures } from '../episodes/pictures'
import { publicAccess } from '../media/publicAccess'
import { written } from '../media/written'
import { nosniff } from '../nosniff'
import { Picture } from '../pictures/models'
import { publicPictureAddress } from '../pictures/names'
import type { Platform } from '../platform'
import type { Show } from '../shows/models'
import { addressesOf } from '../shows/service'
import { writtenAnswers } from '../shows/writtenAnswers'
import { feedItemOf } from './item'

export const generator = 'Lake Letter'

/** A show's feed as it is written now. */
export async function feedText(show: Show, publicUrl: string): Promise<string> {
  return feedXml(await modelOf(show, publicUrl))
}

async function modelOf(show: Show, publicUrl: string): Promise<FeedModel> {
  const [picture, episodes] = await Promise.all([
    Picture.findByPk(show.artworkId, { rejectOnEmpty: true }),
    releasedEpisodes(show.id),
  ])
  const { pageAddress, feedAddress } = addressesOf(publicUrl, show.slug)
  const pictureAddress = await releasedPictures(episodes, publicUrl)
  return {
    channel: {
      title: show.name,
      link: pageAddress,
      feedAddress,
      description: safeInBothReadings(show.description),
      language: show.language,
      author: show.author,
      owner: { name: show.author, email: show.ownerEmail },
      artworkAddress: publicPictureAddress(publicUrl, picture),
      category: show.category,
      subcategory: show.subcategory,
      explicit: show.explicit,
      type: show.type,
      podcastGuid: show.podcastGuid,
      changedAt: show.feedChangedAt,
      generator,
    },
    items: episodes.map(episode => feedItemOf(outgoingOf(episode, pictureAddress), show, publicUrl)),
  }
}

/** The feeds, written once for each change. */
export function feedService(platform: Pick<Platform, 'configuration' | 'events'>) {
  const { publicUrl } = platform.configuration
  return writtenAnswers(platform, async (show, path, lastModified) => ({
    path,
    answer: await written('application/rss+xml; charset=utf-8', await feedText(show, publicUrl), lastModified, {
      ...publicAccess,
      ...nosniff,
    }),
  }))
}
