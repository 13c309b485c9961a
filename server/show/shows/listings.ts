import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import { type Listing } from '@contract/directories'

/** A show in a directory: one that was handed in and is followed, or one that somebody follows by hand. */
export class ListingRow extends Model<InferAttributes<ListingRow>, InferCreationAttributes<ListingRow>> {
  declare id: string
  declare showId: string
  /** As the service names it; null for one that is followed by hand. */
  declare directory: string | null
  declare name: string
  /** Under which name it was handed in; another one after each refusal. */
  declare submissionId: CreationOptional<string | null>
  declare state: Listing['state']
  declare since: Date
  declare submittedAt: Date
  declare why: CreationOptional<string | null>
  declare sentTo: CreationOptional<string | null>
  declare isClosed: CreationOptional<boolean>
  declare listingAddress: CreationOptional<string | null>
  declare fetchedAt: CreationOptional<Date | null>
  declare nextFetchAt: CreationOptional<Date | null>
  /** The GUIDs of the episodes that it has. */
  declare guids: CreationOptional<string[]>
  declare problem: CreationOptional<string | null>
  /** How often in a row it had not looked yet when it was to have. */
  declare overdue: CreationOptional<number>
}

export function initDirectories(sequelize: Sequelize): void {
  ListingRow.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      directory: DataTypes.STRING,
      name: DataTypes.STRING,
      submissionId: DataTypes.UUID,
      state: DataTypes.STRING,
      since: DataTypes.DATE(3),
      submittedAt: DataTypes.DATE(3),
      why: DataTypes.STRING,
      sentTo: DataTypes.STRING,
      isClosed: { type: DataTypes.BOOLEAN, defaultValue: false },
      listingAddress: DataTypes.STRING,
      fetchedAt: DataTypes.DATE(3),
      nextFetchAt: DataTypes.DATE(3),
      guids: { type: DataTypes.JSON, defaultValue: [] },
      problem: DataTypes.STRING,
      overdue: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 0 },
    },
    { sequelize, tableName: 'directory_listings' },
  )
}
