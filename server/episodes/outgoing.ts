import type { EpisodeText } from '@core/episode/fields'
import { readSnapshot } from '@core/episode/snapshot'
import type { AudioFile } from '../files/models'
import type { Episode } from './models'
import { fileIn } from './roles'

/** What goes out with an episode, or would go out with it: feed and page are written of this. */
export interface Outgoing {
  id: string
  guid: string
  slug: string
  text: EpisodeText
  /** Null before the release, where there is none yet; as for the moment. */
  file: Pick<AudioFile, 'sha256' | 'type' | 'bytes' | 'durationMs' | 'address'> | null
  at: Date | null
  /** Of its own artwork; null where the show's is used. */
  artworkAddress: string | null
}

/** What goes out with an episode that is released. `artwork` has the addresses of pictures by their ids. */
export function outgoingOf(episode: Episode, artwork: ReadonlyMap<string, string>): Outgoing {
  const text = readSnapshot(episode.released!)
  return {
    id: episode.id,
    guid: episode.guid,
    slug: episode.slug!,
    text,
    file: fileIn(episode, 'released')!,
    at: episode.releaseAt!,
    artworkAddress: artwork.get(text.artworkId ?? '') ?? null,
  }
}
