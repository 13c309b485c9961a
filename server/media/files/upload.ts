import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import type { Upload as UploadView } from '@contract/sound'

/** What can be uploaded for an episode: its audio, or a part of what it is put together of. */
export const uploadRoles = ['source', 'piece', 'bed'] as const
export type UploadRole = (typeof uploadRoles)[number]

export class Upload extends Model<InferAttributes<Upload>, InferCreationAttributes<Upload>> {
  declare id: string
  declare episodeId: string
  /** Who began it; null for one that was begun before this was kept, and for what the house does. */
  declare accountId: CreationOptional<string | null>
  /** What it is for. */
  declare role: CreationOptional<UploadRole>
  /** Before which piece a piece goes, counted from 0; null for behind all of them. */
  declare position: CreationOptional<number | null>
  declare fileName: string
  declare bytes: number
  declare state: CreationOptional<UploadView['state']>
  declare refusal: CreationOptional<UploadView['refusal']>
  declare createdAt: Date
}

export function initUploads(sequelize: Sequelize): void {
  Upload.init(
    {
      id: { type: DataTypes.CHAR(32), primaryKey: true },
      episodeId: DataTypes.UUID,
      accountId: DataTypes.UUID,
      role: { type: DataTypes.STRING, defaultValue: 'source' },
      position: DataTypes.SMALLINT.UNSIGNED,
      fileName: DataTypes.STRING,
      bytes: DataTypes.BIGINT.UNSIGNED,
      state: DataTypes.STRING,
      refusal: DataTypes.JSON,
      createdAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'uploads' },
  )
}
