import type { MessagePort } from 'node:worker_threads'
import type { Measurement } from '@core/audio/measurement'
import type { Recipe } from '@core/audio/recipe'
import type { Aligned } from '@core/transcript/alignment/forcedAlignment'
import type { Source, SourceFiles } from './source'
import type { AudioFacts } from './reading'
import type { Refusal } from '../../platform/refusal'

/** What a sound worker can be asked to do. */
export type SoundTask =
  /** Finds out what a file is. */
  | { kind: 'read'; path: string }
  | { kind: 'measure'; source: Source; expectedMs: number }
  /** Turns a measured source into an encoded file in a folder by a recipe, without tags. */
  | {
      kind: 'finish'
      source: SourceFiles & { channels: number }
      measurement: Measurement
      recipe: Recipe
      folder: string
    }
  /** Finds where each part of a script is said; the spoken script lies in the folder meanwhile. */
  | { kind: 'align'; source: Source; expectedMs: number; script: Script; folder: string }

/** A script that is laid over a sound: what is said in each of its parts, by whom, and when, where somebody has said that. */
export interface Script {
  texts: readonly string[]
  speakers: readonly (string | null)[]
  pinnedMs: readonly (number | null)[]
  /** The voice that speaks it; null where none speaks its language. */
  voice: string | null
}

export interface Measured {
  measurement: Measurement
  waveform: Uint8Array
}

/** What was done to a sound, as it is told beside the finished file. */
export interface FinishReport {
  gainDb: number
  limitedByDb: number
  /** Deepest levelling in equal stretches of the whole, at most 600 of them, in dB. */
  reductionsDb: number[]
  /** LU over the target, or under it where negative: what could not be had under the ceiling. */
  missedByLu: number
}

/** A finished sound, the name of its file in the folder, and what was measured behind the encoder. */
export interface Finished extends Measured {
  name: string
  report: FinishReport
}

interface Answers {
  read: AudioFacts
  measure: Measured
  align: Aligned[]
  finish: Finished
}
export type SoundAnswer<T extends SoundTask> = Answers[T['kind']]

/** What a thread is given: a task, and where it tells how far it is, between 0 and 1. */
export interface SoundOrder {
  task: SoundTask
  far: MessagePort
}

/** What a thread says in the end; a refusal is a person’s to mend. */
export type SoundSaid =
  { answer: Answers[keyof Answers] } | { refusal: Pick<Refusal, 'title' | 'detail' | 'todo'> } | { failure: string }
