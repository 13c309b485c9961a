import { type EpisodeText, unsetText } from '@core/episode/fields'
import { unsentBox } from './unsent'

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

const box = unsentBox<Unsent>('lake-letter:unsent')
export const keepUnsent = box.keep
export const dropUnsent = box.drop

/** Takes out what this window, or one that is gone, left unsent for an episode. */
export function takeUnsent(episodeId: string, nowMs: number): Unsent | null {
  const unsent = box.take(episodeId, nowMs)
  return unsent && withAllFields(unsent)
}

/** What an earlier version left has no fields that came after it. */
const withAllFields = ({ serverText, base, text, ...rest }: Unsent): Unsent => ({
  ...rest,
  serverText: { ...unsetText, ...serverText },
  base: { ...unsetText, ...base },
  text: { ...unsetText, ...text },
})
