import { DateTime } from 'luxon'
import sharp from 'sharp'
import { chaptersFromNotes, movedChapters } from '@core/chapters/fromNotes'
import { plainNotes } from '@core/notes/plain'
import type { Episode } from '../episodes/models'
import type { MediaStore } from '../media/store'
import type { Show } from '../shows/models'
import type { Tags } from './tags'

const longestCommentLetters = 250
const artworkPx = 800

/** The tags that an episode's delivered file carries, from what is written about it and its show. */
export function tagsFor(episode: Episode, show: Show, publicUrl: string, now: Date, sound: { fromMs: number; durationMs: number }): Tags {
  const [first = ''] = plainNotes(episode.notes).split('\n')
  return {
    title: episode.title.trim(),
    artist: show.author,
    album: show.name,
    track: episode.number,
    date: DateTime.fromJSDate(episode.releaseAt ?? now, { zone: show.zone }).toISODate()!,
    genre: 'Podcast',
    comment: first.slice(0, longestCommentLetters),
    webAddress: `${publicUrl}/${show.slug}${episode.slug ? `/${episode.slug}` : ''}`,
    artworkId: show.artworkId,
    chapters: movedChapters(chaptersFromNotes(episode.notes), sound.fromMs, sound.durationMs),
  }
}

/** The show's artwork, small enough to be carried in every file. */
export async function artworkForTags(media: MediaStore, artworkId: string): Promise<{ bytes: Buffer; type: string }> {
  const { path, release } = await media.onDisk(artworkId)
  try {
    return { bytes: await sharp(path).resize(artworkPx, artworkPx).jpeg({ quality: 82 }).toBuffer(), type: 'image/jpeg' }
  } finally {
    await release()
  }
}
