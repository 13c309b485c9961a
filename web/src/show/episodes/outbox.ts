import { type EpisodeText, unsetText } from '@core/episode/fields'
import { unsentBox } from '../../platform/saving/unsent'

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
/** What the writing started from stays the same from key to key, and is put into words once. */
const written = new WeakMap<EpisodeText, string>()
function asJson(text: EpisodeText): string {
  const known = written.get(text)
  if (known !== undefined) return known
  const json = JSON.stringify(text)
  written.set(text, json)
  return json
}
export function keepUnsent(episodeId: string, { serverText, base, text, ...rest }: Unsent): void {
  box.keepWritten(
    episodeId,
    `{"serverText":${asJson(serverText)},"base":${asJson(base)},"text":${JSON.stringify(text)},${JSON.stringify(rest).slice(1)}`,
  )
}
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
