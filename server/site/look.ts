import type { PublicLook } from '@site/facts'
import { type Look, withAllBlocks } from '@core/site/look'
import { houseSeeds, paletteOf, paletteStyle, type Seeds } from '@core/site/palette'
import { Picture } from '../pictures/models'
import { draw, PictureFailure } from '../pictures/draw'
import { publicPictureAddress } from '../pictures/names'
import type { Platform } from '../platform'

/** The colours to build the pages of a show on, found in its artwork when they are first asked for. */
export async function seedsOfArtwork(
  { media, configuration }: Pick<Platform, 'media' | 'configuration'>,
  picture: Picture,
): Promise<Seeds> {
  if (picture.seeds) return picture.seeds
  const { sha256 } = picture.smaller?.['160'] ?? { sha256: picture.id }
  try {
    const bytes = Buffer.concat(await media.read(sha256).toArray())
    const seeds = await draw({ kind: 'seeds', bytes }, configuration)
    await picture.update({ seeds })
    return seeds
  } catch (error) {
    if (error instanceof PictureFailure) return houseSeeds
    throw error
  }
}

/** A look as its pages tell it. */
export async function publicLook(
  platform: Pick<Platform, 'media' | 'configuration'>,
  kept: Look | null,
  artwork: Picture,
): Promise<PublicLook> {
  const look = withAllBlocks(kept)
  const [header, seeds] = await Promise.all([
    look.headerPictureId ? Picture.findByPk(look.headerPictureId) : null,
    look.colours ?? seedsOfArtwork(platform, artwork),
  ])
  const { paper, deep } = paletteOf(seeds, 'light')
  return {
    layout: look.layout,
    face: look.face,
    style: paletteStyle(seeds),
    ground: paper,
    band: deep,
    headerPictureAddress: header && publicPictureAddress(platform.configuration.publicUrl, header),
    blocks: look.blocks.filter(({ isOn }) => isOn).map(({ kind }) => kind),
  }
}
