import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import type { EpisodeField, EpisodeText } from '@core/episode/fields'

/** What an episode's text was from a save on. */
export class EpisodeState extends Model<InferAttributes<EpisodeState>, InferCreationAttributes<EpisodeState>> {
  declare id: string
  declare episodeId: string
  declare version: number
  declare accountId: string | null
  declare act: 'begun' | 'written' | 'filled in' | 'many at once'
  /** What differs from the state before. */
  declare fields: EpisodeField[]
  declare text: EpisodeText
  declare isSent: CreationOptional<boolean>
  declare savedAt: Date
}

/** A text that was refused because another window had saved first. */
export class KeptText extends Model<InferAttributes<KeptText>, InferCreationAttributes<KeptText>> {
  declare id: string
  declare episodeId: string
  declare accountId: string | null
  declare fromVersion: number
  declare text: Partial<EpisodeText>
  declare savedAt: Date
}

/** States as they are looked through. */
export const newestFirst: [string, string][] = [
  ['savedAt', 'DESC'],
  ['id', 'DESC'],
]

export function initHistory(sequelize: Sequelize): void {
  EpisodeState.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      episodeId: DataTypes.UUID,
      version: DataTypes.INTEGER.UNSIGNED,
      accountId: DataTypes.UUID,
      act: DataTypes.STRING,
      fields: DataTypes.JSON,
      text: DataTypes.JSON,
      isSent: { type: DataTypes.BOOLEAN, defaultValue: false },
      savedAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'episode_states' },
  )
  KeptText.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      episodeId: DataTypes.UUID,
      accountId: DataTypes.UUID,
      fromVersion: DataTypes.INTEGER.UNSIGNED,
      text: DataTypes.JSON,
      savedAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'kept_texts' },
  )
}
