import { LRUCache } from 'lru-cache'
import { singleFlight } from '../singleFlight'
import { openFiles } from './openFiles'
import type { MediaStore } from './store'

/** So much of a stored file is read at one go. */
export const pieceBytes = 256 * 1024

/** Pieces of stored files, those in memory that are asked for often: a new episode is fetched by everybody at once. */
export function storedPieces(media: Pick<MediaStore, 'open'>, mostBytes: number) {
  const files = openFiles(media)
  const kept = new LRUCache<string, Buffer>({ maxSize: Math.max(1, mostBytes), sizeCalculation: piece => piece.length })
  const reading = singleFlight<Buffer>()

  async function read(sha256: string, index: number, fileBytes: number, key: string): Promise<Buffer> {
    const start = index * pieceBytes
    const piece = await files.use(sha256, file => file.bytes(start, Math.min(start + pieceBytes, fileBytes) - 1))
    kept.set(key, piece)
    return piece
  }

  return {
    /** The piece of a file with `fileBytes` bytes that begins at `index` times the length of pieces; at once where it is in memory. */
    piece(sha256: string, index: number, fileBytes: number): Buffer | Promise<Buffer> {
      const key = `${sha256}/${index}`
      return kept.get(key) ?? reading.get(key, () => read(sha256, index, fileBytes, key))
    },
    close: () => files.close(),
  }
}

export type StoredPieces = ReturnType<typeof storedPieces>
