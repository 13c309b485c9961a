import { DateTime } from 'luxon'
import { toldOf } from '@core/episode/told'
import { type Chapter, chaptersFromNotes, movedChapters } from '@core/chapters/fromNotes'
import { plainNotes } from '@core/notes/plain'
import { cut } from '@core/words/line'
import type { Tags } from '../files/tags'
import type { Show } from '../shows/models'
import type { Episode } from './models'

const longestCommentLetters = 250

/** The tags that an episode's delivered file carries, from what is written about it and its show, and from the chapters that its source brings. */
export function tagsFor(
  episode: Episode,
  show: Show,
  publicUrl: string,
  now: Date,
  sound: { fromMs: number; durationMs: number },
  brought: readonly Chapter[],
): Tags {
  const showAddress = `${publicUrl}/${show.slug}`
  const { title, notesHtml } = toldOf(episode, {
    name: show.name,
    titlePattern: show.titlePattern,
    address: showAddress,
  })
  const written = chaptersFromNotes(notesHtml)
  const [first = ''] = plainNotes(notesHtml).split('\n')
  return {
    title,
    subtitle: episode.hook.trim(),
    artist: episode.extras.author ?? show.author,
    album: show.name,
    track: episode.number,
    date: DateTime.fromJSDate(episode.releaseAt ?? now, { zone: show.zone }).toISODate()!,
    genre: 'Podcast',
    comment: cut(first, longestCommentLetters),
    keywords: episode.tags,
    people: episode.people.map(({ name, role }) => `${name} (${role})`),
    webAddress: `${showAddress}${episode.slug ? `/${episode.slug}` : ''}`,
    artworkId: episode.artworkId ?? show.artworkId,
    // Times in the notes go before those that the file brings.
    chapters: movedChapters(written.length > 0 ? written : brought, sound.fromMs, sound.durationMs),
  }
}
