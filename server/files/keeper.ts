import { type Transaction, UniqueConstraintError } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { Platform } from '../platform'
import { AudioFile } from './models'
import type { AudioFacts } from './reading'

type NewFile = Omit<AudioFacts, 'picture' | 'chapters'> & Partial<Pick<AudioFacts, 'chapters'>> & Pick<AudioFile, 'showId' | 'name' | 'pictureId'> & Partial<Pick<AudioFile, 'origin' | 'measuring' | 'measurement' | 'waveform' | 'address' | 'checkedAt'>>

/** Writes files down, each content once for a show. */
export function fileKeeper({ clock, jobs }: Pick<Platform, 'clock' | 'jobs'>) {
  return {
    async keep(file: NewFile): Promise<AudioFile> {
      const where = { showId: file.showId, sha256: file.sha256 }
      try {
        return await AudioFile.findOne({ where }) ?? await AudioFile.create({ ...file, id: uuidV7(), createdAt: clock.now() })
      } catch (error) {
        if (error instanceof UniqueConstraintError) return AudioFile.findOne({ where, rejectOnEmpty: true })
        throw error
      }
    },

    /** Has a file measured that was not yet; its bytes must be in the media store. */
    async measure(file: AudioFile, transaction: Transaction): Promise<void> {
      if (file.measuring === 'waiting') await jobs.add({ kind: 'measure-file', payload: { fileId: file.id }, subject: file.id, showId: file.showId }, transaction)
    },
  }
}
