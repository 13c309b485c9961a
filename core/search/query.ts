import { askedTokens, type Token, tokensOf } from './tokens'

/** So many letters are looked for at most, and so many words. */
export const mostSearchLetters = 200
const mostWords = 12

/** What somebody looks for. */
export interface Query {
  /** Each once. */
  words: readonly string[]
  /** Words that stand one behind the other: what was put between quotation marks. */
  phrases: readonly (readonly string[])[]
}

const quoted = /["“”„«»]([^"“”„«»]*)["“”„«»]/gu

/** Reads what was typed. Signs other than quotation marks mean nothing. */
export function readQuery(asked: string): Query {
  const kept = asked.slice(0, mostSearchLetters)
  const words = [...new Set(askedTokens(kept).map(({ word }) => word))].slice(0, mostWords)
  const phrases = [...kept.matchAll(quoted)].map(([, inside]) => phraseOf(inside!)).filter(({ length }) => length > 1)
  return { words, phrases }
}

/** Words in their order; of a writing without spaces each pair of letters, as a text has them. */
const phraseOf = (inside: string): string[] =>
  tokensOf(inside)
    .filter(({ from, to }, at, all) => at === 0 || from >= all[at - 1]!.to || to > all[at - 1]!.to)
    .map(({ word }) => word)

/** Words this long are found by how they begin: `reed` finds `reeds`. */
const longestExact = 2
export const isMeant = ({ word, bare = [] }: Token, wanted: string): boolean =>
  [word, ...bare].some(each => (wanted.length > longestExact ? each.startsWith(wanted) : each === wanted))
const isExactly = ({ word, bare = [] }: Token, wanted: string): boolean => word === wanted || bare.includes(wanted)
export const takesBeginnings = (word: string): boolean => word.length > longestExact || /[^a-z0-9]/.test(word)

/** Whether a text has every phrase of a query; the last word of each may go on. */
export function hasPhrases(tokens: readonly Token[], { phrases }: Query): boolean {
  return phrases.every(phrase =>
    tokens.some((_token, at) =>
      phrase.every((word, step) => {
        const there = tokens[at + step]
        return there !== undefined && (step === phrase.length - 1 ? isMeant(there, word) : isExactly(there, word))
      }),
    ),
  )
}
