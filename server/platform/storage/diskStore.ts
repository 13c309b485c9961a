import { createReadStream } from 'node:fs'
import { access, constants, copyFile, link, mkdir, open, readdir, rm, stat, statfs } from 'node:fs/promises'
import { join } from 'node:path'
import { FileStore } from '@tus/file-store'
import type { Arrivals, MediaStore } from './store'

/** A media store in a folder of the local disk; what is on its way and what is worked on lie in it, so that taking a file in copies nothing. */
export async function openDiskStore(folder: string): Promise<MediaStore> {
  const inbox = join(folder, 'inbox')
  const shownAt = (sha256: string): string => `${sha256.slice(0, 2)}/${sha256}`
  const place = (sha256: string): string => join(folder, 'files', shownAt(sha256))
  const lend = (path: string) => Promise.resolve({ path, release: async () => undefined })
  await mkdir(inbox, { recursive: true })
  return {
    arrivals: arrivalsIn(inbox, lend),
    async take(path, sha256) {
      await mkdir(join(folder, 'files', sha256.slice(0, 2)), { recursive: true })
      await linkOnce(path, place(sha256))
    },
    read: (sha256, range) => createReadStream(place(sha256), range),
    shownAt,
    async open(sha256) {
      const file = await open(place(sha256))
      return {
        async bytes(start, end) {
          // Memory of its own: a piece that is kept must not hold more than itself.
          const { buffer, bytesRead } = await file.read(
            Buffer.allocUnsafeSlow(end - start + 1),
            0,
            end - start + 1,
            start,
          )
          if (bytesRead < buffer.length) throw new Error(`The stored file ${sha256} is shorter than it was.`)
          return buffer
        },
        close: () => file.close(),
      }
    },
    onDisk: sha256 => lend(place(sha256)),
    remove: sha256 => rm(place(sha256), { force: true }),
    async workIn(name, act) {
      const work = join(inbox, name)
      await rm(work, { recursive: true, force: true })
      await mkdir(work)
      try {
        return await act(work)
      } finally {
        await rm(work, { recursive: true, force: true })
      }
    },
    async roomLeft() {
      const { bavail, bsize } = await statfs(folder)
      return bavail * bsize
    },
    check: () => access(inbox, constants.W_OK),
  }
}

function arrivalsIn(inbox: string, lend: (path: string) => ReturnType<MediaStore['onDisk']>): Arrivals {
  const place = (id: string): string => join(inbox, id)
  const seen: Arrivals['seen'] = id =>
    stat(place(id)).then(
      // The disk has the machine’s time, whatever that of the house is.
      ({ size, mtimeMs }) => ({ bytes: size, ageMs: Date.now() - mtimeMs }),
      () => null,
    )
  return {
    tus: new FileStore({ directory: inbox }),
    seen,
    onDisk: id => lend(place(id)),
    put: (id, path) => copyFile(path, place(id)),
    async remove(id) {
      // Beside an upload lies what the protocol knows of it.
      for (const path of [place(id), `${place(id)}.json`]) await rm(path, { force: true })
    },
    async sweep(ageMs, waiting) {
      for (const name of await readdir(inbox)) {
        const known = await seen(name)
        if (known && known.ageMs > ageMs && !waiting.has(name.replace(/\.json$/, '')))
          await rm(place(name), { recursive: true, force: true })
      }
    },
  }
}

/** A second name for the same bytes: nothing is copied, and a crash leaves the file in both places or in the first. */
async function linkOnce(path: string, other: string): Promise<void> {
  await link(path, other).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== 'EEXIST') throw error
  })
}
