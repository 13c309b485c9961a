import type { Segment } from './plan'
import type { Need } from './renderer'

/** A file that is being decoded. */
export interface Decoding {
  /** Where its first frame lies in the file: no later than what was asked for. */
  fromFrame: number
  /** Interleaved frames by the clock and with the channels of the mix, in order and without gaps. */
  chunks: AsyncGenerator<Float32Array>
}

/** Begins to decode a file where a frame is, or before. */
export type OpenDecoder = (fileId: string, frame: number) => Decoding

/** A segment that is about to end is read to its end at once, where another goes on behind it in the same file. */
const mostRest = 8_192
/** Decoders that wait for what comes later of their files. */
const mostWaiting = 8

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
export class Tapes {
  private readonly open = new Set<Tape>()
  private readonly readings = new Map<number, Reading>()
  /** Of each file the segments that have not begun. */
  private readonly ahead = new Map<string, Set<number>>()

  /**
   * @param from the frame of the mix at which it begins
   * @param patienceFrames so long a decoder waits, and so much it skips; what lies farther off is opened anew
   */
  constructor(
    private readonly segments: readonly Segment[],
    private readonly openDecoder: OpenDecoder,
    private readonly channels: 1 | 2,
    from = 0,
    private readonly patienceFrames = Infinity,
  ) {
    for (const [n, { fileId, atFrame, frames }] of segments.entries())
      if (atFrame + frames > from) this.ahead.set(fileId, (this.ahead.get(fileId) ?? new Set()).add(n))
  }

  /** The sound of what is needed. Of a segment it is asked for in order. */
  async read({ segment, fromFrame, frames }: Need): Promise<Float32Array> {
    const reading = this.readings.get(segment) ?? this.begin(segment, fromFrame)
    reading.at = fromFrame + frames
    if (reading.at >= reading.end) this.readings.delete(segment)
    if (!reading.rest) return reading.tape.take(fromFrame, frames)
    const rest = await reading.rest
    const values = frames * this.channels
    reading.rest = Promise.resolve(rest.subarray(values))
    return rest.subarray(0, values)
  }

  private begin(n: number, at: number): Reading {
    const { fileId, fromFrame, frames } = this.segments[n]!
    const reading = { tape: this.tapeFor(fileId, at), rest: null, at, end: fromFrame + frames }
    this.readings.set(n, reading)
    this.ahead.get(fileId)!.delete(n)
    return reading
  }

  /** One that can go on to a frame of a file, after what it is needed for yet; or a new one. */
  private tapeFor(fileId: string, frame: number): Tape {
    for (const tape of this.open) {
      if (tape.fileId !== fileId || !tape.reaches(frame, this.patienceFrames)) continue
      const others = [...this.readings.values()].filter(other => other.tape === tape && !other.rest)
      if (others.some(({ at, end }) => end - at > mostRest)) continue
      for (const other of others) other.rest = tape.take(other.at, other.end - other.at)
      if (tape.reaches(frame, this.patienceFrames)) return tape
    }
    const tape = new Tape(fileId, this.openDecoder(fileId, frame), this.channels)
    this.open.add(tape)
    return tape
  }

  /** Ends decoders of which nothing is needed any more once the mix is at a frame, and of those that wait the first of too many. */
  async closeIdle(at: number): Promise<void> {
    const busy = new Set([...this.readings.values()].map(({ tape }) => tape))
    const waiting = [...this.open].filter(tape => !busy.has(tape) && this.isWaitedFor(tape, at))
    const kept = new Set([...busy, ...waiting.slice(-mostWaiting)])
    await this.end([...this.open].filter(tape => !kept.has(tape)))
  }

  close(): Promise<void> {
    return this.end([...this.open])
  }

  private isWaitedFor(tape: Tape, at: number): boolean {
    return [...this.ahead.get(tape.fileId)!].some(n => {
      const { fromFrame, atFrame } = this.segments[n]!
      return atFrame - at <= this.patienceFrames && tape.reaches(fromFrame, this.patienceFrames)
    })
  }

  private async end(tapes: readonly Tape[]): Promise<void> {
    for (const tape of tapes) this.open.delete(tape)
    await Promise.all(tapes.map(tape => tape.end()))
  }
}

/** Two that meet in a file may overlap by what rounding to frames comes to. */
const roundedFrames = 2

/** A file as it is decoded, forward only. */
class Tape {
  private readonly chunks: AsyncGenerator<Float32Array>
  /** Where it will be when all is taken that was asked for. */
  private at: number
  private turn: Promise<unknown> = Promise.resolve()
  /** What was decoded last, and its first frame. */
  private last = new Float32Array()
  private lastFrom: number

  constructor(
    readonly fileId: string,
    { fromFrame, chunks }: Decoding,
    private readonly channels: 1 | 2,
  ) {
    this.chunks = chunks
    this.at = this.lastFrom = fromFrame
  }

  reaches(frame: number, mostSkipped: number): boolean {
    return this.at - roundedFrames <= frame && frame - this.at <= mostSkipped
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
      this.last = next.value as Float32Array<ArrayBuffer>
      this.lastFrom = lastTo
    }
  }

  async end(): Promise<void> {
    await this.turn
    await this.chunks.return(undefined)
  }
}
