import { fold } from '../words/fold'

/** A word of a text as it is looked for, and where in the text it stands. */
export interface Token {
  word: string
  from: number
  to: number
}

const words = /[\p{L}\p{N}\p{M}]+/gu
/** Writings that put no space between words: there every two letters beside each other count as a word. */
const unspaced =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u

/** The words of a text, without case and accents. */
export function tokensOf(text: string): Token[] {
  const found: Token[] = []
  for (const { 0: run, index } of text.matchAll(words)) {
    if (!unspaced.test(run)) {
      const word = fold(run)
      if (word) found.push({ word, from: index, to: index + run.length })
      continue
    }
    const letters = [...run]
    let from = index
    for (const [at, letter] of letters.entries()) {
      const pair = letter + (letters[at + 1] ?? '')
      const word = fold(pair)
      if (word) found.push({ word, from, to: from + pair.length })
      from += letter.length
    }
  }
  return found
}

/** The length up to which a full-text index tells words apart (MariaDB, innodb_ft_max_token_size: 84), less what stands before each. */
const mostIndexed = 70

/**
 * A word as it stands in an index of ASCII letters, digits and low lines, so that every writing is found alike: another letter is
 * its code. What a word begins with, its index word begins with, too.
 */
export const indexed = (word: string): string =>
  word.replace(/[^a-z0-9]/g, unit => `_${unit.charCodeAt(0).toString(16).padStart(4, '0')}`).slice(0, mostIndexed)
