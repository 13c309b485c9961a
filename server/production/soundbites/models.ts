import { DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize'

/** A short file that was cut of an episode; it holds its bytes. */
export class SoundbiteFile extends Model<InferAttributes<SoundbiteFile>, InferCreationAttributes<SoundbiteFile>> {
  declare id: string
  declare episodeId: string
  /** The digest of all that it comes from: of which sound, from when to when, with which tags. */
  declare madeOf: string
  declare sha256: string
  declare bytes: number
  declare madeAt: Date
  /** When somebody last wanted it. */
  declare askedAt: Date
}

export function initSoundbites(sequelize: Sequelize): void {
  SoundbiteFile.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      episodeId: DataTypes.UUID,
      madeOf: DataTypes.CHAR(43),
      sha256: DataTypes.CHAR(64),
      bytes: DataTypes.BIGINT.UNSIGNED,
      madeAt: DataTypes.DATE(3),
      askedAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'soundbite_files' },
  )
}
