import type { FinishPlan } from '@core/audio/finisher'
import type { Measurement } from '@core/audio/measurement'
import type { Source } from './decoder'

/** What a sound worker can be asked to do. */
export type SoundTask =
  /** Measures a source, or what a plan without limiting and gain makes of it. */
  | { kind: 'measure'; source: Source; plan: FinishPlan | null; expectedMs: number }
  /** Turns a source into a file by a plan; `encoding` are ffmpeg's parameters for the output. */
  | { kind: 'finish'; source: Source; plan: FinishPlan; encoding: string[]; path: string; expectedMs: number }

export interface Measured { measurement: Measurement; waveform: Uint8Array }
export interface Finished { limitedByDb: number; /** Deepest levelling in each tenth of a second, in dB. */ reductionsDb: number[] }

export type SoundAnswer<T extends SoundTask> = T['kind'] extends 'measure' ? Measured : Finished

/** What a worker says: how far it is, or what came of it. */
export type SoundNews = { progress: number } | { answer: Measured | Finished } | { failure: string }
