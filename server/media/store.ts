import type { Readable } from 'node:stream'

/** A home for files that never change, each under the SHA-256 of its bytes. */
export interface MediaStore {
  /** Takes a file from the local disk into the store and away from where it was. Putting the same content twice is no error. */
  take(path: string, sha256: string): Promise<void>
  /** Reads a file, or the bytes `start` to `end` (both included) of it. */
  read(sha256: string, range?: { start: number; end: number }): Readable
  /** Resolves when the store answers and can be written to. */
  check(): Promise<void>
  /** A folder on the local disk for files on their way into the store. */
  readonly inbox: string
}
