/** A file as it is decoded for a mix. */
export interface HeardFile {
  channels: 1 | 2
  durationMs: number
  framesAddress: string
}

/** A mix that is to be heard from a moment on; each turn takes the place of the one before. */
export interface Turn {
  turn: number
  /** The document as JSON: a window’s own objects cannot be sent as they are. */
  mix: string
  files: Readonly<Record<string, HeardFile>>
  sampleRateHz: number
  fromMs: number
}

/** What the worker that mixes is asked for. */
export type MixerRequest = { port: MessagePort } | Turn

/** What the worker says of a turn that cannot go on. */
export interface MixerFailure {
  turn: number
  failed: true
}

/** Where a turn begins: once so many frames of the one before were heard, or there are no more of them. */
export interface TurnBegins {
  turn: number
  afterFrames: number
}

/** Sound on its way from the worker to the thread that plays it: interleaved frames in order, or that no more come. */
export type QueueMessage = { turn: number; sound: Float32Array<ArrayBuffer> } | { turn: number; isEnd: true }

/** What the playing thread says: to the worker how much it has played of a turn, to the window where that is in the mix. */
export interface Played {
  turn: number
  frames: number
  isEnded: boolean
}
