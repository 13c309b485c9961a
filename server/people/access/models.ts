import { DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize'
import type { Role } from '@core/access/roles'

/** What an account is in a show. */
export class Membership extends Model<InferAttributes<Membership>, InferCreationAttributes<Membership>> {
  declare accountId: string
  declare showId: string
  declare role: Role
}

export function initAccess(sequelize: Sequelize): void {
  Membership.init(
    {
      accountId: { type: DataTypes.UUID, primaryKey: true },
      showId: { type: DataTypes.UUID, primaryKey: true },
      role: DataTypes.STRING,
    },
    { sequelize, tableName: 'memberships' },
  )
}
