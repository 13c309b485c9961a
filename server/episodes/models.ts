import { type CreationOptional, DataTypes, type InferAttributes, type InferCreationAttributes, Model, type NonAttribute, type Sequelize } from 'sequelize'
import type { EpisodeText } from '@core/episode/text'
import type { Standing } from '@core/release/standing'
import { AudioFile } from '../files/models'
import { Show } from '../shows/models'

export class Episode extends Model<InferAttributes<Episode>, InferCreationAttributes<Episode>> {
  declare id: string
  declare showId: string
  /** Made once, with the episode, and never again. */
  declare guid: string
  /** Made at the first release, and then kept. */
  declare slug: CreationOptional<string | null>
  declare title: CreationOptional<string>
  declare number: CreationOptional<number | null>
  declare season: CreationOptional<number | null>
  declare kind: CreationOptional<EpisodeText['kind']>
  declare notes: string
  declare fileId: CreationOptional<string | null>
  declare standing: CreationOptional<Standing>
  declare releaseAt: CreationOptional<Date | null>
  declare releaseZone: CreationOptional<string | null>
  /** The text and the file that the feed carries; what is written after the release waits until it is sent, too. */
  declare releasedText: CreationOptional<EpisodeText | null>
  declare releasedFileId: CreationOptional<string | null>
  declare version: CreationOptional<number>
  declare createdAt: Date
  declare updatedAt: Date
  declare deletedAt: CreationOptional<Date | null>

  declare show?: NonAttribute<Show>
  declare file?: NonAttribute<AudioFile | null>
  declare releasedFile?: NonAttribute<AudioFile | null>
}

export class KeptText extends Model<InferAttributes<KeptText>, InferCreationAttributes<KeptText>> {
  declare id: string
  declare episodeId: string
  declare fromVersion: number
  declare text: Partial<EpisodeText>
  declare savedAt: Date
}

export function initEpisodes(sequelize: Sequelize): void {
  Episode.init({
    id: { type: DataTypes.UUID, primaryKey: true },
    showId: DataTypes.UUID,
    guid: DataTypes.UUID,
    slug: DataTypes.STRING,
    title: DataTypes.STRING,
    number: DataTypes.INTEGER.UNSIGNED,
    season: DataTypes.INTEGER.UNSIGNED,
    kind: DataTypes.STRING,
    notes: DataTypes.TEXT('medium'),
    fileId: DataTypes.UUID,
    standing: DataTypes.STRING,
    releaseAt: DataTypes.DATE(3),
    releaseZone: DataTypes.STRING,
    releasedText: DataTypes.JSON,
    releasedFileId: DataTypes.UUID,
    version: DataTypes.INTEGER.UNSIGNED,
    createdAt: DataTypes.DATE(3),
    updatedAt: DataTypes.DATE(3),
    deletedAt: DataTypes.DATE(3),
  }, { sequelize, tableName: 'episodes' })
  KeptText.init({
    id: { type: DataTypes.UUID, primaryKey: true },
    episodeId: DataTypes.UUID,
    fromVersion: DataTypes.INTEGER.UNSIGNED,
    text: DataTypes.JSON,
    savedAt: DataTypes.DATE(3),
  }, { sequelize, tableName: 'kept_texts' })
  Episode.belongsTo(Show, { as: 'show', foreignKey: 'showId' })
  Episode.belongsTo(AudioFile, { as: 'file', foreignKey: 'fileId' })
  Episode.belongsTo(AudioFile, { as: 'releasedFile', foreignKey: 'releasedFileId' })
}
