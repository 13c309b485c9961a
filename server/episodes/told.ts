import type { EpisodeText } from '@core/episode/fields'
import { patternTitle } from '@core/episode/titlePattern'
import { fillNotes } from '@core/notes/fill'
import type { Show } from '../shows/models'

/** A text as feed, page and tags tell it: its title by the show's pattern, its notes with their fields filled in. */
export function toldOf(
  { title, number, season, notes, hook, people, links }: EpisodeText,
  { titlePattern, name }: Pick<Show, 'titlePattern' | 'name'>,
  showAddress: string,
): { title: string; notesHtml: string } {
  const values = { title: title.trim(), hook: hook.trim(), people, links, show: { name, address: showAddress } }
  return {
    title: patternTitle(titlePattern, { title: title.trim(), number, season }, name),
    notesHtml: fillNotes(notes, values),
  }
}
