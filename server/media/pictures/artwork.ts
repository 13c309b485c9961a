import type { Transaction } from 'sequelize'
import { badInput } from '../../platform/http/errors'
import { Picture } from './models'
import type { pictureService } from './service'

/** Refuses a picture that the account has not brought, and no show of its own uses. */
async function needPicture(
  pictures: ReturnType<typeof pictureService>,
  field: string,
  id: string,
  accountId: string | null,
  transaction: Transaction,
): Promise<Picture> {
  const picture = await Picture.findByPk(id, { transaction })
  if (!picture || !(await pictures.mayBeUsedBy(accountId, id, transaction)))
    throw badInput(field, id, 'Upload the picture first.')
  return picture
}

/** The same for each of the pictures within a text or a show's habits; the show has used them from then on. */
export async function usePictures(
  pictures: ReturnType<typeof pictureService>,
  named: readonly { field: string; id: string }[],
  { showId, accountId }: { showId: string; accountId: string | null },
  transaction: Transaction,
): Promise<void> {
  for (const { field, id } of named) await needPicture(pictures, field, id, accountId, transaction)
  for (const { id } of named) await pictures.noteUse(showId, id, transaction)
}

/** Refuses a picture as artwork that the account has not brought as such, and no show of its own uses. */
export async function needArtwork(
  pictures: ReturnType<typeof pictureService>,
  field: string,
  id: string,
  accountId: string | null,
  transaction: Transaction,
): Promise<void> {
  const picture = await needPicture(pictures, field, id, accountId, transaction)
  if (picture.widthPx !== picture.heightPx)
    throw badInput(field, id, 'Artwork is square; this picture was not taken as artwork.')
}

/** Everybody may see the pictures from then on. */
export async function publish(ids: readonly string[], transaction: Transaction): Promise<void> {
  if (ids.length > 0)
    await Picture.update({ isPublic: true }, { where: { id: [...ids], isPublic: false }, transaction })
}
