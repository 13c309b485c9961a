import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  Op,
  type Sequelize,
} from 'sequelize'

/** A page that a maker wrote for the show's site. */
export class OwnPage extends Model<InferAttributes<OwnPage>, InferCreationAttributes<OwnPage>> {
  declare id: string
  declare showId: string
  /** Made of its first title, and kept; no episode of the show has it. */
  declare slug: string
  declare title: string
  /** Clean HTML. */
  declare content: string
  declare version: CreationOptional<number>
  declare createdAt: Date
}

/** A page on which nothing stands yet is not public. */
export const written = { content: { [Op.ne]: '' } }

export function initOwnPages(sequelize: Sequelize): void {
  OwnPage.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      slug: DataTypes.STRING,
      title: DataTypes.STRING,
      content: DataTypes.TEXT('medium'),
      version: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 1 },
      createdAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'own_pages' },
  )
}
