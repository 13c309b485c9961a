import { safeInBothReadings } from '@core/feed/description'
import type { FeedModel } from '@core/feed/model'
import { isInStrand, strandAddress } from '@core/feed/strands'
import { Episode } from '../../show/episodes/models'
import { Picture } from '../../media/pictures/models'
import { publicPictureAddress } from '../../media/pictures/names'
import { type Strand, StrandEpisode } from '../../show/shows/strands'
import { widthsOf } from './channel'

/**
 * The feed of a strand: what it says of itself, else what the show says; its episodes keep all that they are. `showFeedAddress` is
 * where everybody finds the show's feed.
 */
export async function strandModel(
  whole: FeedModel,
  strand: Strand,
  publicUrl: string,
  showFeedAddress: string,
): Promise<FeedModel> {
  const [picture, chosen] = await Promise.all([
    strand.artworkId ? Picture.findOne({ where: { id: strand.artworkId, isPublic: true } }) : null,
    chosenGuids(strand),
  ])
  const feedAddress = strandAddress(showFeedAddress, strand.slug)
  const artworkAddress = picture && publicPictureAddress(publicUrl, picture)
  const from = { title: whole.channel.title, feedAddress: showFeedAddress }
  return {
    channel: {
      ...whole.channel,
      title: strand.name,
      description: strand.description === null ? whole.channel.description : safeInBothReadings(strand.description),
      feedAddress,
      jsonAddress: null,
      podcastGuid: strand.podcastGuid,
      // Where the show only tells that it has come from elsewhere, a strand tells the same of itself.
      movedTo: whole.channel.movedTo === whole.channel.feedAddress ? feedAddress : whole.channel.movedTo,
      parts: null,
      ...(picture && artworkAddress && { artworkAddress, artworkWidths: widthsOf(picture, artworkAddress) }),
    },
    items: whole.items.filter(item => isInStrand(strand, item, chosen)).map(item => ({ ...item, from })),
  }
}

async function chosenGuids({ id, goesBy }: Strand): Promise<Set<string>> {
  if (goesBy !== 'hand') return new Set()
  const chosen = await StrandEpisode.findAll({ where: { strandId: id }, attributes: ['episodeId'], raw: true })
  const episodes = await Episode.findAll({
    where: { id: chosen.map(({ episodeId }) => episodeId) },
    attributes: ['guid'],
    raw: true,
  })
  return new Set(episodes.map(({ guid }) => guid))
}
