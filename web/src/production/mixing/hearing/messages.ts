import type { MixPlan } from '@core/mix/plan'

/** A file as it is decoded for a mix. */
export interface HeardFile {
  channels: 1 | 2
  framesAddress: string
}

/** What the worker that mixes is asked for; each turn takes the place of the one before. */
export type MixerRequest =
  | { port: MessagePort }
  | { turn: number; plan: MixPlan; files: Readonly<Record<string, HeardFile>>; from: number }
  | { stop: true }

/** What the worker says of a turn that cannot go on. */
export interface MixerFailure {
  turn: number
  failed: true
}

/** Sound on its way from the worker to the thread that plays it: interleaved frames in order, or that no more come. */
export type QueueMessage =
  | { turn: number; sound: Float32Array<ArrayBuffer> }
  | { turn: number; isEnd: true }

/** What the playing thread says: to the worker how much it has played of a turn, to the window where that is in the mix. */
export interface Played {
  turn: number
  frames: number
  isEnded: boolean
}
