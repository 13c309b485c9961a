import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'

import type { Seeds } from '@core/site/palette'

/** A stored form of a picture, under the SHA-256 of its bytes. */
export interface StoredPicture {
  sha256: string
  bytes: number
}

export class Picture extends Model<InferAttributes<Picture>, InferCreationAttributes<Picture>> {
  /** SHA-256 of its bytes. */
  declare id: string
  declare type: string
  declare widthPx: number
  declare heightPx: number
  declare bytes: number
  /** The same in smaller sizes, by the length of a side in px; null where there are none. */
  declare smaller: CreationOptional<Record<string, StoredPicture> | null>
  /** Whether something public has used it: from then on its address answers everybody, also those who kept the address. */
  declare isPublic: CreationOptional<boolean>
  /** The colours to build a page on; null where nobody has looked yet. */
  declare seeds: CreationOptional<Seeds | null>
  declare createdAt: Date
}

export function initPictures(sequelize: Sequelize): void {
  Picture.init(
    {
      id: { type: DataTypes.CHAR(64), primaryKey: true },
      type: DataTypes.STRING,
      widthPx: DataTypes.INTEGER.UNSIGNED,
      heightPx: DataTypes.INTEGER.UNSIGNED,
      bytes: DataTypes.BIGINT.UNSIGNED,
      smaller: DataTypes.JSON,
      isPublic: { type: DataTypes.BOOLEAN, defaultValue: false },
      seeds: DataTypes.JSON,
      createdAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'pictures' },
  )
}
