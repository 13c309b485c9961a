/** A stretch of time in a sound. */
export interface Stretch { fromMs: number; toMs: number }

/** What one pass over decoded sound finds. −Infinity stands for silence. */
export interface Measurement {
  durationMs: number
  sampleRateHz: number
  channels: number
  integratedLufs: number
  rangeLu: number
  momentaryMaxLufs: number
  shortTermMaxLufs: number
  truePeakDbtp: number
  samplePeakDbfs: number
  /** Places where samples stand at full scale in a row, drawn together where they lie close; the first 200. */
  clips: Stretch[]
  /** How many such places there are in all. */
  clipCount: number
  headSilenceMs: number
  tailSilenceMs: number
  /** Silences within, of at least 3 s; the first 100. */
  gaps: Stretch[]
  image: 'mono' | 'stereo' | 'dual mono' | 'one side only'
}
