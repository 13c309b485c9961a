import { DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize'
import type { FeedFinding } from '@core/feed/check'

/** What the rules found in the feed of a show. */
export class FeedCheck extends Model<InferAttributes<FeedCheck>, InferCreationAttributes<FeedCheck>> {
  declare showId: string
  /** Of the bytes that were looked at. */
  declare tag: string
  /** Of the rules. */
  declare edition: string
  declare items: number
  declare findings: FeedFinding[]
}

export function initChecking(sequelize: Sequelize): void {
  FeedCheck.init(
    {
      showId: { type: DataTypes.UUID, primaryKey: true },
      tag: DataTypes.STRING,
      edition: DataTypes.CHAR(16),
      items: DataTypes.INTEGER.UNSIGNED,
      findings: DataTypes.JSON,
    },
    { sequelize, tableName: 'feed_checks' },
  )
}
