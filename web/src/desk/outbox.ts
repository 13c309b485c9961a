import { type EpisodeText, unsetText } from '@core/episode/fields'

/** What a window has written and the server does not have yet, as it lies in the browser. */
export interface Unsent {
  /** The text on the server that the writing started from, as the server gave it. */
  serverText: EpisodeText
  /** The same text as this window held it: the notes editor spells some markup differently. */
  base: EpisodeText
  text: EpisodeText
  version: number
  atMs: number
}

const prefix = 'lake-letter:unsent'
const tabKey = 'lake-letter:tab'
/** A living window writes its unsent text again at every try to send it; one this old belongs to a window that is gone. */
const goneAfterMs = 30_000

/** This window's name, kept over a reload. */
function tab(): string {
  const known = sessionStorage.getItem(tabKey)
  if (known) return known
  const made = crypto.getRandomValues(new Uint32Array(2)).join('-')
  sessionStorage.setItem(tabKey, made)
  return made
}

const keyOf = (episodeId: string): string => `${prefix}:${episodeId}:${tab()}`

export function keepUnsent(episodeId: string, unsent: Unsent): void {
  localStorage.setItem(keyOf(episodeId), JSON.stringify(unsent))
}

export function dropUnsent(episodeId: string): void {
  localStorage.removeItem(keyOf(episodeId))
}

/** Takes out what this window, or one that is gone, left unsent for an episode; the newest wins. */
export function takeUnsent(episodeId: string, nowMs: number): Unsent | null {
  const own = keyOf(episodeId)
  const found = Object.keys(localStorage)
    .filter(key => key.startsWith(`${prefix}:${episodeId}:`))
    .map(key => ({ key, unsent: JSON.parse(localStorage.getItem(key)!) as Unsent }))
    .filter(({ key, unsent }) => key === own || nowMs - unsent.atMs > goneAfterMs)
    .sort((a, b) => b.unsent.atMs - a.unsent.atMs)
  for (const { key } of found) localStorage.removeItem(key)
  return found[0] ? withAllFields(found[0].unsent) : null
}

/** What an earlier version left has no fields that came after it. */
const withAllFields = ({ serverText, base, text, ...rest }: Unsent): Unsent => ({
  ...rest,
  serverText: { ...unsetText, ...serverText },
  base: { ...unsetText, ...base },
  text: { ...unsetText, ...text },
})
