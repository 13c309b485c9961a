import type { Chapter, EpisodeText, Soundbite } from '@core/episode/fields'
import { readSnapshot, type ReleasedTranscript } from '@core/episode/snapshot'
import type { AudioFile } from '../../media/files/models'
import type { ReleasedEpisode } from './released'

/** What goes out with an episode, or would go out with it: feed and page are written of this. */
export interface Outgoing {
  id: string
  guid: string
  slug: string
  text: EpisodeText
  /** By the clock of the file. */
  chapters: readonly Chapter[]
  soundbites: readonly Soundbite[]
  transcripts: readonly ReleasedTranscript[]
  /** Null before the release, where there is none yet; as for the moment. */
  file: Pick<AudioFile, 'fingerprint' | 'type' | 'bytes' | 'durationMs' | 'address'> | null
  at: Date | null
  /** Where a picture of the text is found; null where it is not there. */
  pictureAddress: PictureAddress
}
export type PictureAddress = (id: string | null) => string | null

/** What goes out with an episode that is released. */
export function outgoingOf(
  { id, guid, slug, released, file, releaseAt }: ReleasedEpisode,
  pictureAddress: PictureAddress,
): Outgoing {
  return {
    id,
    guid,
    slug,
    text: readSnapshot(released),
    chapters: released.chapters ?? [],
    soundbites: released.soundbites ?? [],
    transcripts: released.transcripts ?? [],
    file,
    at: releaseAt,
    pictureAddress,
  }
}
