import type { Readable } from 'node:stream'

/** A home for files that never change, each under the SHA-256 of its bytes. */
export interface MediaStore {
  /** Takes a file from the local disk into the store; it stays where it was until its owner removes it. The same content twice is no error. */
  take(path: string, sha256: string): Promise<void>
  /** Reads a file, or the bytes `start` to `end` (both included) of it. */
  read(sha256: string, range?: { start: number; end: number }): Readable
  /** A path on the local disk where a file can be read until `release` is called. */
  onDisk(sha256: string): Promise<{ path: string; release(): Promise<void> }>
  /** Takes a file out of the store; one that is not there is no error. */
  remove(sha256: string): Promise<void>
  /** Bytes that are still free. */
  roomLeft(): Promise<number>
  /** Resolves when the store answers and can be written to. */
  check(): Promise<void>
  /** A folder on the local disk for files on their way into the store. */
  readonly inbox: string
}
