import { readSnapshot } from '@core/episode/snapshot'
import { Picture } from '../pictures/models'
import { publicPictureAddress } from '../pictures/names'
import type { Episode } from './models'

/** The addresses of the pictures that released episodes have of their own, by their ids. */
export async function artworkOf(
  episodes: readonly Pick<Episode, 'released'>[],
  publicUrl: string,
): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(episodes.flatMap(({ released }) => (released && readSnapshot(released).artworkId) ?? []))]
  const pictures = ids.length > 0 ? await Picture.findAll({ where: { id: ids } }) : []
  return new Map(pictures.map(picture => [picture.id, publicPictureAddress(publicUrl, picture)]))
}
