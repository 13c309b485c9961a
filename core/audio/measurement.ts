/** A stretch of time in a sound. */
export interface Stretch {
  fromMs: number
  toMs: number
}

/** What one pass over decoded sound finds. A level is null where there is nothing but silence, or too little to tell. */
export interface Measurement {
  durationMs: number
  sampleRateHz: number
  channels: number
  integratedLufs: number | null
  rangeLu: number
  momentaryMaxLufs: number | null
  shortTermMaxLufs: number | null
  truePeakDbtp: number | null
  samplePeakDbfs: number | null
  /** Places with flat tops at full scale, drawn together where they lie close; the first 200. */
  clips: Stretch[]
  /** How many such places there are in all. */
  clipCount: number
  headSilenceMs: number
  tailSilenceMs: number
  /** Where what was decoded could not be sound, and is left out; absent where it was measured before this was looked for. */
  damaged?: Stretch[]
  /** Silences within, of at least 3 s; the first 100. */
  gaps: Stretch[]
  /** `antiphase`: one side is the other one turned over, so that mixed they cancel each other. */
  image: 'mono' | 'stereo' | 'dual mono' | 'one side only' | 'antiphase' | 'surround'
}
