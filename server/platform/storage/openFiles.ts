import { LRUCache } from 'lru-cache'
import type { MediaStore, OpenFile } from './store'

interface Entry {
  file: Promise<OpenFile>
  users: number
  isOut: boolean
}

const mostOpen = 256

/** Stored files that stay open while they are asked for often. */
export function openFiles(media: Pick<MediaStore, 'open'>) {
  const entries = new LRUCache<string, Entry>({
    max: mostOpen,
    dispose(entry) {
      entry.isOut = true
      closeUnused(entry)
    },
  })

  function closeUnused({ file, users, isOut }: Entry): void {
    if (isOut && users === 0) file.then(open => open.close()).catch(() => undefined)
  }

  function entryFor(sha256: string): Entry {
    const known = entries.get(sha256)
    if (known) return known
    const entry: Entry = { file: media.open(sha256), users: 0, isOut: false }
    entries.set(sha256, entry)
    entry.file.catch(() => {
      if (entries.peek(sha256) === entry) entries.delete(sha256)
    })
    return entry
  }

  return {
    /** Lends an open file for as long as `act` takes. */
    async use<T>(sha256: string, act: (file: OpenFile) => Promise<T>): Promise<T> {
      const entry = entryFor(sha256)
      entry.users++
      try {
        return await act(await entry.file)
      } finally {
        entry.users--
        closeUnused(entry)
      }
    },
    close: () => entries.clear(),
  }
}
