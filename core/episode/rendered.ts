import { listed } from '../chapters/chapters'
import { fillNotes } from '../notes/fill'
import type { Chapter, EpisodeText } from './fields'
import { patternTitle } from './titlePattern'

/** What of a show is told with each of its episodes; `address` is its public page. */
export interface RenderContext {
  name: string
  titlePattern: string
  address: string
}

/**
 * A text as feed, page and tags tell it: its title by the show's pattern, its notes with their fields filled in. Chapters
 * come by the clock of the sound that is delivered.
 */
export function renderText(
  { title, number, season, notes, hook, people, links }: EpisodeText,
  { titlePattern, name, address }: RenderContext,
  chapters: readonly Chapter[],
): { title: string; notesHtml: string } {
  const values = {
    title: title.trim(),
    hook: hook.trim(),
    people,
    links,
    chapters: listed(chapters),
    show: { name, address },
  }
  return {
    title: patternTitle(titlePattern, { title: title.trim(), number, season }, name),
    notesHtml: fillNotes(notes, values),
  }
}
