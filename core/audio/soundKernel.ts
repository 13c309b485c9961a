import bytes from './kernel/sound.as'
import { truePeakFilter } from './truePeakFilter'

/** The inner loops of meter and limiter on memory of their own. Frames are counted from the block's first; channels are 1 or 2. */
export interface SoundKernel {
  /** Interleaved sound: a margin of 8 frames, the block, a margin of 8 frames. */
  sound: Float32Array
  /** For each window of 64 frames: lowest left, lowest right, highest left, highest right; for mono the two sides are any. */
  extremes: Float32Array
  /** For each frame of the block the largest magnitude at it and up to the next one; `peaksOf` writes them. */
  peaks: Float32Array
  weighting: Float64Array
  energy(from: number, to: number, channels: number): number
  scan(frames: number, channels: number): void
  truePeak(frames: number, channels: number, known: number, bound: number): number
  peaksOf(from: number, to: number, channels: number): void
  sidesDiffer(frames: number, most: number): number
  common(frames: number): number
  power(frames: number, channels: number): number
}

export const marginFrames = 8
export const blockFrames = 8192
export const windowFrames = 64

const compiled = new WebAssembly.Module(bytes)

/** A kernel with a state of its own, for one sound; it knows the filter for values between samples. */
export function soundKernel(): SoundKernel {
  const { exports } = new WebAssembly.Instance(compiled)
  const { memory, soundAt, extremesAt, peaksAt, filterAt, weightingAt, ...loops } = exports as unknown as SoundKernel &
    Record<'soundAt' | 'extremesAt' | 'peaksAt' | 'filterAt' | 'weightingAt', () => number> & {
      memory: WebAssembly.Memory
    }
  new Float32Array(memory.buffer, filterAt(), truePeakFilter.length).set(truePeakFilter)
  return {
    ...loops,
    sound: new Float32Array(memory.buffer, soundAt(), (blockFrames + 2 * marginFrames) * 2),
    extremes: new Float32Array(memory.buffer, extremesAt(), (blockFrames / windowFrames) * 4),
    peaks: new Float32Array(memory.buffer, peaksAt(), blockFrames),
    weighting: new Float64Array(memory.buffer, weightingAt(), 7),
  }
}
