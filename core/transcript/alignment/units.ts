import { type Cue, isTimed } from '../cue'
import { longestLineLetters } from '../findings'

/** As much as two lines hold. */
const mostLetters = longestLineLetters * 2

/**
 * A script as cues that can be laid: sentences, those that no two lines hold in parts, each with who says it. A cue whose
 * time somebody has said stays as it is. `newId` makes keys for what comes of one cue beyond the first.
 */
export function unitsOf(cues: readonly Cue[], language: string, newId: () => string): Cue[] {
  const sentences = new Intl.Segmenter(language, { granularity: 'sentence' })
  return cues.flatMap(cue => {
    if (isTimed(cue)) return [cue]
    const parts = [...sentences.segment(cue.text.replace(/\s+/g, ' '))]
      .map(({ segment }) => segment.trim())
      .filter(Boolean)
      .flatMap(inTwoLines)
    // What its file kept of it belongs to its beginning.
    const { kept: _kept, ...bare } = cue
    return parts.map((text, at) => (at === 0 ? { ...cue, text } : { ...bare, id: newId(), text }))
  })
}

/** Parts of a sentence, cut at a comma or between words, about equally long. */
function inTwoLines(sentence: string): string[] {
  if (sentence.length <= mostLetters) return [sentence]
  const middle = sentence.length / 2
  const places = [...sentence.matchAll(/[,;:–—] | /g)].map(({ 0: found, index }) => ({
    at: index + found.length,
    // A comma is worth going some words out of the way for.
    far: Math.abs(index - middle) + (found.length > 1 ? 0 : mostLetters / 4),
  }))
  const best = places.reduce<(typeof places)[number] | null>(
    (least, place) => (least && least.far <= place.far ? least : place),
    null,
  )
  if (!best) return [sentence]
  return [sentence.slice(0, best.at), sentence.slice(best.at)].flatMap(part => inTwoLines(part.trim()))
}
