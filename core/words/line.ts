/** Words on one line: line breaks and tabs become spaces, other control characters go. Space at the ends stays. */
export function oneLine(words: string): string {
  return words.replace(/\r\n|[\t\n\v\f\r\u0085\u2028\u2029]/g, ' ').replace(/\p{Cc}/gu, '')
}

/** A letter that could be seen, as a regular expression of JavaScript and of PCRE. */
export const seenLetter = '[^\\p{Z}\\p{C}]'
const seen = new RegExp(seenLetter, 'u')

/** Whether there is nothing in it that could be seen: only spaces, control and format characters. */
export const isBlank = (words: string): boolean => !seen.test(words)

const graphemes = new Intl.Segmenter('en', { granularity: 'grapheme' })

/** How many letters a text has, as people count them (UAX 29). */
export const letters = (text: string): number => [...graphemes.segment(text)].length

/** As much of a text as fits, cut between letters as people see them (UAX 29); `size` measures each, in code units unless said. */
export function cut(text: string, most: number, size: (letter: string) => number = letter => letter.length): string {
  let kept = ''
  let used = 0
  for (const { segment } of graphemes.segment(text)) {
    used += size(segment)
    if (used > most) break
    kept += segment
  }
  return kept
}

const encoder = new TextEncoder()

/** How many bytes a text takes in UTF-8. */
export const utf8Bytes = (text: string): number => encoder.encode(text).length

/** A text without its lines in which nothing stands. */
export const withoutEmptyLines = (text: string): string =>
  /^[^\S\n]*$/m.test(text)
    ? text
        .split('\n')
        .filter(line => line.trim() !== '')
        .join('\n')
    : text

/** A text without the given characters at its ends. */
export function trimmed(text: string, edges: string): string {
  let [from, to] = [0, text.length]
  while (from < to && edges.includes(text[from]!)) from++
  while (to > from && edges.includes(text[to - 1]!)) to--
  return text.slice(from, to)
}
