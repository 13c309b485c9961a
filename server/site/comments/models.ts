import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize'
import type { CommentState } from '@core/comments/comment'
import { Episode } from '../../show/episodes/models'

/** What a listener wrote to an episode. */
export class Comment extends Model<InferAttributes<Comment>, InferCreationAttributes<Comment>> {
  declare id: string
  declare showId: string
  declare episodeId: string
  declare name: string
  declare words: string
  declare answer: CreationOptional<string | null>
  declare state: CreationOptional<CommentState>
  /** Tells the address that it came from apart from others, and nothing else of it. */
  declare asker: string
  declare cameAt: Date
  declare version: CreationOptional<number>
  declare episode?: NonAttribute<Episode>
}

/** Somebody of whom a show takes nothing more. */
export class CommentBan extends Model<InferAttributes<CommentBan>, InferCreationAttributes<CommentBan>> {
  declare showId: string
  declare asker: string
  declare name: string
  declare bannedAt: Date
}

export function initComments(sequelize: Sequelize): void {
  Comment.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      episodeId: DataTypes.UUID,
      name: DataTypes.STRING,
      words: DataTypes.TEXT,
      answer: DataTypes.TEXT,
      state: { type: DataTypes.STRING, defaultValue: 'waiting' },
      asker: DataTypes.CHAR(43),
      cameAt: DataTypes.DATE(3),
      version: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 1 },
    },
    { sequelize, tableName: 'comments' },
  )
  Comment.belongsTo(Episode, { as: 'episode', foreignKey: 'episodeId' })
  CommentBan.init(
    {
      showId: { type: DataTypes.UUID, primaryKey: true },
      asker: { type: DataTypes.CHAR(43), primaryKey: true },
      name: DataTypes.STRING,
      bannedAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'comment_bans' },
  )
}
