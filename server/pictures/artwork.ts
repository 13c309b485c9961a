import type { Transaction } from 'sequelize'
import { badInput } from '../errors'
import { Picture } from './models'
import type { pictureService } from './service'

/** Refuses a picture as artwork that the account has not brought as such, and no show of its own uses. */
export async function needArtwork(
  pictures: ReturnType<typeof pictureService>,
  field: string,
  id: string,
  accountId: string | null,
  transaction: Transaction,
): Promise<void> {
  const picture = await Picture.findByPk(id, { transaction })
  if (!picture || !(await pictures.mayBeUsedBy(accountId, id, transaction)))
    throw badInput(field, id, 'Upload the artwork first.')
  if (picture.widthPx !== picture.heightPx)
    throw badInput(field, id, 'Artwork is square; this picture was not taken as artwork.')
}

/** Everybody may see a picture from then on. */
export const publish = (id: string, transaction: Transaction) =>
  Picture.update({ isPublic: true }, { where: { id }, transaction })
