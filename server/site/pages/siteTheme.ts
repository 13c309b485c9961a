import type { PublicTheme } from '@site/facts'
import { type SiteTheme, withAllBlocks } from '@core/site/siteTheme'
import { houseSeeds, paletteOf, paletteStyle, type Seeds } from '@core/site/palette'
import { Picture } from '../../media/pictures/models'
import { draw, PictureFailure } from '../../media/pictures/draw'
import { publicPictureAddress } from '../../media/pictures/names'
import type { Platform } from '../../platform/platform'

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
export async function publicTheme(
  platform: Pick<Platform, 'media' | 'configuration'>,
  kept: SiteTheme | null,
  artwork: Picture,
): Promise<PublicTheme> {
  const theme = withAllBlocks(kept)
  const [header, seeds] = await Promise.all([
    theme.headerPictureId ? Picture.findByPk(theme.headerPictureId) : null,
    theme.colours ?? seedsOfArtwork(platform, artwork),
  ])
  const { paper, deep } = paletteOf(seeds, 'light')
  return {
    layout: theme.layout,
    face: theme.face,
    style: paletteStyle(seeds),
    ground: paper,
    band: deep,
    headerPictureAddress: header && publicPictureAddress(platform.configuration.publicUrl, header),
    blocks: theme.blocks.filter(({ isOn }) => isOn).map(({ kind }) => kind),
  }
}
