import { fillNotes } from '../notes/fill'
import type { EpisodeText } from './fields'
import { patternTitle } from './titlePattern'

/** What of a show is told with each of its episodes; `address` is its public page. */
export interface Teller {
  name: string
  titlePattern: string
  address: string
}

/** A text as feed, page and tags tell it: its title by the show's pattern, its notes with their fields filled in. */
export function toldOf(
  { title, number, season, notes, hook, people, links }: EpisodeText,
  { titlePattern, name, address }: Teller,
): { title: string; notesHtml: string } {
  const values = { title: title.trim(), hook: hook.trim(), people, links, show: { name, address } }
  return {
    title: patternTitle(titlePattern, { title: title.trim(), number, season }, name),
    notesHtml: fillNotes(notes, values),
  }
}
