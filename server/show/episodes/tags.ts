import { DateTime } from 'luxon'
import type { Chapter, EpisodeText } from '@core/episode/fields'
import { renderText } from '@core/episode/rendered'
import { plainNotes } from '@core/notes/plain'
import { cut } from '@core/words/line'
import type { Tags } from '../../media/files/tags'
import type { Show } from '../shows/models'
import { renderContextOf } from '../shows/service'
import type { Episode } from './models'

const longestCommentLetters = 250

/** The tags that an episode's delivered file carries, from what is written about it and its show. Chapters come by that file's clock. */
export function tagsFor(
  episode: EpisodeText & Pick<Episode, 'releaseAt' | 'slug'>,
  show: Show,
  publicUrl: string,
  now: Date,
  chapters: Chapter[],
): Tags {
  const context = renderContextOf(show, publicUrl)
  const { title, notesHtml } = renderText(episode, context, chapters)
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
    webAddress: `${context.address}${episode.slug ? `/${episode.slug}` : ''}`,
    artworkId: episode.artworkId ?? show.artworkId,
    chapters,
  }
}
