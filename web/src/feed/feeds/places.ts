import type { RouteLocationRaw } from 'vue-router'
import type { Place } from '@core/feed/rules/rule'

/** Where in the studio something is mended: the page, and the field of it, which takes the focus; null where it is not mended here. */
export function wayTo(place: Place, show: string, episodeId: string | null): RouteLocationRaw | null {
  if (place === 'host') return null
  const [of, what] = place.split('.') as ['show' | 'episode', string]
  if (of === 'show')
    return what === 'feedFacts'
      ? { name: 'feed-facts', params: { show } }
      : { name: 'facts', params: { show }, query: { at: what } }
  if (!episodeId) return null
  return { name: 'desk', params: { show, id: episodeId }, query: { part: parts[what] ?? 'words', at: what } }
}

/** The parts of the desk by what is mended in them. */
const parts: Readonly<Record<string, string>> = {
  audio: 'sound',
  people: 'people',
  transcript: 'transcript',
  chapters: 'chapters',
  artwork: 'extras',
  extras: 'extras',
  kind: 'words',
}
