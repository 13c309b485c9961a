import { fold } from '../words/fold'

/** A word of a text as it is looked for, and where in the text it stands. */
export interface Token {
  word: string
  from: number
  to: number
  /** The same without what its writing puts before a word. */
  bare?: readonly string[]
}

/** An emoji: a flag, or a picture, with how it is drawn and those that are joined to it (UTS 51, section 1.4, from memory). */
const emoji =
  /\p{Regional_Indicator}{2}|(?:\p{Emoji_Presentation}|\p{Emoji}\ufe0f)\p{Emoji_Modifier}?(?:\u200d\p{Emoji}[\ufe0f\p{Emoji_Modifier}]*)*/u
const words = new RegExp(`[\\p{L}\\p{N}\\p{M}]+|${emoji.source}`, 'gu')
/** Writings that put no space between words: there every two letters beside each other count as a word. */
const unspaced =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u
/** How an emoji is to be drawn, and the colour of a skin. */
const drawn = /[\ufe0e\ufe0f\u{1f3fb}-\u{1f3ff}]/gu

/** The words of a text, without case and accents. */
export function tokensOf(text: string): Token[] {
  return runsIn(text).flatMap(({ run, from }) => (unspaced.test(run) ? pairsIn(run, from) : tokenOf(run, from)))
}

/** The same of what somebody looks for: writings without spaces are told apart into words, and no pair reaches from one into the next. */
export function askedTokens(asked: string): Token[] {
  const found = runsIn(asked).flatMap(({ run, from }) => {
    if (!unspaced.test(run)) return tokenOf(run, from)
    return [...segmenter.segment(run)].flatMap(({ segment, index }) => {
      const pairs = pairsIn(segment, from + index)
      return pairs.length > 1 ? pairs.slice(0, -1) : pairs
    })
  })
  // A sign alone, such as a particle, tells nothing beside words.
  const isSign = ({ word }: Token): boolean => unspaced.test(word) && [...word].length === 1
  return found.every(isSign) ? found : found.filter(token => !isSign(token))
}
const segmenter = new Intl.Segmenter(undefined, { granularity: 'word' })

const runsIn = (text: string): { run: string; from: number }[] =>
  [...text.matchAll(words)].map(({ 0: run, index: from }) => ({ run, from }))

function tokenOf(run: string, from: number): Token[] {
  const word = fold(run.replace(drawn, ''))
  const bare = withoutProclitics(word)
  return word ? [{ word, from, to: from + run.length, ...(bare.length > 0 && { bare }) }] : []
}

/** Every two letters of a run, and its last one. */
function pairsIn(run: string, begin: number): Token[] {
  const letters = [...run]
  let from = begin
  return letters.flatMap((letter, at) => {
    const pair = letter + (letters[at + 1] ?? '')
    const word = fold(pair)
    const token = { word, from, to: from + pair.length }
    from += letter.length
    return word ? [token] : []
  })
}

/** Of a word in Hebrew the letters that are written before it: and, the, in, to, as, from, that. */
const hebrew = /^[והבלכמש]{1,3}(?=\p{Script=Hebrew}{3})/u
/** Of a word in Arabic the article, what is written before that, and what stands for “and” (light10: Larkey, Ballesteros and Connell 2002, from memory). */
const arabic = /^(?:[وبكف]?ال|لل|و)(?=\p{Script=Arabic}{3})/u

/** A word without the little words that Hebrew and Arabic put before it in one: nobody can tell which are, so without each. */
function withoutProclitics(word: string): string[] {
  const letters = hebrew.exec(word)?.[0].length ?? 0
  const article = arabic.exec(word)?.[0].length ?? 0
  return [
    ...Array.from({ length: letters }, (_each, at) => word.slice(at + 1)),
    ...(article ? [word.slice(article)] : []),
  ]
}

/** The length up to which a full-text index tells words apart (MariaDB, innodb_ft_max_token_size: 84), less what stands before each. */
const mostIndexed = 70

/**
 * A word as it stands in an index of ASCII letters, digits and low lines, so that every writing is found alike: another letter is
 * its code. What a word begins with, its index word begins with, too.
 */
export const indexed = (word: string): string =>
  word.replace(/[^a-z0-9]/g, unit => `_${unit.charCodeAt(0).toString(16).padStart(4, '0')}`).slice(0, mostIndexed)

/** All that a word of a text stands under in the index. */
export const indexedWords = ({ word, bare = [] }: Token): string[] => [word, ...bare].map(indexed)
