import { createHash } from 'node:crypto'
import { rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import sharp from 'sharp'
import { v7 as uuidV7 } from 'uuid'
import type { Picture as PictureView } from '@contract/shows'
import { artworkRule, type Crop, judgeArtwork } from '@core/show/artwork'
import { AppError } from '../errors'
import { pictureName } from '../media/routes'
import type { Platform } from '../platform'
import { Picture } from './models'

const types: Readonly<Record<string, string>> = { jpeg: 'image/jpeg', png: 'image/png' }

/** Pictures: artwork that is judged by the directories' rule, and pictures found in files. */
export function pictureService({ media, clock, configuration: { publicUrl } }: Pick<Platform, 'media' | 'clock' | 'configuration'>) {
  async function keep(bytes: Uint8Array, type: string, widthPx: number, heightPx: number): Promise<Picture> {
    const id = createHash('sha256').update(bytes).digest('hex')
    const known = await Picture.findByPk(id)
    if (known) return known
    const path = join(media.inbox, uuidV7())
    await writeFile(path, bytes)
    await media.take(path, id)
    await rm(path)
    const [picture] = await Picture.findOrCreate({ where: { id }, defaults: { id, type, widthPx, heightPx, bytes: bytes.length, createdAt: clock.now() } })
    return picture
  }

  const address = (picture: Picture): string => `${publicUrl}/media/artwork/${pictureName(picture)}`

  return {
    address,

    /**
     * Keeps a picture as artwork. Without a crop it is kept as it is, or refused with the size named and, where it
     * would help, the middle square offered as `crop`. With a crop that square is cut out and kept as JPEG in sRGB.
     */
    async addArtwork(bytes: Buffer, crop?: Crop): Promise<PictureView> {
      const { format, width, height } = await readPicture(bytes)
      const verdict = judgeArtwork({ widthPx: width, heightPx: height })
      if (verdict.kind === 'refused') throw new AppError('picture-refused', verdict.why)
      if (verdict.kind === 'fits' && !crop) return shownPicture(await keep(bytes, types[format]!, width, height))
      if (verdict.kind === 'crop' && !crop) throw new AppError('picture-refused', verdict.why, undefined, { crop: verdict.crop, widthPx: width, heightPx: height })
      const { left, top, sidePx } = crop!
      if (left + sidePx > width || top + sidePx > height || sidePx < artworkRule.minPx) {
        throw new AppError('picture-refused', `A square of ${sidePx} px at ${left}, ${top} cannot be cut from ${width} × ${height} px; it lies within and is at least ${artworkRule.minPx} px.`)
      }
      const side = Math.min(sidePx, artworkRule.maxPx)
      const square = await sharp(bytes).autoOrient().extract({ left, top, width: sidePx, height: sidePx })
        .resize(side, side).flatten({ background: '#ffffff' }).toColourspace('srgb').jpeg({ quality: 90 }).toBuffer()
      return shownPicture(await keep(square, 'image/jpeg', side, side))
    },

    /** Keeps the picture found in a file's tags, made small; null where it cannot be read. */
    async addFound(bytes: Uint8Array): Promise<string | null> {
      try {
        const { data, info } = await sharp(bytes, { limitInputPixels: 100_000_000 }).autoOrient()
          .resize(600, 600, { fit: 'inside', withoutEnlargement: true }).flatten({ background: '#ffffff' }).jpeg().toBuffer({ resolveWithObject: true })
        return (await keep(data, 'image/jpeg', info.width, info.height)).id
      } catch {
        return null
      }
    },
  }

  function shownPicture(picture: Picture): PictureView {
    return { id: picture.id, address: address(picture), widthPx: picture.widthPx, heightPx: picture.heightPx }
  }
}

async function readPicture(bytes: Buffer): Promise<{ format: string; width: number; height: number }> {
  const facts = await sharp(bytes, { limitInputPixels: 100_000_000 }).metadata().catch(() => null)
  const format = facts?.format ?? ''
  if (!facts || !types[format]) throw new AppError('picture-refused', 'The file is not a JPEG or PNG picture, whatever its name ends in.')
  const { width, height } = facts.autoOrient
  return { format, width, height }
}
