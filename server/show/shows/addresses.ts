import { DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize'
import type { Transaction } from 'sequelize'
import { Show } from './models'

/** An address part that a show had before. */
export class PastAddress extends Model<InferAttributes<PastAddress>, InferCreationAttributes<PastAddress>> {
  declare slug: string
  declare showId: string
  declare leftAt: Date
}

export function initAddresses(sequelize: Sequelize): void {
  PastAddress.init(
    { slug: { type: DataTypes.STRING, primaryKey: true }, showId: DataTypes.UUID, leftAt: DataTypes.DATE(3) },
    { sequelize, tableName: 'past_addresses' },
  )
}

/** The address part of the show that lives at an address part, or did before; null where none does. */
export async function currentSlug(slug: string): Promise<string | null> {
  const show = await Show.findOne({ where: { slug }, attributes: ['slug'], raw: true })
  if (show) return show.slug
  // Others than these letters no address part ever had, and the column knows none.
  if (!/^[a-z0-9-]{1,60}$/.test(slug)) return null
  const past = await PastAddress.findByPk(slug, { attributes: ['showId'], raw: true })
  const moved = past && (await Show.findByPk(past.showId, { attributes: ['slug'], raw: true }))
  return moved?.slug ?? null
}

/** The show that lives at an address part, or did before, where it is for everybody; null where none does. */
export async function publicShowAt(slug: string): Promise<Show | null> {
  const current = await currentSlug(slug)
  return current === null ? null : Show.findOne({ where: { slug: current, isPrivate: false } })
}

/** Whether a show had other addresses before. */
export const hasMovedHere = async (showId: string): Promise<boolean> =>
  (await PastAddress.count({ where: { showId } })) > 0

/** Whether an address part is one that another show had, and that leads to it still. */
export const isAnothersPast = async (
  slug: string,
  showId: string | null,
  transaction: Transaction,
): Promise<boolean> => {
  const past = await PastAddress.findByPk(slug, { transaction, lock: true })
  return past !== null && past.showId !== showId
}
