import { readFile } from 'node:fs/promises'
import { DateTime } from 'luxon'
import { type Chapter, chaptersFromNotes, movedChapters } from '@core/chapters/fromNotes'
import { plainNotes } from '@core/notes/plain'
import { cut } from '@core/words/line'
import type { Episode } from '../episodes/models'
import type { Configuration } from '../configuration'
import type { MediaStore } from '../media/store'
import { draw } from '../pictures/draw'
import type { Show } from '../shows/models'
import type { Tags } from './tags'

const longestCommentLetters = 250
const artworkPx = 800

/** The tags that an episode's delivered file carries, from what is written about it and its show, and from the chapters that its source brings. */
export function tagsFor(episode: Episode, show: Show, publicUrl: string, now: Date, sound: { fromMs: number; durationMs: number }, brought: readonly Chapter[]): Tags {
  const written = chaptersFromNotes(episode.notes)
  const [first = ''] = plainNotes(episode.notes).split('\n')
  return {
    title: episode.title.trim(),
    artist: show.author,
    album: show.name,
    track: episode.number,
    date: DateTime.fromJSDate(episode.releaseAt ?? now, { zone: show.zone }).toISODate()!,
    genre: 'Podcast',
    comment: cut(first, longestCommentLetters),
    webAddress: `${publicUrl}/${show.slug}${episode.slug ? `/${episode.slug}` : ''}`,
    artworkId: show.artworkId,
    // Times in the notes go before those that the file brings.
    chapters: movedChapters(written.length > 0 ? written : brought, sound.fromMs, sound.durationMs),
  }
}

/** The show's artwork, small enough to be carried in every file. */
export async function artworkForTags(media: MediaStore, artworkId: string, configuration: Pick<Configuration, 'serverDir'>): Promise<{ bytes: Buffer; type: string }> {
  const { path, release } = await media.onDisk(artworkId)
  try {
    const [drawn] = await draw({ kind: 'inside', bytes: await readFile(path), mostPx: artworkPx }, configuration)
    return { bytes: Buffer.from(drawn!.bytes), type: 'image/jpeg' }
  } finally {
    await release()
  }
}
