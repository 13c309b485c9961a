import type { Readable } from 'node:stream'
import { LRUCache } from 'lru-cache'
import { AppError } from '../../platform/http/errors'
import type { MediaStore } from '../../platform/storage/store'
import { decode, decodingFrom, mp3PlacesOf } from '../sound/seek'
import type { AudioFile } from './models'

/** What somebody hears at once comes from a handful of files. */
const mostOpen = 16
const mostKept = 200

/** Decodes files for the studio, from any moment of them: what is put together there is heard before it is made. */
export function fileDecoding(media: MediaStore) {
  const open = new Map<string, number>()
  const places = new LRUCache<string, { found: Awaited<ReturnType<typeof mp3PlacesOf>> }, string>({
    max: mostKept,
    fetchMethod: async (_fingerprint, _stale, { context: path }) => ({ found: await mp3PlacesOf(path) }),
  })

  return {
    /** Interleaved frames of 16 bits. Throws `busy` where an account has too many open. */
    async from(
      { fingerprint, type, channels, soundFromBytes }: AudioFile,
      { sampleRateHz, fromFrame }: { sampleRateHz: number; fromFrame: number },
      accountId: string,
    ): Promise<Readable> {
      const others = open.get(accountId) ?? 0
      if (others >= mostOpen)
        throw new AppError('busy', `At most ${mostOpen} files are decoded for one account at once.`)
      open.set(accountId, others + 1)
      const closed = (): void => {
        const left = open.get(accountId)! - 1
        if (left > 0) open.set(accountId, left)
        else open.delete(accountId)
      }
      try {
        const { path, release } = await media.onDisk(fingerprint)
        const known = type === 'audio/mpeg' ? await places.fetch(fingerprint, { context: path }) : null
        const own = channels === 1 ? 1 : 2
        const source = { path, junkBytes: Number(soundFromBytes ?? 0), sampleRateHz, channels: own } as const
        return decode(decodingFrom(source, fromFrame, known?.found ?? null)).once('close', () => {
          closed()
          void release()
        })
      } catch (error) {
        closed()
        throw error
      }
    },
  }
}
