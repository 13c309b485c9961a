import { diffArrays } from 'diff'

/** A piece of two texts that are compared: in both, only in the earlier one, only in the later one. */
export interface Piece {
  words: string
  in: 'both' | 'earlier' | 'later'
}

const words = new Intl.Segmenter('en', { granularity: 'word' })
/** Where texts are so far apart that a comparison takes long, they are told as wholes. */
const longestMs = 400

/** Compares two texts word by word (UAX 29), so that it also works where words are not set apart by spaces. */
export function compareWords(earlier: string, later: string): Piece[] {
  const parts = diffArrays(segments(earlier), segments(later), { timeout: longestMs }) ?? [
    { value: [earlier], added: false, removed: true },
    { value: [later], added: true, removed: false },
  ]
  return parts
    .map(({ value, added, removed }) => ({
      words: value.join(''),
      in: added ? ('later' as const) : removed ? ('earlier' as const) : ('both' as const),
    }))
    .filter(piece => piece.words !== '')
}

/** Segments carry their whole input with them, so a long text goes through in small pieces. */
const segments = (text: string): string[] =>
  (text.match(/\s+|\S{1,500}/gu) ?? []).flatMap(run => Array.from(words.segment(run), ({ segment }) => segment))
