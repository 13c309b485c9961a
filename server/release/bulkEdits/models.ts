import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import type { EpisodeText } from '@core/episode/fields'
import type { BulkEdit } from '@core/episode/bulkEdit'
import type { Status } from '@core/release/status'

/** What was done to one of many episodes, with what is needed to take it back. */
export type Done = { id: string } & (
  | { before: Partial<EpisodeText>; after: Partial<EpisodeText> }
  | { wasScheduled: { at: string; zone: string | null } }
  | { isRemoved: true }
  | { dated: { from: { status: Status; at: string | null; zone: string | null }; to: string } }
)

export class BulkEditRow extends Model<InferAttributes<BulkEditRow>, InferCreationAttributes<BulkEditRow>> {
  declare id: string
  declare showId: string
  declare accountId: string | null
  declare act: BulkEdit
  declare episodes: Done[]
  declare takenBack: CreationOptional<boolean>
  declare at: Date
}

export function initBulkEdits(sequelize: Sequelize): void {
  BulkEditRow.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      accountId: DataTypes.UUID,
      act: DataTypes.JSON,
      episodes: DataTypes.JSON,
      takenBack: { type: DataTypes.BOOLEAN, defaultValue: false },
      at: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'bulk_edits' },
  )
}
