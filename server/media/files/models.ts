import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize'
import { type Finding, storedFinding } from '@core/audio/findings'
import type { Measurement } from '@core/audio/measurement'
import type { Mark } from '@core/chapters/marks'
import type { MixDocument } from '@core/mix/document'
import type { Delivery } from '../../platform/storage/deliver'
import type { FileTags } from '../sound/reading'

/** An audio file of a show, immutable, its bytes in the media store under its fingerprint unless it lives elsewhere. */
export class AudioFile extends Model<InferAttributes<AudioFile>, InferCreationAttributes<AudioFile>> {
  declare id: string
  declare showId: string
  /** What tells it from the show's others: the SHA-256 of its bytes; of one that lives elsewhere, of its address and length. */
  declare fingerprint: string
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
  /** Chapters in the file's own tags. */
  declare chapters: CreationOptional<Mark[]>
  /** What the bytes gave reason to say; what the sound does is told by its measurement. */
  declare findings: Finding[]
  /** Where an MP3's frames begin and end in the file; null for other formats. */
  declare soundFromBytes: CreationOptional<number | null>
  declare soundToBytes: CreationOptional<number | null>
  declare origin: CreationOptional<'upload' | 'finish' | 'elsewhere' | 'mix'>
  /** What it is rendered from where it is put together here; it has no bytes in the media store, and its fingerprint is of this and of the files in it. */
  declare mix: CreationOptional<MixDocument | null>
  declare measuring: CreationOptional<'waiting' | 'done' | 'failed'>
  declare measurement: CreationOptional<Measurement | null>
  /** Its waveform in the media store, as core/audio/pyramid writes it; null until it is measured. */
  declare waveformId: CreationOptional<string | null>
  /** Where it lives, when that is elsewhere; then it is not in the media store. */
  declare address: CreationOptional<string | null>
  declare checkedAt: CreationOptional<Date | null>
  /** Whether the address answered as it should when it was last asked. */
  declare reachable: CreationOptional<boolean>
  declare createdAt: Date
}

/** How the bytes of a file that is in the media store are sent. */
export const deliveryOf = (
  { fingerprint, bytes, type, createdAt }: Pick<AudioFile, 'fingerprint' | 'bytes' | 'type' | 'createdAt'>,
  cacheControl: string,
): Delivery => ({ sha256: fingerprint, bytes: Number(bytes), type, lastModified: createdAt, cacheControl })

export function initFiles(sequelize: Sequelize): void {
  AudioFile.init(
    {
      id: { type: DataTypes.UUID, primaryKey: true },
      showId: DataTypes.UUID,
      fingerprint: DataTypes.CHAR(64),
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
      chapters: { type: DataTypes.JSON, defaultValue: [] },
      findings: {
        type: DataTypes.JSON,
        get(this: AudioFile) {
          return (this.getDataValue('findings') ?? []).map(storedFinding)
        },
      },
      soundFromBytes: DataTypes.BIGINT.UNSIGNED,
      soundToBytes: DataTypes.BIGINT.UNSIGNED,
      origin: { type: DataTypes.STRING, defaultValue: 'upload' },
      mix: DataTypes.JSON,
      measuring: { type: DataTypes.STRING, defaultValue: 'waiting' },
      measurement: DataTypes.JSON,
      waveformId: DataTypes.CHAR(64),
      address: DataTypes.STRING(2048),
      checkedAt: DataTypes.DATE(3),
      reachable: { type: DataTypes.BOOLEAN, defaultValue: true },
      createdAt: DataTypes.DATE(3),
    },
    { sequelize, tableName: 'files' },
  )
}
