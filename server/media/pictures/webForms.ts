import { webPictureWidthsPx } from '@core/show/webPicture'
import { transact } from '../../platform/database/transact'
import { singleFlight } from '../../platform/singleFlight'
import { blobKeeper } from '../../platform/storage/blobs'
import type { Platform } from '../../platform/platform'
import { draw } from './draw'
import type { Picture, StoredPicture } from './models'

/** Forms of pictures for the web, smaller by far than the JPEG that directories want; each is drawn when it is first asked for, and kept. */
export function webForms(platform: Pick<Platform, 'database' | 'media' | 'clock' | 'jobs' | 'configuration'>) {
  const { database, media, configuration } = platform
  const blobs = blobKeeper(platform)
  const drawing = singleFlight<StoredPicture>()

  async function drawNow(picture: Picture, px: number): Promise<StoredPicture> {
    const bytes = Buffer.concat(await media.read(picture.id).toArray())
    const [drawn] = await draw({ kind: 'webp', bytes, mostPx: px }, configuration)
    return blobs.written([drawn!.bytes], ([bringing]) =>
      transact(database, async transaction => {
        const form = { sha256: bringing!.sha256, bytes: drawn!.bytes.length }
        const row = await picture.reload({ transaction, lock: true })
        await blobs.hold(picture.id, bringing!, transaction)
        await row.update({ smaller: { ...row.smaller, [nameOf(px)]: form } }, { transaction })
        return form
      }),
    )
  }

  return {
    /** Null where it is in no such width. */
    async of(picture: Picture, px: number): Promise<StoredPicture | null> {
      if (!(webPictureWidthsPx as readonly number[]).includes(px)) return null
      return picture.smaller?.[nameOf(px)] ?? drawing.get(`${picture.id} ${px}`, () => drawNow(picture, px))
    },
  }
}
export type WebForms = ReturnType<typeof webForms>

const nameOf = (px: number): string => `${px}.webp`
