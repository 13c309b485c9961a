import { deepEqual } from 'fast-equals'
import { isOfNewerHouse } from '../mix/document'
import type { Severity } from '../words/severity'
import { isMisspelt, linkedAddresses } from '../notes/addresses'
import { plainNotes } from '../notes/plain'
import { fold } from '../words/fold'
import { isBlank, letters, trimmed } from '../words/line'
import type { EpisodeField, EpisodeText } from './fields'

/** Something about what is written that a person may want to look at. */
export interface Want {
  field: EpisodeField
  severity: Exclude<Severity, 'error'>
  code: WantCode
  /** What it is about, where that is not in the code; for a chapter its id. */
  id?: string
  /** In words. */
  told?: string
}

export type WantCode =
  | 'no-notes'
  | 'first-sentence-empty'
  | 'no-hook'
  | 'not-the-mix'
  | 'few-tags'
  | 'link-without-address'
  | 'link-misspelt'
  | 'link-fails'
  | 'number-twice'
  | 'number-skipped'
  | 'number-against-dates'
  | 'chapter-times-back'
  | 'chapter-behind-end'
  | 'chapter-cut-off'
  | 'chapters-close'
  | 'chapter-more-than-m4a'
  | 'chapters-begin-late'
  | 'chapter-untitled'
  | 'soundbite-short'
  | 'soundbite-long'
  | 'soundbite-cut-into'
  | 'soundbite-cut-off'

/** What is put together is heard by nobody until it is made the audio. */
export const mixWants = (mix: EpisodeText['mix'], taken: EpisodeText['mix']): Want[] =>
  mix && !isOfNewerHouse(mix) && mix.pieces.length > 0 && !deepEqual(mix, taken)
    ? [{ field: 'mix', severity: 'warning', code: 'not-the-mix' }]
    : []

/** Tags are found by, and one alone finds little (common practice, no source: two at least). */
export const leastTags = 2

/** What is worth a look in a text; what has to be there for a release is not its business. */
export function wantsOf(text: EpisodeText, show: string): Want[] {
  const plain = plainNotes(text.notes)
  const found: Want[] = []
  if (isBlank(plain)) found.push({ field: 'notes', severity: 'warning', code: 'no-notes' })
  else if (saysNothing(firstSentence(plain), show))
    found.push({ field: 'notes', severity: 'warning', code: 'first-sentence-empty' })
  if (/<a href="">|<a>/.test(text.notes))
    found.push({ field: 'notes', severity: 'warning', code: 'link-without-address' })
  for (const address of linkedAddresses(text.notes).filter(isMisspelt))
    found.push({ field: 'notes', severity: 'warning', code: 'link-misspelt', told: address })
  if (isBlank(text.hook)) found.push({ field: 'hook', severity: 'note', code: 'no-hook' })
  if (text.tags.length < leastTags) found.push({ field: 'tags', severity: 'note', code: 'few-tags' })
  return found
}

const ends = new Intl.Segmenter('en', { granularity: 'sentence' })

/** The first sentence of a plain text (UAX 29). */
export function firstSentence(plain: string): string {
  const [line = ''] = plain.trim().split('\n')
  for (const { segment } of ends.segment(line)) return withoutLoneQuote(segment.trim())
  return ''
}

/** A sentence out of what somebody says does not begin with a mark that nothing closes. */
const withoutLoneQuote = (sentence: string): string =>
  /^[“„«"]/.test(sentence) && !/[”“»"]/.test(sentence.slice(1)) ? sentence.slice(1).trim() : sentence

/** Lists show it alone, so one that only greets, or only says that this is an episode, tells nobody anything. */
export function saysNothing(sentence: string, show: string): boolean {
  const words = trimmed(fold(sentence), '.!?…,:')
  const opening =
    /^(in (this|today['’]?s|the latest|our latest) (week['’]?s )?(episode|show)|this (week|time|episode)|welcome (back )?(to|everyone)|hello|hi|hey|good (morning|evening|day)|today (we|i))\b/
  const rest = words.replace(opening, '').replace(fold(show), '').trim()
  return (
    words === '' ||
    words === fold(show) ||
    (opening.test(words) && letters(rest) < 12) ||
    /^in this episode (we|i)\b/.test(words)
  )
}

/** Links of notes that did not answer when they were asked, as far as the notes still have them. */
export function linkWants(notes: string, bad: readonly { address: string; problem: string }[]): Want[] {
  if (bad.length === 0) return []
  const there = new Set(linkedAddresses(notes))
  return bad
    .filter(({ address }) => there.has(address))
    .map(({ address, problem }) => ({
      field: 'notes',
      severity: 'warning',
      code: 'link-fails',
      told: `${address}: ${problem}`,
    }))
}
