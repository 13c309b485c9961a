import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import type { MailKind } from '@core/release/notices'

export class Account extends Model<InferAttributes<Account>, InferCreationAttributes<Account>> {
  declare id: string
  declare email: string
  declare passwordHash: string
  /** What they do not want to be written of. */
  declare unwantedMail: CreationOptional<MailKind[]>
  /** The secret part of their calendar's address; null where they have none. */
  declare calendarSecret: CreationOptional<string | null>
  declare createdAt: Date
}

export class Session extends Model<InferAttributes<Session>, InferCreationAttributes<Session>> {
  /** SHA-256 of the token in the cookie; the token itself is kept nowhere. */
  declare tokenHash: string
  declare accountId: string
  declare createdAt: Date
  declare expiresAt: Date
}

export function initAccounts(sequelize: Sequelize): void {
  Account.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      email: DataTypes.STRING,
      passwordHash: DataTypes.STRING,
      unwantedMail: { type: DataTypes.JSON, defaultValue: [] },
      calendarSecret: DataTypes.CHAR(43),
      createdAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'accounts' },
  )
  Session.init(
    {
      tokenHash: { type: DataTypes.CHAR(64), primaryKey: true },
      accountId: DataTypes.UUID,
      createdAt: DataTypes.DATE(3),
      expiresAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'sessions' },
  )
}
