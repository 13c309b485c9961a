import { createReadStream } from 'node:fs'
import { access, constants, mkdir, rename } from 'node:fs/promises'
import { join } from 'node:path'
import type { MediaStore } from './store'

/** A media store in a folder of the local disk; the inbox lies in it, so that taking a file in is a rename. */
export async function openDiskStore(folder: string): Promise<MediaStore> {
  const inbox = join(folder, 'inbox')
  const place = (sha256: string): string => join(folder, 'files', sha256.slice(0, 2), sha256)
  await mkdir(inbox, { recursive: true })
  return {
    inbox,
    async take(path, sha256) {
      await mkdir(join(folder, 'files', sha256.slice(0, 2)), { recursive: true })
      await rename(path, place(sha256))
    },
    read: (sha256, range) => createReadStream(place(sha256), range),
    check: () => access(inbox, constants.W_OK),
  }
}
