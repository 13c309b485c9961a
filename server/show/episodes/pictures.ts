import { type EpisodeText, picturesIn } from '@core/episode/fields'
import { readSnapshot } from '@core/episode/snapshot'
import { Picture } from '../../media/pictures/models'
import { publicPictureAddress } from '../../media/pictures/names'
import type { Episode } from './models'
import type { PictureAddress } from './outgoing'

/** Where the world finds the pictures of texts, once they are public. */
export async function publicPictures(texts: readonly EpisodeText[], publicUrl: string): Promise<PictureAddress> {
  const ids = [...new Set(texts.flatMap(picturesIn))]
  const pictures = ids.length > 0 ? await Picture.findAll({ where: { id: ids } }) : []
  const addresses = new Map(pictures.map(picture => [picture.id, publicPictureAddress(publicUrl, picture)]))
  return id => addresses.get(id ?? '') ?? null
}

/** The same of released episodes. */
export const releasedPictures = (
  episodes: readonly Pick<Episode, 'released'>[],
  publicUrl: string,
): Promise<PictureAddress> =>
  publicPictures(
    episodes.flatMap(({ released }) => (released ? [readSnapshot(released)] : [])),
    publicUrl,
  )
