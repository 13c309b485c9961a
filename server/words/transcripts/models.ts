import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import type { Transcript as Content } from '@core/transcript/cue'

/** What is said in an episode, in one language. */
export class Transcript extends Model<InferAttributes<Transcript>, InferCreationAttributes<Transcript>> {
  declare id: string
  declare episodeId: string
  /** BCP 47. */
  declare language: string
  /** Whether that is the language that is spoken. */
  declare isSpoken: boolean
  declare version: CreationOptional<number>
  /** By the clock of the source. */
  declare content: Content
  declare cueCount: number
  declare isTimed: boolean
  declare origin: 'file' | 'written' | 'aligned' | 'drafted'
  /** A machine has written it, and nobody has read it yet. */
  declare isUnread: CreationOptional<boolean>
  /** Of the file that it came in. */
  declare name: string | null
  /** Whether it is being laid over the speech, or could not be, or was changed meanwhile. */
  declare alignment: CreationOptional<'none' | 'working' | 'failed' | 'overtaken'>
  /** The audio that its times are of; null where nobody knows. */
  declare sourceId: string | null
  /** What it was before it was last replaced as a whole. */
  declare beforeContent: CreationOptional<Content | null>
  /** It leaves the feed with the next sending. */
  declare removedAt: CreationOptional<Date | null>
  /** As it stands in the feed, by the clock of the file that went out; null where it does not. */
  declare released: CreationOptional<Content | null>
  declare createdAt: Date
  declare updatedAt: Date
}

export function initTranscripts(sequelize: Sequelize): void {
  Transcript.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      episodeId: DataTypes.UUID,
      language: DataTypes.STRING,
      isSpoken: DataTypes.BOOLEAN,
      version: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 1 },
      content: DataTypes.JSON,
      cueCount: DataTypes.INTEGER.UNSIGNED,
      isTimed: DataTypes.BOOLEAN,
      origin: DataTypes.STRING,
      isUnread: { type: DataTypes.BOOLEAN, defaultValue: false },
      name: DataTypes.STRING,
      alignment: { type: DataTypes.STRING, defaultValue: 'none' },
      sourceId: DataTypes.UUID,
      beforeContent: DataTypes.JSON,
      removedAt: DataTypes.DATE(3),
      released: DataTypes.JSON,
      createdAt: DataTypes.DATE(3),
      updatedAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'transcripts' },
  )
}
