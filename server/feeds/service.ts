import { itemDescription, safeInBothReadings } from '@core/feed/description'
import type { FeedModel } from '@core/feed/model'
import { feedXml } from '@core/feed/xml'
import { plainNotes } from '@core/notes/plain'
import { readSnapshot } from '@core/episode/snapshot'
import { Episode } from '../episodes/models'
import { fileIn, withRole } from '../episodes/roles'
import { artworkOf } from '../episodes/artwork'
import { toldOf } from '../episodes/told'
import { enclosureAddress } from '../episodes/views'
import { publicAccess } from '../media/publicAccess'
import { written } from '../media/written'
import { nosniff } from '../nosniff'
import { Picture } from '../pictures/models'
import { publicPictureAddress } from '../pictures/names'
import type { Platform } from '../platform'
import type { Show } from '../shows/models'
import { addressesOf } from '../shows/service'
import { writtenAnswers } from '../shows/writtenAnswers'

export const generator = 'Lake Letter'

/** The feeds, written once for each change. */
export function feedService(platform: Pick<Platform, 'configuration' | 'events'>) {
  const { publicUrl } = platform.configuration

  async function modelOf(show: Show): Promise<FeedModel> {
    const [picture, episodes] = await Promise.all([
      Picture.findByPk(show.artworkId, { rejectOnEmpty: true }),
      Episode.findAll({
        where: { showId: show.id, standing: 'released' },
        attributes: ['id', 'guid', 'slug', 'releaseAt', 'released'],
        include: withRole('released', 'sha256', 'type', 'bytes', 'durationMs', 'address'),
        order: [
          ['releaseAt', 'DESC'],
          ['id', 'DESC'],
        ],
      }),
    ])
    const { pageAddress, feedAddress } = addressesOf(publicUrl, show.slug)
    const artwork = await artworkOf(episodes, publicUrl)
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
      items: episodes.map(episode => itemOf(episode, show, pageAddress, artwork)),
    }
  }

  function itemOf(
    episode: Episode,
    show: Show,
    pageAddress: string,
    artwork: ReadonlyMap<string, string>,
  ): FeedModel['items'][number] {
    const file = fileIn(episode, 'released')!
    const text = readSnapshot(episode.released!)
    const { number, season, kind, hook, tags, people, extras } = text
    const { title, notesHtml } = toldOf(text, show, pageAddress)
    return {
      title,
      bareTitle: text.title.trim(),
      hook: hook.trim(),
      guid: episode.guid,
      link: extras.page ?? `${pageAddress}/${episode.slug}`,
      publishedAt: episode.releaseAt!,
      enclosure: { address: enclosureAddress(publicUrl, episode.id, file), bytes: Number(file.bytes), type: file.type },
      durationMs: file.durationMs,
      description: itemDescription(plainNotes(notesHtml)),
      notesHtml,
      number,
      season,
      kind,
      explicit: extras.explicit ?? show.explicit,
      artworkAddress: artwork.get(text.artworkId ?? '') ?? null,
      author: extras.author,
      tags,
      people,
      discussion: extras.discussion,
      licence: extras.licence,
      place: extras.place,
    }
  }

  return writtenAnswers(platform, async (show, path, lastModified) => ({
    path,
    answer: await written('application/rss+xml; charset=utf-8', feedXml(await modelOf(show)), lastModified, {
      ...publicAccess,
      ...nosniff,
    }),
  }))
}
