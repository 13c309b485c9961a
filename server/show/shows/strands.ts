import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import type { StrandWay } from '@core/feed/strands'

/** A chosen group of a show's episodes with a feed of its own. */
export class Strand extends Model<InferAttributes<Strand>, InferCreationAttributes<Strand>> {
  declare id: string
  declare showId: string
  declare slug: string
  declare name: string
  /** Made once, of its first address, and kept where the show moves. */
  declare podcastGuid: string
  declare description: string | null
  declare artworkId: string | null
  declare goesBy: StrandWay
  declare value: string | null
  /** Whether its episodes go out to listeners with an address of their own only. */
  declare isPrivate: CreationOptional<boolean>
  declare version: CreationOptional<number>
  declare createdAt: Date
}

/** An episode that was put into a strand by hand. */
export class StrandEpisode extends Model<InferAttributes<StrandEpisode>, InferCreationAttributes<StrandEpisode>> {
  declare strandId: string
  declare episodeId: string
}

export function initStrands(sequelize: Sequelize): void {
  Strand.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      slug: DataTypes.STRING,
      name: DataTypes.STRING,
      podcastGuid: DataTypes.UUID,
      description: DataTypes.TEXT,
      artworkId: DataTypes.CHAR(64),
      goesBy: DataTypes.STRING,
      value: DataTypes.STRING,
      isPrivate: { type: DataTypes.BOOLEAN, defaultValue: false },
      version: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 1 },
      createdAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'strands' },
  )
  StrandEpisode.init(
    {
      strandId: { type: DataTypes.UUID, primaryKey: true },
      episodeId: { type: DataTypes.UUID, primaryKey: true },
    },
    { sequelize, tableName: 'strand_episodes' },
  )
}
