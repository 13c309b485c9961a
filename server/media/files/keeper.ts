import { type Transaction, UniqueConstraintError } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { Columns } from '../../platform/database/columns'
import { type Bringing, blobKeeper } from '../../platform/storage/blobs'
import type { Platform } from '../../platform/platform'
import type { AudioFacts } from '../sound/reading'
import { AudioFile } from './models'

type NewFile = Omit<AudioFacts, 'picture' | 'chapters'> &
  Partial<Pick<AudioFacts, 'chapters'>> &
  Columns<AudioFile, 'showId' | 'name' | 'pictureId'> &
  Partial<Columns<AudioFile, 'origin' | 'measuring' | 'measurement' | 'waveformId' | 'address' | 'checkedAt' | 'mix'>>

/** Writes files down, each content once for a show, together with their bytes. */
export function fileKeeper(platform: Pick<Platform, 'database' | 'media' | 'clock' | 'jobs'>) {
  const { clock, jobs } = platform
  const blobs = blobKeeper(platform)

  return {
    /** Keeps a file and the stored bytes that belong to it; where the show has the same content already, that is the file. */
    async keep(file: NewFile, bytes: readonly Bringing[], transaction: Transaction): Promise<AudioFile> {
      const same = { where: { showId: file.showId, fingerprint: file.fingerprint }, lock: true, transaction }
      const known = await AudioFile.findOne(same)
      if (known) return known
      try {
        const made = await AudioFile.create({ ...file, id: uuidV7(), createdAt: clock.now() }, { transaction })
        for (const bringing of bytes) await blobs.hold(made.id, bringing, transaction)
        return made
      } catch (error) {
        if (error instanceof UniqueConstraintError) return AudioFile.findOne({ ...same, rejectOnEmpty: true })
        throw error
      }
    },

    /** Has a file measured that was not yet; its bytes must be in the media store. */
    async measure(file: AudioFile, transaction: Transaction): Promise<void> {
      if (file.measuring === 'waiting')
        await jobs.add(
          {
            kind: 'measure-file',
            payload: { fileId: file.id },
            subject: file.id,
            showId: file.showId,
            soundMs: file.durationMs,
          },
          transaction,
        )
    },
  }
}
