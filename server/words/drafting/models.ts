import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'

/** A draft of what is said in an episode, from the moment on when a copyist is asked for it until it is here. */
export class TranscriptDraft extends Model<InferAttributes<TranscriptDraft>, InferCreationAttributes<TranscriptDraft>> {
  /** By this the copyist knows it, too. */
  declare id: string
  declare episodeId: string
  /** The sound that is written down. */
  declare fileId: string
  declare language: string
  declare state: CreationOptional<'working' | 'failed'>
  /** How often the copyist was asked to begin. */
  declare begun: CreationOptional<number>
  /** From 0 to 1. */
  declare progress: CreationOptional<number>
  declare problem: CreationOptional<string | null>
  /** Of the address at which the copyist may fetch the sound. */
  declare tokenHash: CreationOptional<string | null>
  declare createdAt: Date
  /** When it was last further than before. */
  declare gotOnAt: Date
  /** When the copyist last answered as it should. */
  declare answeredAt: Date
}

export function initDrafts(sequelize: Sequelize): void {
  TranscriptDraft.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      episodeId: DataTypes.UUID,
      fileId: DataTypes.UUID,
      language: DataTypes.STRING,
      state: { type: DataTypes.STRING, defaultValue: 'working' },
      begun: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 0 },
      progress: { type: DataTypes.DOUBLE, defaultValue: 0 },
      problem: DataTypes.STRING,
      tokenHash: DataTypes.STRING,
      createdAt: DataTypes.DATE(3),
      gotOnAt: DataTypes.DATE(3),
      answeredAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'drafts', updatedAt: false },
  )
}
