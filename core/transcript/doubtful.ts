import type { Cue } from './cue'

/** Words that somebody should look at, and where they begin in their cue's text. */
export interface DoubtfulWords {
  words: string
  at: number
}

type Said = Pick<Cue, 'text' | 'doubtful'>

/** The words of a cue that the machine was not sure of and that still stand there; what was written over is no longer doubtful. */
export function doubtfulWords({ text, doubtful = [] }: Said): DoubtfulWords[] {
  const found: DoubtfulWords[] = []
  let from = 0
  for (const words of doubtful) {
    const at = placeOf(text, words, from)
    if (at < 0) continue
    found.push({ words, at })
    from = at + words.length
  }
  return found
}

/** Where words stand by themselves, and not inside others. */
function placeOf(text: string, words: string, from: number): number {
  for (let at = text.indexOf(words, from); at >= 0; at = text.indexOf(words, at + 1)) {
    const [before, behind] = [text[at - 1] ?? '', text[at + words.length] ?? '']
    if (!letter.test(before) && !letter.test(behind)) return at
  }
  return -1
}
const letter = /[\p{L}\p{N}]/u

/** Whether the machine was not sure of when a cue is said, and nobody has looked yet. */
export const isTimeDoubtful = ({ sure }: Pick<Cue, 'sure'>): boolean => sure !== undefined && sure < leastSure
const leastSure = 0.5

/** The same, of when or what it says. */
export const isDoubtful = (cue: Said & Pick<Cue, 'sure'>): boolean =>
  isTimeDoubtful(cue) || doubtfulWords(cue).length > 0

/** Of a time that is only estimated nobody is surer than that. */
export const estimatedSure = 0.2

/**
 * What there is to say of a transcript that was laid over a sound as a whole: that its times are only estimated, or that so
 * little of it is sure that it may be of something else; null where all is well, or only some of it is not.
 */
export function judgementOf(cues: readonly Pick<Cue, 'sure'>[]): 'estimated' | 'of something else' | null {
  const aligned = cues.filter(({ sure }) => sure !== undefined)
  if (aligned.length < cues.length / 2 || aligned.length === 0) return null
  if (aligned.every(({ sure }) => sure === estimatedSure)) return 'estimated'
  return aligned.filter(isTimeDoubtful).length > aligned.length / 2 ? 'of something else' : null
}

/** A place in a transcript that somebody should look at: words in a cue, or all of it where `length` is 0. */
export interface DoubtfulPlace {
  index: number
  at: number
  length: number
}

/** All places of a transcript that somebody should look at, in their order. */
export const doubtfulPlaces = (cues: readonly Cue[]): DoubtfulPlace[] =>
  cues.flatMap((cue, index) => [
    ...(isTimeDoubtful(cue) ? [{ index, at: 0, length: 0 }] : []),
    ...(cue.doubtful ? doubtfulWords(cue).map(({ words, at }) => ({ index, at, length: words.length })) : []),
  ])

/** The first of some places behind where somebody is; the first of all where none is. */
export const placeAfter = (
  places: readonly DoubtfulPlace[],
  { index, at }: { index: number; at: number },
): DoubtfulPlace | undefined =>
  places.find(each => each.index > index || (each.index === index && each.at >= at)) ?? places[0]

/** What is doubtful in a cue once the words at a place are right as they stand. */
export function accepted(cue: Cue, at: number): Pick<Cue, 'doubtful'> {
  const left = doubtfulWords(cue).filter(each => each.at !== at)
  return { doubtful: left.length > 0 ? left.map(({ words }) => words) : undefined }
}
