import type { Readable } from 'node:stream'
import type { DataStore } from '@tus/server'

/** A file on the local disk, lent until `release` is called. */
export interface Lent {
  path: string
  release(): Promise<void>
}

/** A stored file that is open for reading. */
export interface OpenFile {
  /** Reads the bytes from `start` to `end`, both included. */
  bytes(start: number, end: number): Promise<Buffer>
  close(): Promise<void>
}

/** Uploads in, each under the id of its upload. */
export interface Arrivals {
  /** Receives them by the tus protocol. */
  readonly tus: DataStore
  /** How much of one is here, and how long ago it last grew, by the machine’s clock; null where nothing is. */
  seen(id: string): Promise<{ bytes: number; ageMs: number } | null>
  onDisk(id: string): Promise<Lent>
  /** Takes one away; one that is not there is no error. */
  remove(id: string): Promise<void>
  /** Copies a file from the local disk as one that has come whole. */
  put(id: string, path: string): Promise<void>
  /** Clears away whatever nobody has touched for `ageMs` and is not named in `waiting`, also what killed processes were working on. */
  sweep(ageMs: number, waiting: ReadonlySet<string>): Promise<void>
}

/** A home for files that never change, each under the SHA-256 of its bytes; and for those on their way into it. */
export interface MediaStore {
  readonly arrivals: Arrivals
  /** Takes a file from the local disk into the store; it stays where it was until its owner removes it. The same content twice is no error. */
  take(path: string, sha256: string): Promise<void>
  /** Reads a file, or the bytes `start` to `end` (both included) of it. */
  read(sha256: string, range?: { start: number; end: number }): Readable
  open(sha256: string): Promise<OpenFile>
  /** Where a file is found by a program that the whole store is shown to, as the end of an address; null where none can be. */
  shownAt(sha256: string): string | null
  onDisk(sha256: string): Promise<Lent>
  /** Takes a file out of the store; one that is not there is no error. */
  remove(sha256: string): Promise<void>
  /** Lends an empty folder on the local disk to work in, from which files can be taken; it is gone when `act` ends. */
  workIn<T>(name: string, act: (folder: string) => Promise<T>): Promise<T>
  /** Bytes that are still free. */
  roomLeft(): Promise<number>
  /** Resolves when the store answers and can be written to. */
  check(): Promise<void>
}
