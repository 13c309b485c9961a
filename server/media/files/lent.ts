import { filesOfMix } from '@core/mix/document'
import type { MixedFile } from '../sound/mixed'
import type { SourceFiles } from '../sound/source'
import { Refusal } from '../../platform/refusal'
import type { MediaStore } from '../../platform/storage/store'
import { AudioFile } from './models'

type Lent<T> = (source: SourceFiles) => Promise<T>
type ToDecode = Pick<AudioFile, 'id' | 'fingerprint' | 'soundFromBytes' | 'channels' | 'durationMs'>

/** Has the bytes of a sound on disk while something is done with it: its own, or those of the files that it is mixed from. */
export async function withBytes<T>(media: MediaStore, file: AudioFile, act: Lent<T>): Promise<T> {
  const { mix } = file
  if (!mix) return onDisk(media, [file], ([own]) => act(own!))
  const ids = filesOfMix(mix)
  const files = await AudioFile.findAll({
    where: { id: ids, showId: file.showId },
    attributes: ['id', 'fingerprint', 'soundFromBytes', 'channels', 'durationMs'],
  })
  if (files.length < ids.length)
    throw new Refusal(
      'A file is not on the shelf any more',
      'The episode is put together of files of which one was deleted.',
      'Put another one in its place.',
    )
  return onDisk(media, files, lent => act({ mix, files: Object.fromEntries(files.map(({ id }, n) => [id, lent[n]!])) }))
}

async function onDisk<T>(
  media: MediaStore,
  files: readonly ToDecode[],
  act: (lent: MixedFile[]) => Promise<T>,
): Promise<T> {
  const lent: (MixedFile & { release: () => Promise<void> })[] = []
  try {
    for (const { fingerprint, soundFromBytes, channels, durationMs } of files)
      lent.push({ ...(await media.onDisk(fingerprint)), junkBytes: Number(soundFromBytes ?? 0), channels, durationMs })
    return await act(
      lent.map(({ path, junkBytes, channels, durationMs }) => ({ path, junkBytes, channels, durationMs })),
    )
  } finally {
    for (const { release } of lent) await release()
  }
}
