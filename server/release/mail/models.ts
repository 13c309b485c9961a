import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize'
import type { NoticeKind } from '@core/release/notices'
import { Episode } from '../../show/episodes/models'

/** Something about a moment of an episode that people are to be told, once. */
export class Notice extends Model<InferAttributes<Notice>, InferCreationAttributes<Notice>> {
  declare id: string
  declare showId: string
  declare episodeId: string
  declare kind: NoticeKind
  declare moment: Date
  declare createdAt: Date
  /** When mails were written of it. */
  declare toldAt: CreationOptional<Date | null>
  declare episode?: NonAttribute<Episode>
}

/** A mail to one person. */
export class Mail extends Model<InferAttributes<Mail>, InferCreationAttributes<Mail>> {
  declare id: string
  declare accountId: string
  declare kind: string
  declare subject: string
  declare text: string
  declare state: CreationOptional<'waiting' | 'sent' | 'given up'>
  declare tries: CreationOptional<number>
  declare problem: CreationOptional<string | null>
  declare createdAt: Date
  declare settledAt: CreationOptional<Date | null>
}

export function initMail(sequelize: Sequelize): void {
  Notice.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      episodeId: DataTypes.UUID,
      kind: DataTypes.STRING,
      moment: DataTypes.DATE(3),
      createdAt: DataTypes.DATE(3),
      toldAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'notices' },
  )
  Notice.belongsTo(Episode, { as: 'episode', foreignKey: 'episodeId' })
  Mail.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      accountId: DataTypes.UUID,
      kind: DataTypes.STRING,
      subject: DataTypes.STRING,
      text: DataTypes.TEXT('medium'),
      state: { type: DataTypes.STRING, defaultValue: 'waiting' },
      tries: { type: DataTypes.INTEGER.UNSIGNED, defaultValue: 0 },
      problem: DataTypes.STRING,
      createdAt: DataTypes.DATE(3),
      settledAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'mails' },
  )
}
