import { DateTime } from 'luxon'
import { type Chapter, chaptersFromNotes, movedChapters } from '@core/chapters/fromNotes'
import { plainNotes } from '@core/notes/plain'
import { cut } from '@core/words/line'
import type { Show } from '../shows/models'
import type { Episode } from './models'

const longestCommentLetters = 250

/** What players read in a file. */
export interface Tags {
  title: string
  artist: string
  album: string
  track: number | null
  /** `2026-12-03` */
  date: string
  genre: string
  comment: string
  webAddress: string
  artworkId: string
  chapters: Chapter[]
}

/** The tags that an episode's delivered file carries, from what is written about it and its show, and from the chapters that its source brings. */
export function tagsFor(
  episode: Episode,
  show: Show,
  publicUrl: string,
  now: Date,
  sound: { fromMs: number; durationMs: number },
  brought: readonly Chapter[],
): Tags {
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
