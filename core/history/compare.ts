import { diffArrays } from 'diff'

/** A piece of two texts that are compared: in both, only in the earlier one, only in the later one. */
export interface Piece {
  words: string
  in: 'both' | 'earlier' | 'later'
}

const words = new Intl.Segmenter('en', { granularity: 'word' })
/** A comparison takes as many steps as there are words times changes: where texts are so far apart that these are more, they are told as wholes. */
const mostSteps = 4_000_000

/** Compares two texts word by word (UAX 29), so that it also works where words are not set apart by spaces. */
export function compareWords(earlier: string, later: string): Piece[] {
  const [before, after] = [segments(earlier), segments(later)]
  const maxEditLength = Math.ceil(mostSteps / (before.length + after.length + 1))
  const parts = diffArrays(before, after, { maxEditLength }) ?? [
    { value: [earlier], added: false, removed: true },
    { value: [later], added: true, removed: false },
  ]
  const pieces = parts.map(({ value, added, removed }) => ({
    words: value.join(''),
    in: added ? ('later' as const) : removed ? ('earlier' as const) : ('both' as const),
  }))
  return readable(pieces)
}

/**
 * What both have is told as such only where it is longer than what changed around it: single words that both happen to have
 * would make a patchwork of two texts that say different things.
 */
function readable(pieces: readonly Piece[]): Piece[] {
  const told: Piece[] = []
  let [gone, come] = ['', '']
  const tellChange = (): void => {
    if (gone) told.push({ words: gone, in: 'earlier' })
    if (come) told.push({ words: come, in: 'later' })
    gone = come = ''
  }
  pieces.forEach((piece, at) => {
    if (piece.in === 'earlier') gone += piece.words
    else if (piece.in === 'later') come += piece.words
    else if ((gone || come) && isLost(piece.words, Math.max(gone.length, come.length), changeFrom(pieces, at + 1))) {
      gone += piece.words
      come += piece.words
    } else {
      tellChange()
      told.push(piece)
    }
  })
  tellChange()
  return told
}

const isLost = (words: string, before: number, after: number): boolean => words.length < Math.min(before, after)

/** How long the change is that begins at a piece. */
function changeFrom(pieces: readonly Piece[], from: number): number {
  const change = pieces.slice(from, from + 2).filter(piece => piece.in !== 'both')
  return Math.max(0, ...change.map(({ words }) => words.length))
}

/** Segments carry their whole input with them, so a long text goes through in small pieces. */
const segments = (text: string): string[] =>
  (text.match(/\s+|\S{1,500}/gu) ?? []).flatMap(run => Array.from(words.segment(run), ({ segment }) => segment))
