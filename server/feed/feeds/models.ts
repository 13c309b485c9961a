import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'

/** A feed as it was served from some moment on. */
export class FeedState extends Model<InferAttributes<FeedState>, InferCreationAttributes<FeedState>> {
  declare id: string
  declare showId: string
  /** Which of the show's feeds: its address behind that of the show. */
  declare name: string
  /** Of the show, up to which it is known to hold. */
  declare revision: number
  /** When it was written. */
  declare at: Date
  /** When what it tells came about; its `Last-Modified`. */
  declare changedAt: Date
  declare digest: string
  /** Of all that writes it and is no fact of the show: which edition of the writer, for which addresses. */
  declare writtenBy: string
  /** As it is sent without an encoding. */
  declare bytes: number
  /** What is other in it than in the one before, in words; null until somebody wanted to know. */
  declare words: CreationOptional<string[] | null>
  declare gzip: Buffer
  /** Of the newest only. */
  declare brotli: Buffer | null
}

export function initFeeds(sequelize: Sequelize): void {
  FeedState.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      name: DataTypes.STRING,
      revision: DataTypes.BIGINT.UNSIGNED,
      at: DataTypes.DATE(3),
      changedAt: DataTypes.DATE(3),
      digest: DataTypes.CHAR(43),
      writtenBy: DataTypes.CHAR(43),
      bytes: DataTypes.INTEGER.UNSIGNED,
      words: DataTypes.JSON,
      gzip: DataTypes.BLOB('long'),
      brotli: DataTypes.BLOB('long'),
    },
    { sequelize, tableName: 'feed_states' },
  )
}
