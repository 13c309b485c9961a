import { createReadStream } from 'node:fs'
import { access, constants, link, mkdir, rm, statfs } from 'node:fs/promises'
import { join } from 'node:path'
import type { MediaStore } from './store'

/** A media store in a folder of the local disk; the inbox lies in it, so that taking a file in copies nothing. */
export async function openDiskStore(folder: string): Promise<MediaStore> {
  const inbox = join(folder, 'inbox')
  const place = (sha256: string): string => join(folder, 'files', sha256.slice(0, 2), sha256)
  await mkdir(inbox, { recursive: true })
  return {
    inbox,
    async take(path, sha256) {
      await mkdir(join(folder, 'files', sha256.slice(0, 2)), { recursive: true })
      // A second name for the same bytes: nothing is copied, and a crash leaves the file in both places or in the first.
      await link(path, place(sha256)).catch((error: NodeJS.ErrnoException) => { if (error.code !== 'EEXIST') throw error })
    },
    read: (sha256, range) => createReadStream(place(sha256), range),
    onDisk: async sha256 => ({ path: place(sha256), release: async () => undefined }),
    remove: sha256 => rm(place(sha256), { force: true }),
    async roomLeft() {
      const { bavail, bsize } = await statfs(folder)
      return bavail * bsize
    },
    check: () => access(inbox, constants.W_OK),
  }
}
