import { decodeHTML } from 'entities'
import { cut, utf8Bytes } from '../words/line'

/** As much as apps take of an item's description (itunes namespace, from memory). */
export const mostDescriptionBytes = 4000

/**
 * Plain text as it stands in a feed's `description`, which half of the readers take for text and half for HTML: what
 * HTML would take for a tag or for a spelled-out letter is spelled out, all else is left alone. So readers of HTML show every
 * word, and readers of text show all but angle brackets as they were written. See docs/decisions/feed-description.md.
 */
export function safeInBothReadings(text: string): string {
  // HTML Standard section 13.2.5: a tag opens with < and a letter, /, ! or ?.
  return text.replace(/<(?=[a-z/!?])|&(?=(#?[a-z0-9]{1,32};?))/gi, (sign, word?: string) =>
    sign === '<' ? '&lt;' : isReference(sign + word) ? '&amp;' : sign,
  )
}

/** Whether HTML would show something else for these letters, as it does for `&amp;` and, of old, for `&copy` too. */
const isReference = (letters: string): boolean => decodeHTML(letters) !== letters

/** An item's description out of its notes as plain text: at most 4,000 bytes, cut between letters, with an ellipsis. */
export function itemDescription(plain: string): string {
  const whole = safeInBothReadings(plain)
  return utf8Bytes(whole) <= mostDescriptionBytes
    ? whole
    : `${safeInBothReadings(cut(plain, mostDescriptionBytes - utf8Bytes('…'), bytesAtMost))}…`
}

/** What a letter takes at most, whatever it stands beside. */
const bytesAtMost = (letter: string): number =>
  utf8Bytes(letter) + (letter.startsWith('<') ? 3 : letter.startsWith('&') ? 4 : 0)
