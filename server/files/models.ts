import { DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize'
import type { Finding } from '@core/audio/findings'

export interface FileTags {
  title: string | null
  artist: string | null
  album: string | null
  track: number | null
  year: number | null
}

/** An audio file of a show, immutable, its bytes in the media store under its SHA-256. */
export class AudioFile extends Model<InferAttributes<AudioFile>, InferCreationAttributes<AudioFile>> {
  declare id: string
  declare showId: string
  declare sha256: string
  declare name: string
  declare type: string
  declare bytes: number
  declare durationMs: number
  declare codec: string
  declare bitRateBps: number
  declare sampleRateHz: number
  declare channels: number
  declare tags: FileTags
  declare pictureId: string | null
  declare findings: Finding[]
  declare waveform: Buffer
  declare createdAt: Date
}

export function initFiles(sequelize: Sequelize): void {
  AudioFile.init({
    id: { type: DataTypes.UUID, primaryKey: true },
    showId: DataTypes.UUID,
    sha256: DataTypes.CHAR(64),
    name: DataTypes.STRING,
    type: DataTypes.STRING,
    bytes: DataTypes.BIGINT.UNSIGNED,
    durationMs: DataTypes.INTEGER.UNSIGNED,
    codec: DataTypes.STRING,
    bitRateBps: DataTypes.INTEGER.UNSIGNED,
    sampleRateHz: DataTypes.INTEGER.UNSIGNED,
    channels: DataTypes.TINYINT.UNSIGNED,
    tags: DataTypes.JSON,
    pictureId: DataTypes.CHAR(64),
    findings: DataTypes.JSON,
    waveform: DataTypes.BLOB,
    createdAt: DataTypes.DATE(3),
  }, { sequelize, tableName: 'files' })
}
