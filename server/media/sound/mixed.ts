import type { MixDocument } from '@core/mix/document'
import { layoutOf } from '@core/mix/layout'
import { planOf, type Segment } from '@core/mix/plan'
import { MixRenderer, type Need } from '@core/mix/renderer'
import { decoded, type FileSource, type Rendering } from './decoder'

/** A file that a mix is put together of. */
export interface MixedFile extends Pick<FileSource, 'path' | 'junkBytes'> {
  channels: number
  durationMs: number
}

/** A mix with the files that it names, by their ids, and what it is rendered to. */
export interface MixSource extends Rendering {
  mix: MixDocument
  files: Readonly<Record<string, MixedFile>>
}

/** So many frames are rendered at once. */
const blockFrames = 16_384
/** A segment that is about to end is read to its end at once, where another goes on behind it in the same file. */
const mostRest = 8_192
/** Decoders that wait for what comes later of their files. */
const mostWaiting = 8

/** Interleaved frames of a mix, rendered while its files are decoded side by side: as much of them is in memory as is being heard. */
export async function* mixed({ mix, files, ...rendering }: MixSource): AsyncGenerator<Float32Array> {
  const lengthOf = (fileId: string): number => files[fileId]!.durationMs
  const { sampleRateHz } = rendering
  const channels = rendering.channels === 1 ? 1 : 2
  const plan = planOf(layoutOf(mix, lengthOf), { sampleRateHz, channels }, lengthOf)
  const renderer = new MixRenderer(plan)
  const tapes = new Tapes(plan.segments, fileId => new Tape(fileId, files[fileId]!, { ...rendering, channels }))
  try {
    while (!renderer.isAtEnd) {
      const sounds = await Promise.all(renderer.needs(blockFrames).map(need => tapes.read(need)))
      yield renderer.render(blockFrames, sounds)
      await tapes.close('idle')
    }
  } finally {
    await tapes.close('all')
  }
}

/** A segment that is being read. */
interface Reading {
  tape: Tape
  /** What was read of it before its turn, as far as it has not been asked for. */
  rest: Promise<Float32Array> | null
  /** The next frame of its file. */
  at: number
  end: number
}

/** The decoders of a mix. One follows segment after segment of its file where these go forward, as they do where something was cut out. */
class Tapes {
  private readonly open = new Set<Tape>()
  private readonly readings = new Map<number, Reading>()

  /** Of each file the segments that have not begun. */
  private readonly ahead = new Map<string, Set<number>>()

  constructor(
    private readonly segments: readonly Segment[],
    private readonly openTape: (fileId: string) => Tape,
  ) {
    for (const [n, { fileId }] of segments.entries())
      this.ahead.set(fileId, (this.ahead.get(fileId) ?? new Set()).add(n))
  }

  /** The sound of what is needed. Of a segment it is asked for in order. */
  async read({ segment, fromFrame, frames }: Need): Promise<Float32Array> {
    const reading = this.readings.get(segment) ?? this.begin(segment)
    reading.at = fromFrame + frames
    if (reading.at >= reading.end) this.readings.delete(segment)
    if (!reading.rest) return reading.tape.take(fromFrame, frames)
    const rest = await reading.rest
    const values = frames * reading.tape.channels
    reading.rest = Promise.resolve(rest.subarray(values))
    return rest.subarray(0, values)
  }

  private begin(n: number): Reading {
    const { fileId, fromFrame, frames } = this.segments[n]!
    const tape = this.tapeFor(fileId, fromFrame)
    const reading = { tape, rest: null, at: fromFrame, end: fromFrame + frames }
    this.readings.set(n, reading)
    this.ahead.get(fileId)!.delete(n)
    return reading
  }

  /** One that can go on to a frame of a file, after what it is needed for yet; or a new one. */
  private tapeFor(fileId: string, frame: number): Tape {
    for (const tape of this.open) {
      if (tape.fileId !== fileId || !tape.reaches(frame)) continue
      const others = [...this.readings.values()].filter(other => other.tape === tape && !other.rest)
      if (others.some(({ at, end }) => end - at > mostRest)) continue
      for (const other of others) other.rest = tape.take(other.at, other.end - other.at)
      if (tape.reaches(frame)) return tape
    }
    const tape = this.openTape(fileId)
    this.open.add(tape)
    return tape
  }

  /** Ends decoders of which nothing is needed any more, and of those that wait the first of too many; or all. */
  async close(which: 'idle' | 'all'): Promise<void> {
    const busy = new Set([...this.readings.values()].map(({ tape }) => tape))
    const idle = [...this.open].filter(tape => !busy.has(tape))
    const waiting = idle.filter(tape =>
      [...this.ahead.get(tape.fileId)!].some(n => tape.reaches(this.segments[n]!.fromFrame)),
    )
    const kept = new Set(which === 'all' ? [] : [...busy, ...waiting.slice(-mostWaiting)])
    const ended = [...this.open].filter(tape => !kept.has(tape))
    for (const tape of ended) this.open.delete(tape)
    await Promise.all(ended.map(tape => tape.end()))
  }
}

/** Two that meet in a file may overlap by what rounding to frames comes to. */
const roundedFrames = 2

/** A file as it is decoded, forward only, with the channels of the mix. */
class Tape {
  readonly channels: 1 | 2
  private readonly chunks: AsyncGenerator<Float32Array>
  private readonly convert: (sound: Float32Array) => Float32Array
  /** Where it will be when all is taken that was asked for. */
  private at = 0
  private turn: Promise<unknown> = Promise.resolve()
  /** What was decoded last, and its first frame. */
  private last: Float32Array = new Float32Array()
  private lastFrom = 0

  constructor(
    readonly fileId: string,
    { channels, path, junkBytes }: MixedFile,
    { sampleRateHz, side, ...to }: Rendering & { channels: 1 | 2 },
  ) {
    this.channels = to.channels
    const own = channels === 1 ? 1 : 2
    this.convert = own === to.channels ? sound => sound : own === 1 ? onBothSides : inOne(side)
    this.chunks = decoded({ path, junkBytes, sampleRateHz, channels: own })
  }

  reaches(frame: number): boolean {
    return this.at - roundedFrames <= frame
  }

  /** Frames of the file; silence behind its end. */
  take(from: number, frames: number): Promise<Float32Array> {
    this.at = from + frames
    const taken = this.turn.then(() => this.read(from, frames))
    this.turn = taken.catch(() => undefined)
    return taken
  }

  private async read(from: number, frames: number): Promise<Float32Array> {
    const { channels } = this
    const sound = new Float32Array(frames * channels)
    for (;;) {
      const lastTo = this.lastFrom + this.last.length / channels
      const [first, end] = [Math.max(from, this.lastFrom), Math.min(from + frames, lastTo)]
      if (first < end)
        sound.set(
          this.last.subarray((first - this.lastFrom) * channels, (end - this.lastFrom) * channels),
          (first - from) * channels,
        )
      if (lastTo >= from + frames) return sound
      const next = await this.chunks.next()
      if (next.done) return sound
      this.last = this.convert(next.value)
      this.lastFrom = lastTo
    }
  }

  async end(): Promise<void> {
    await this.turn
    await this.chunks.return(undefined)
  }
}

const onBothSides = (sound: Float32Array): Float32Array => {
  const both = new Float32Array(sound.length * 2)
  for (const [i, value] of sound.entries()) both[2 * i] = both[2 * i + 1] = value
  return both
}

/** Both sides in one, or one of them. */
function inOne(side: Rendering['side']): (sound: Float32Array) => Float32Array {
  const [left, right] = side ? [Number(side === 'left'), Number(side === 'right')] : [0.5, 0.5]
  return sound => {
    const one = new Float32Array(sound.length / 2)
    for (let i = 0; i < one.length; i++) one[i] = left * sound[2 * i]! + right * sound[2 * i + 1]!
    return one
  }
}
