import { readFile } from 'node:fs/promises'
import type { Configuration } from '../../platform/configuration'
import type { Tags } from '../../media/files/tags'
import type { MediaStore } from '../../platform/storage/store'
import { draw } from '../../media/pictures/draw'

const artworkPx = 800
const chapterPx = 600

export interface TagPicture {
  bytes: Buffer
  type: string
}

/** The pictures that a file carries: the artwork, and those of its chapters by their ids. */
export interface TagPictures {
  artwork: TagPicture
  ofChapters: ReadonlyMap<string, TagPicture>
}

/** A file's pictures, small enough to be carried in it. */
export async function picturesForTags(
  media: MediaStore,
  { artworkId, chapters }: Pick<Tags, 'artworkId' | 'chapters'>,
  configuration: Pick<Configuration, 'serverDir'>,
): Promise<TagPictures> {
  async function small(id: string, mostPx: number): Promise<TagPicture> {
    const { path, release } = await media.onDisk(id)
    try {
      const [drawn] = await draw({ kind: 'inside', bytes: await readFile(path), mostPx }, configuration)
      return { bytes: Buffer.from(drawn!.bytes), type: 'image/jpeg' }
    } finally {
      await release()
    }
  }

  const ofChapters = new Map<string, TagPicture>()
  for (const id of new Set(chapters.flatMap(({ pictureId }) => pictureId ?? [])))
    ofChapters.set(id, await small(id, chapterPx))
  return { artwork: await small(artworkId, artworkPx), ofChapters }
}
