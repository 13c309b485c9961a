import { createHash } from 'node:crypto'
import { QueryTypes, type Transaction } from 'sequelize'
import type { Picture as PictureView, PictureSubject } from '@contract/shows'
import { artworkRule, artworkSidesPx, type Crop, judgeArtwork } from '@core/show/artwork'
import { pictureFormat } from '@core/show/pictureFormat'
import { transact } from '../../platform/database/transact'
import { AppError } from '../../platform/http/errors'
import { blobKeeper } from '../../platform/storage/blobs'
import type { Platform } from '../../platform/platform'
import { draw, PictureFailure } from './draw'
import { Picture } from './models'
import { studioPictureAddress } from './names'
import type { Drawn, Size } from './tasks'
import { showsUsing } from './uses'

const type = 'image/jpeg'
const foundPx = 600
const personPx = 600
const chapterPx = 1400
const headerPx = 2000
const leastSmallPx = 100

/** Pictures: artwork that is judged by the directories' rule, and pictures found in files. What is kept was decoded and drawn anew. */
export function pictureService(platform: Pick<Platform, 'database' | 'media' | 'clock' | 'jobs' | 'configuration'>) {
  const { database, clock, configuration } = platform
  const blobs = blobKeeper(platform)

  async function keep(drawn: readonly Drawn[]): Promise<Picture> {
    return blobs.written(
      drawn.map(({ bytes }) => bytes),
      bringings =>
        transact(database, async transaction => {
          const [{ widthPx, heightPx, bytes }, id] = [drawn[0]!, bringings[0]!.sha256]
          const forms = drawn.map(
            (form, n) => [form.widthPx, { sha256: bringings[n]!.sha256, bytes: form.bytes.length }] as const,
          )
          const smaller = forms.length > 1 ? Object.fromEntries(forms.slice(1)) : null
          const [picture, made] = await Picture.findOrCreate({
            where: { id },
            defaults: { id, type, widthPx, heightPx, bytes: bytes.length, smaller, createdAt: clock.now() },
            transaction,
          })
          if (!made && !picture.smaller && smaller) await picture.update({ smaller }, { transaction })
          for (const bringing of bringings) await blobs.hold(id, bringing, transaction)
          return picture
        }),
    )
  }

  async function sizeOf(bytes: Buffer): Promise<Size> {
    if (!pictureFormat(bytes))
      throw new AppError('picture-refused', 'The file is not a JPEG, PNG or WebP picture, whatever its name ends in.')
    return refusing(() => draw({ kind: 'size', bytes }, configuration))
  }

  /** Whoever brought a picture may use it. */
  async function brought(accountId: string, picture: Picture): Promise<PictureView> {
    await database.query('INSERT IGNORE INTO picture_bringers (picture_id, account_id) VALUES (?, ?)', {
      replacements: [picture.id, accountId],
    })
    const { id, widthPx, heightPx } = picture
    return { id, address: studioPictureAddress(picture), widthPx, heightPx }
  }

  return {
    /**
     * Keeps a picture as artwork: upright, in sRGB, at most 3000 px, and in smaller sizes. One that does not fit is refused
     * with the size named and, where it would help, the middle square offered as `crop`.
     */
    async addArtwork(accountId: string, bytes: Buffer, crop?: Crop): Promise<PictureView> {
      const { widthPx, heightPx } = await sizeOf(bytes)
      const verdict = judgeArtwork({ widthPx, heightPx })
      if (verdict.kind === 'refused') throw new AppError('picture-refused', verdict.why)
      if (verdict.kind === 'crop' && !crop)
        throw new AppError('picture-refused', verdict.why, undefined, { crop: verdict.crop, widthPx, heightPx })
      const square = crop ?? { left: 0, top: 0, sidePx: widthPx }
      if (
        square.left + square.sidePx > widthPx ||
        square.top + square.sidePx > heightPx ||
        square.sidePx < artworkRule.minPx
      ) {
        throw new AppError(
          'picture-refused',
          `A square of ${square.sidePx} px at ${square.left}, ${square.top} cannot be cut from ${widthPx} × ${heightPx} px; it lies within and is at least ${artworkRule.minPx} px.`,
        )
      }
      const sidesPx = [Math.min(square.sidePx, artworkRule.maxPx), ...artworkSidesPx]
      const picture = await keep(
        await refusing(() => draw({ kind: 'squares', bytes, crop: square, sidesPx }, configuration)),
      )
      return brought(accountId, picture)
    },

    /** Whether an account brought a picture, or is a member of a show that uses it. */
    async mayBeUsedBy(accountId: string | null, id: string, transaction?: Transaction): Promise<boolean> {
      const [row] = await database.query<{ found: number }>(
        `SELECT 1 AS found FROM picture_bringers WHERE picture_id = :id AND account_id = :accountId
          UNION SELECT 1 FROM memberships WHERE account_id = :accountId
            AND show_id IN (${showsUsing})`,
        { replacements: { id, accountId }, type: QueryTypes.SELECT, transaction },
      )
      return row !== undefined
    },

    /** Notes that a show uses a picture, so that it stays. */
    async noteUse(showId: string, id: string, transaction: Transaction): Promise<void> {
      await database.query('INSERT IGNORE INTO picture_uses (show_id, picture_id) VALUES (?, ?)', {
        replacements: [showId, id],
        transaction,
      })
    },

    /** Keeps a picture of a person, the middle square of it; or of a chapter, or for the top of pages, whole. */
    async addSmall(accountId: string, bytes: Buffer, of: PictureSubject): Promise<PictureView> {
      const { widthPx, heightPx } = await sizeOf(bytes)
      const sidePx = Math.min(widthPx, heightPx)
      if (sidePx < leastSmallPx)
        throw new AppError(
          'picture-refused',
          `The picture has ${widthPx} × ${heightPx} px; it takes at least ${leastSmallPx} px each way.`,
        )
      const crop = { left: Math.floor((widthPx - sidePx) / 2), top: Math.floor((heightPx - sidePx) / 2), sidePx }
      const drawn = await refusing(() =>
        of === 'person'
          ? draw({ kind: 'squares', bytes, crop, sidesPx: [Math.min(sidePx, personPx)] }, configuration)
          : draw({ kind: 'inside', bytes, mostPx: of === 'header' ? headerPx : chapterPx }, configuration),
      )
      return brought(accountId, await keep(drawn))
    },

    /** Draws a picture for a show that has none yet; answers its id. */
    async addProvisional(words: string): Promise<string> {
      const seed = createHash('sha256').update(words).digest().readUInt16BE()
      return (
        await keep(
          await draw({ kind: 'provisional', seed, sidesPx: [artworkRule.minPx, ...artworkSidesPx] }, configuration),
        )
      ).id
    },

    /** Keeps the picture found in a file's tags, made small; null where it is none, or cannot be read. */
    async addFound(bytes: Uint8Array): Promise<string | null> {
      if (!pictureFormat(bytes)) return null
      try {
        return (await keep(await draw({ kind: 'inside', bytes, mostPx: foundPx }, configuration))).id
      } catch (error) {
        if (error instanceof PictureFailure) return null
        throw error
      }
    },
  }
}

/** A picture that cannot be drawn is a person's to mend. */
async function refusing<T>(act: () => Promise<T>): Promise<T> {
  try {
    return await act()
  } catch (error) {
    if (!(error instanceof PictureFailure)) throw error
    throw new AppError(
      'picture-refused',
      'The picture cannot be read to its end; the file is damaged, cut short or too large.',
    )
  }
}
