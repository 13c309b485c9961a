import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import { secretLetters } from '../feeds/service'

/** Somebody who has an address of their own to a show, or to one of its strands. */
export class FeedListener extends Model<InferAttributes<FeedListener>, InferCreationAttributes<FeedListener>> {
  declare id: string
  declare showId: string
  /** Null for the whole show. */
  declare strandId: string | null
  declare name: string
  /** Kept as it is: whoever keeps the show hands the address on again when it was lost. */
  declare secret: string
  declare createdAt: Date
  declare renewedAt: CreationOptional<Date | null>
  declare withdrawnAt: CreationOptional<Date | null>
  declare lastAt: CreationOptional<Date | null>
  declare agent: CreationOptional<string | null>
}

export function initListeners(sequelize: Sequelize): void {
  FeedListener.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      strandId: DataTypes.UUID,
      name: DataTypes.STRING,
      secret: DataTypes.CHAR(secretLetters),
      createdAt: DataTypes.DATE(3),
      renewedAt: DataTypes.DATE(3),
      withdrawnAt: DataTypes.DATE(3),
      lastAt: DataTypes.DATE(3),
      agent: DataTypes.STRING,
    },
    { sequelize, tableName: 'feed_listeners' },
  )
}
