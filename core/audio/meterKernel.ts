import bytes from './kernel/meter.as'

/** The meter's inner loops on memory of their own. Frames are counted from the block's first; channels are 1 or 2. */
export interface MeterKernel {
  /** Interleaved sound: a margin of 8 frames, the block, a margin of 8 frames. */
  sound: Float32Array
  /** For each window of 64 frames: lowest left, lowest right, highest left, highest right; for mono the two sides are any. */
  extremes: Float32Array
  filter: Float32Array
  weighting: Float64Array
  energy(from: number, to: number, channels: number): number
  scan(frames: number, channels: number): void
  truePeak(frames: number, channels: number, known: number, bound: number): number
  sidesDiffer(frames: number, most: number): number
}

export const marginFrames = 8
export const blockFrames = 8192
export const windowFrames = 64

const compiled = new WebAssembly.Module(bytes)

/** A kernel with a state of its own, for one sound. */
export function meterKernel(): MeterKernel {
  const { exports } = new WebAssembly.Instance(compiled)
  const { memory, soundAt, extremesAt, filterAt, weightingAt, ...loops } = exports as unknown as
    MeterKernel & Record<'soundAt' | 'extremesAt' | 'filterAt' | 'weightingAt', () => number> & { memory: WebAssembly.Memory }
  return {
    ...loops,
    sound: new Float32Array(memory.buffer, soundAt(), (blockFrames + 2 * marginFrames) * 2),
    extremes: new Float32Array(memory.buffer, extremesAt(), (blockFrames / windowFrames) * 4),
    filter: new Float32Array(memory.buffer, filterAt(), 48),
    weighting: new Float64Array(memory.buffer, weightingAt(), 7),
  }
}
