import type { Field } from './field'
import { differingFields, type EpisodeField, type EpisodeText, fields } from './fields'
import { mergeTexts } from './merge'

/** One thing that was done to a text, which can be undone and done again. */
export interface Stroke {
  before: EpisodeText
  after: EpisodeText
  fields: EpisodeField[]
  /** When it was done last, and first. */
  atMs: number
  fromMs: number
}

/** Typing in one field within such pauses is one stroke, up to a length. */
const pauseMs = 900
const longestMs = 6_000
const mostStrokes = 300

/** Adds what was done just now to the strokes before; typing that goes on becomes part of the last one. */
export function withStroke(
  strokes: readonly Stroke[],
  before: EpisodeText,
  after: EpisodeText,
  atMs: number,
): readonly Stroke[] {
  const changed = differingFields(before, after)
  const last = strokes.at(-1)
  if (changed.length === 0) return strokes
  const goesOn =
    last &&
    changed.length === 1 &&
    last.fields.length === 1 &&
    last.fields[0] === changed[0] &&
    isTyping(changed[0]!, before, after) &&
    isTyping(changed[0]!, last.before, last.after) &&
    atMs - last.atMs < pauseMs &&
    atMs - last.fromMs < longestMs
  return goesOn
    ? [...strokes.slice(0, -1), { ...last, after, atMs }]
    : [...strokes, { before, after, fields: changed, atMs, fromMs: atMs }].slice(-mostStrokes)
}

/** Adding and taking away are strokes of their own. */
const isTyping = (name: EpisodeField, before: EpisodeText, after: EpisodeText): boolean =>
  (fields[name] as Field).hasAsMany(before[name], after[name])

/** A text with a stroke undone; what somebody else has written since stays. */
export const undone = (text: EpisodeText, { before, after }: Stroke): EpisodeText => moved(text, after, before)
/** A text with a stroke done again; what somebody else has written since stays. */
export const doneAgain = (text: EpisodeText, { before, after }: Stroke): EpisodeText => moved(text, before, after)

function moved(text: EpisodeText, from: EpisodeText, to: EpisodeText): EpisodeText {
  const merge = mergeTexts(from, to, text)
  return { ...text, ...merge.mine }
}
