/** Words that InnoDB's full text leaves out (its default list), and so cannot find. */
const leftOut = new Set(
  'a about an are as at be by com de en for from how i in is it la of on or that the this to was what when where who will with und www'.split(
    ' ',
  ),
)
const [shortest, longest] = [3, 80]
/** Scripts that do not set words apart: full text takes a whole sentence for one word. */
const unspaced = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}]/u

/**
 * What is looked for, told apart by how a database finds it: the beginnings of words, for its full text, and pieces that have
 * to be looked for letter by letter. Signs count only where there is nothing else.
 */
export function readSearch(asked: string): { beginnings: string[]; pieces: string[] } {
  const words = [
    ...new Set(asked.toLowerCase().match(/[\p{L}\p{M}\p{N}_]+/gu) ?? asked.trim().split(/\s+/).filter(Boolean)),
  ]
  const isBeginning = (word: string): boolean =>
    /^[\p{L}\p{M}\p{N}]+$/u.test(word) &&
    word.length >= shortest &&
    word.length <= longest &&
    !leftOut.has(word) &&
    !unspaced.test(word)
  return { beginnings: words.filter(isBeginning), pieces: words.filter(word => !isBeginning(word)) }
}
