/** A stretch of what is said. */
export interface Cue {
  /** Tells it from the others of its transcript while all else changes. */
  id: string
  /** By the clock of the source; both null while nobody knows when it is said. */
  fromMs: number | null
  toMs: number | null
  speaker: string | null
  /** As it is read: its lines apart by line breaks, without markup. */
  text: string
  /** What only the format holds that it came in, and gives back when it is written again. */
  kept?: KeptOfCue
  /** How sure the machine is of when it is said, from 0 to 1; nothing where a person or a file has said it. */
  sure?: number
  /** Words, in their order, that the machine was not sure to have heard. */
  doubtful?: readonly string[]
  /** A person has said when it is said; laying does not move it. */
  isPinned?: boolean
}

export interface KeptOfCue {
  /** WebVTT: the line above the times. */
  name?: string
  /** WebVTT: what stands behind the times. */
  settings?: string
  /** The text as it is marked up in its format, and the text and speaker that this markup stands for. */
  marked?: { format: 'vtt' | 'srt'; source: string; text: string; speaker: string | null }
  /** WebVTT: comments that stand above it. */
  notes?: readonly string[]
}

/** What was said, in order, and what only its format holds. */
export interface Transcript {
  cues: Cue[]
  /** WebVTT: what stands behind the signature, blocks of styles and regions, and comments behind the last cue. */
  kept?: { head?: string; blocks?: readonly string[]; notes?: readonly string[] }
}

/** What was found or mended while a file was read, told to the person. */
export interface Reading {
  transcript: Transcript
  remarks: string[]
}

/** What is said of some of its parts, if there are any: a sentence for one, and what follows the number of several. */
export const remark = (count: number, one: string, more: string): string[] =>
  count === 0 ? [] : [count === 1 ? one : `${count.toLocaleString('en')} ${more}`]

/** A file is no transcript, and why. */
export class NoTranscript extends Error {}

export type TimedCue = Cue & { fromMs: number; toMs: number }
export const isTimed = (cue: Cue): cue is TimedCue => cue.fromMs !== null && cue.toMs !== null

/** Speech has some fifteen letters a second (common practice, no source). */
const millisecondsPerLetter = 66
/** About how long it takes to say something. */
export const timeToSay = (text: string): number => Math.max(1, text.length * millisecondsPerLetter)

/** As captions must stand in a file: those with times, by when they begin, and none that ends before (W3C WebVTT, 4.1). */
export const inOrder = (cues: readonly Cue[]): TimedCue[] =>
  cues
    .filter(isTimed)
    .toSorted((one, other) => one.fromMs - other.fromMs)
    .map(cue => (cue.toMs > cue.fromMs ? cue : { ...cue, toMs: cue.fromMs + timeToSay(cue.text) }))

/** How names of files end in which transcripts come. */
export const transcriptEndings = ['.vtt', '.srt', '.json', '.html', '.htm', '.txt', '.lrc', '.ass', '.ssa'] as const
/** Which of them a name has; null where it has none. */
export const transcriptEnding = (name: string): string | null =>
  transcriptEndings.find(ending => name.toLowerCase().endsWith(ending)) ?? null

export const mostCues = 50_000
export const longestSpeaker = 120
/** Of the words of a cue that a machine doubts. */
export const longestDoubt = 200
export const mostDoubts = 500
