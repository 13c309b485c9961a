import { DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize'

/** What an address answered when it was asked last; its id is the SHA-256 of it. */
export class AskedLink extends Model<InferAttributes<AskedLink>, InferCreationAttributes<AskedLink>> {
  declare id: string
  declare address: string
  /** Null where it answers as it should. */
  declare problem: string | null
  declare askedAt: Date
}

export function initLinks(sequelize: Sequelize): void {
  AskedLink.init(
    {
      id: { type: DataTypes.CHAR(64), primaryKey: true },
      address: DataTypes.STRING(2048),
      problem: DataTypes.STRING(300),
      askedAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'asked_links' },
  )
}
