/** Samples in the finest stretch that is ever drawn. */
export const finestStretch = 64
const mostStretches = 131_072
const levelFactor = 4
const coarsestStretches = 512
const magic = 0x4c4c5731 // "LLW1"
const headerBytes = 24

/** A waveform at one fineness: lowest and highest value of each stretch in turn, −127 to 127. */
export interface Level {
  stretchMs: number
  pairs: Int8Array
}

/** A waveform as it is drawn at any zoom, finest level first, and the short-term loudness of each second in LUFS. */
export interface Pyramid {
  durationMs: number
  levels: readonly Level[]
  curveLufs: readonly number[]
}

/**
 * Draws a waveform as it comes in, without knowing its length ahead: when the finest level is full, two and two of its
 * stretches become one. At most 131,072 stretches, so with all coarser levels under 400 KB.
 */
export class PyramidBuilder {
  private readonly pairs = new Int8Array(mostStretches * 2)
  private stretches = 0
  private partsPerStretch = 1
  private parts = 0
  private low = 0
  private high = 0

  /** The next stretch of `finestStretch` samples (the last may be shorter), by its lowest and highest sample. */
  add(low: number, high: number): void {
    if (low < this.low) this.low = low
    if (high > this.high) this.high = high
    if (++this.parts === this.partsPerStretch) this.close()
  }

  /** The pyramid as bytes; `readPyramid` reads them. */
  finish(samples: number, sampleRateHz: number, curveLufs: readonly number[]): Uint8Array {
    if (this.parts > 0) this.close()
    const levels: Int8Array[] = [this.pairs.slice(0, this.stretches * 2)]
    while (levels.at(-1)!.length / 2 > coarsestStretches) levels.push(coarser(levels.at(-1)!))
    const bytes = new Uint8Array(
      headerBytes + levels.reduce((sum, level) => sum + level.length, 0) + curveLufs.length * 2,
    )
    const view = new DataView(bytes.buffer)
    view.setUint32(0, magic)
    view.setUint32(4, this.partsPerStretch * finestStretch)
    view.setFloat64(8, samples)
    view.setUint32(16, sampleRateHz)
    view.setUint32(20, this.stretches)
    let at = headerBytes
    for (const level of levels) {
      bytes.set(new Uint8Array(level.buffer, level.byteOffset, level.length), at)
      at += level.length
    }
    for (const lufs of curveLufs) {
      view.setInt16(at, Math.round(Math.max(lufs, -100) * 100))
      at += 2
    }
    return bytes
  }

  private close(): void {
    this.pairs[this.stretches * 2] = Math.round(Math.max(this.low, -1) * 127)
    this.pairs[this.stretches * 2 + 1] = Math.round(Math.min(this.high, 1) * 127)
    this.stretches++
    this.parts = 0
    this.low = 0
    this.high = 0
    if (this.stretches === mostStretches) this.halve()
  }

  private halve(): void {
    this.pairs.set(drawnTogether(this.pairs, 2))
    this.stretches /= 2
    this.partsPerStretch *= 2
  }
}

/** Reads what `PyramidBuilder` wrote. Throws a RangeError where it is something else. */
export function readPyramid(bytes: Uint8Array): Pyramid {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < headerBytes || view.getUint32(0) !== magic) throw new RangeError('These bytes are no waveform.')
  const sampleRateHz = view.getUint32(16)
  let stretchMs = (view.getUint32(4) / sampleRateHz) * 1000
  let stretches = view.getUint32(20)
  let at = headerBytes
  const levels: Level[] = []
  for (;;) {
    levels.push({ stretchMs, pairs: new Int8Array(bytes.buffer, bytes.byteOffset + at, stretches * 2) })
    at += stretches * 2
    if (stretches <= coarsestStretches) break
    stretches = Math.ceil(stretches / levelFactor)
    stretchMs *= levelFactor
  }
  const curveLufs: number[] = []
  for (; at + 1 < bytes.length; at += 2) curveLufs.push(view.getInt16(at) / 100)
  return { durationMs: (view.getFloat64(8) / sampleRateHz) * 1000, levels, curveLufs }
}

/**
 * Lowest and highest value for each of `columns` columns that a stretch of time is drawn in, from the coarsest level
 * that still has a stretch for each column.
 */
export function columnsOf({ levels }: Pyramid, fromMs: number, toMs: number, columns: number): Int8Array {
  const msPerColumn = (toMs - fromMs) / columns
  const level = levels.findLast(({ stretchMs }) => stretchMs <= msPerColumn) ?? levels[0]!
  const last = level.pairs.length / 2 - 1
  const drawn = new Int8Array(columns * 2)
  for (let column = 0; column < columns; column++) {
    const first = Math.floor((fromMs + column * msPerColumn) / level.stretchMs)
    const end = Math.max(first, Math.ceil((fromMs + (column + 1) * msPerColumn) / level.stretchMs) - 1)
    for (let i = Math.max(0, first); i <= Math.min(end, last); i++) {
      drawn[column * 2] = Math.min(drawn[column * 2]!, level.pairs[i * 2]!)
      drawn[column * 2 + 1] = Math.max(drawn[column * 2 + 1]!, level.pairs[i * 2 + 1]!)
    }
  }
  return drawn
}

/** How long a sound is listened to for one value of its curve (ITU-R BS.1771-1, short-term: a sliding window of 3 s). */
const curveWindowMs = 3000
const curveStepMs = 1000

/** The loudness curve over a stretch of time, a point in the middle of each window, one more at both ends if there is. */
export function curveOf({ curveLufs }: Pyramid, fromMs: number, toMs: number): { atMs: number; lufs: number }[] {
  const first = Math.max(0, Math.floor((fromMs - curveWindowMs / 2) / curveStepMs))
  const last = Math.ceil((toMs - curveWindowMs / 2) / curveStepMs)
  return curveLufs
    .slice(first, Math.max(first, last + 1))
    .map((lufs, index) => ({ atMs: (first + index) * curveStepMs + curveWindowMs / 2, lufs }))
}

const coarser = (pairs: Int8Array): Int8Array => drawnTogether(pairs, levelFactor)

function drawnTogether(pairs: Int8Array, count: number): Int8Array {
  const drawn = new Int8Array(Math.ceil(pairs.length / 2 / count) * 2)
  for (let i = 0; i < pairs.length / 2; i++) {
    const at = Math.floor(i / count) * 2
    drawn[at] = Math.min(drawn[at]!, pairs[i * 2]!)
    drawn[at + 1] = Math.max(drawn[at + 1]!, pairs[i * 2 + 1]!)
  }
  return drawn
}
