import { readFile } from 'node:fs/promises'
import type { Configuration } from '../configuration'
import type { MediaStore } from '../media/store'
import { draw } from '../pictures/draw'

const artworkPx = 800

/** The show's artwork, small enough to be carried in every file. */
export async function artworkForTags(
  media: MediaStore,
  artworkId: string,
  configuration: Pick<Configuration, 'serverDir'>,
): Promise<{ bytes: Buffer; type: string }> {
  const { path, release } = await media.onDisk(artworkId)
  try {
    const [drawn] = await draw({ kind: 'inside', bytes: await readFile(path), mostPx: artworkPx }, configuration)
    return { bytes: Buffer.from(drawn!.bytes), type: 'image/jpeg' }
  } finally {
    await release()
  }
}
