import { amplitude } from '../audio/decibels'
import { fadeGain } from '../audio/fades'
import { Ducker } from './ducker'
import type { MixPlan, Ramp, Segment } from './plan'

/** What must be at hand of a file for the next frames of a mix. */
export interface Need {
  fileId: string
  /** The same for all that is needed for one segment, in order and without gaps: a decoder can follow it. */
  segment: number
  fromFrame: number
  frames: number
}

/** Silence where a file is shorter than was said. */
const nothing = new Float32Array()

/**
 * Renders a mix from one of its frames on, some frames at a time, in whatever portions: in a browser as on a server. Sound goes in as
 * interleaved frames by the clock and with the channels of the mix.
 */
export class MixRenderer {
  /** The next frame of the mix. */
  private at = 0
  /** The next frame of the pieces, of which as much is known before as beds look ahead. */
  private piecesAt = 0
  private readonly aheadFrames: number
  /** The pieces from `at` to `piecesAt`. */
  private pieces = new Float32Array()
  /** Segments that have begun and may not have ended, by their place in the plan, and the first that has not begun. */
  private open: number[] = []
  private next = 0
  private readonly beds: Bed[]

  constructor(
    private readonly plan: MixPlan,
    from = 0,
  ) {
    const aheadMs = Math.max(0, ...plan.beds.map(({ ducking }) => ducking?.lookaheadMs ?? 0))
    this.aheadFrames = Math.ceil((aheadMs / 1000) * plan.sampleRateHz)
    this.beds = plan.beds.map(bed => new Bed(bed, plan.sampleRateHz))
    this.goOnTo(from, from)
  }

  get isAtEnd(): boolean {
    return this.at >= this.plan.frames
  }

  /** What is needed to render so many frames. */
  needs(frames: number): Need[] {
    const { segments } = this.plan
    const pieces = this.ofPieces(frames)
    const beds = this.ofBeds(frames)
    const near = [...this.open]
    for (let n = this.next; n < segments.length && segments[n]!.atFrame < pieces[1]; n++) near.push(n)
    return near.flatMap(n => {
      const { fileId, fromFrame, atFrame, frames: whole, bed } = segments[n]!
      const [from, to] = bed === null ? pieces : beds
      const first = Math.max(from, atFrame)
      const end = Math.min(to, atFrame + whole)
      return first < end ? [{ fileId, segment: n, fromFrame: fromFrame + first - atFrame, frames: end - first }] : []
    })
  }

  /** Renders so many frames, fewer at the end, from what `needs` asked for, in that order; what is missing is silence. */
  render(frames: number, sounds: readonly Float32Array[]): Float32Array {
    const { channels } = this.plan
    const needs = this.needs(frames)
    const [, piecesTo] = this.ofPieces(frames)
    const [from, to] = this.ofBeds(frames)
    const pieces = new Float32Array((piecesTo - from) * channels)
    pieces.set(this.pieces)
    const beds = this.beds.map(() => null as Float32Array | null)
    for (const [n, need] of needs.entries()) {
      const segment = this.plan.segments[need.segment]!
      const sound = sounds[n] ?? nothing
      const at = segment.atFrame + need.fromFrame - segment.fromFrame
      if (segment.bed === null) addSegment(pieces, at - from, segment, need, sound, channels)
      else {
        const bed = (beds[segment.bed] ??= new Float32Array((to - from) * channels))
        addSegment(bed, at - from, segment, need, sound, channels)
      }
    }
    const out = pieces.slice(0, (to - from) * channels)
    for (const [n, bed] of this.beds.entries()) bed.addTo(out, from, beds[n]!, pieces, channels)
    this.goOnTo(to, piecesTo)
    this.pieces = pieces.slice((to - from) * channels)
    return out
  }

  private goOnTo(at: number, piecesAt: number): void {
    const { segments } = this.plan
    this.at = at
    this.piecesAt = piecesAt
    while (this.next < segments.length && segments[this.next]!.atFrame < piecesAt) this.open.push(this.next++)
    this.open = this.open.filter(n => {
      const { atFrame, frames, bed } = segments[n]!
      return atFrame + frames > (bed === null ? piecesAt : at)
    })
  }

  private ofBeds(frames: number): [from: number, to: number] {
    return [this.at, Math.min(this.at + frames, this.plan.frames)]
  }

  private ofPieces(frames: number): [from: number, to: number] {
    return [this.piecesAt, Math.max(this.piecesAt, Math.min(this.at + frames + this.aheadFrames, this.plan.frames))]
  }
}

/** Puts a segment into frames that begin at a place of the mix, with the gain and the fades of what it is of, and its joins. */
function addSegment(
  to: Float32Array,
  place: number,
  { fromFrame, atFrame, frames: length, joinIn, joinOut, whole }: Segment,
  need: Need,
  sound: Float32Array,
  channels: number,
): void {
  const frames = Math.min(need.frames, Math.floor(sound.length / channels))
  const begin = need.fromFrame - fromFrame
  const wholeBegin = begin + atFrame - whole.atFrame
  /** Frames from one to another, while something opens or closes. */
  const addFaded = (from: number, end: number): void => {
    for (let i = from; i < end; i++) {
      const factor =
        whole.gain *
        gainAt(begin + i, length, joinIn, joinOut) *
        gainAt(wholeBegin + i, whole.frames, whole.fadeIn, whole.fadeOut)
      for (let channel = 0; channel < channels; channel++)
        to[(place + i) * channels + channel]! += sound[i * channels + channel]! * factor
    }
  }
  const isOpenAt = Math.min(Math.max(joinIn.frames - begin, whole.fadeIn.frames - wholeBegin, 0), frames)
  const closing = Math.min(length - joinOut.frames - begin, whole.frames - whole.fadeOut.frames - wholeBegin)
  const closesAt = Math.min(Math.max(closing, isOpenAt), frames)
  addFaded(0, isOpenAt)
  for (let i = isOpenAt * channels; i < closesAt * channels; i++) to[place * channels + i]! += sound[i]! * whole.gain
  addFaded(closesAt, frames)
}

/** How far something is open at one of its frames, 0 to 1. */
function gainAt(frame: number, frames: number, opening: Ramp, closing: Ramp): number {
  let gain = 1
  if (frame < opening.frames) gain *= fadeGain((frame + 0.5) / opening.frames, opening.shape)
  if (frames - frame <= closing.frames) gain *= fadeGain((frames - frame - 0.5) / closing.frames, closing.shape)
  return gain
}

/** The line of a bed is worked out each so many frames; where it jumps it takes as long, and does not click. */
const lineFrames = 64

/** What is said is listened to before a bed begins for so many times as long as it takes to come back: then all before is forgotten. */
const heardBefore = 8

/** A bed as it goes along: how far it has given way, and where on its line it is. */
class Bed {
  private readonly ducker: Ducker | null
  private readonly ahead: number
  /** From here on it follows what is said. */
  private readonly followsFrom: number
  /** The first point behind what is worked out. */
  private point = 0
  private hop = -1
  private hopGain = 1
  private hopStep = 0

  constructor(
    private readonly plan: MixPlan['beds'][number],
    sampleRateHz: number,
  ) {
    const { ducking, atFrame } = plan
    const frames = (ms: number): number => Math.round((ms / 1000) * sampleRateHz)
    this.ducker = ducking && new Ducker(sampleRateHz, ducking)
    this.ahead = frames(ducking?.lookaheadMs ?? 0)
    this.followsFrom = ducking ? Math.max(0, atFrame - frames(heardBefore * ducking.releaseMs)) : atFrame
  }

  /** Adds its sound to frames that begin at one of the mix. */
  addTo(out: Float32Array, from: number, sound: Float32Array | null, pieces: Float32Array, channels: number): void {
    const { ducker } = this
    const end = Math.min(out.length / channels, this.plan.atFrame + this.plan.frames - from)
    for (let i = Math.max(0, this.followsFrom - from); i < end; i++) {
      const key = (i + this.ahead) * channels
      // Behind the end nobody speaks.
      const isSaid = key < pieces.length
      const ducked = ducker ? ducker.next(isSaid ? pieces[key]! : 0, isSaid ? pieces[key + channels - 1]! : 0) : 1
      if (!sound) continue
      const factor = ducked * this.lineAt(from + i - this.plan.atFrame)
      for (let channel = 0; channel < channels; channel++)
        out[i * channels + channel]! += sound[i * channels + channel]! * factor
    }
  }

  /** The gain of the line at a frame of the bed; frames are asked for in order. It is worked out now and then, with a straight line between. */
  private lineAt(frame: number): number {
    if (this.plan.points.length === 0) return 1
    const hop = Math.floor(frame / lineFrames)
    if (hop !== this.hop) {
      this.hopGain = amplitude(this.dbAt(hop * lineFrames))
      this.hopStep = (amplitude(this.dbAt((hop + 1) * lineFrames)) - this.hopGain) / lineFrames
      this.hop = hop
    }
    return this.hopGain + this.hopStep * (frame - hop * lineFrames)
  }

  private dbAt(frame: number): number {
    const { points } = this.plan
    while (this.point < points.length && points[this.point]!.frame <= frame) this.point++
    const [from, to] = [points[this.point - 1], points[this.point]]
    if (!from || !to) return (from ?? to)!.gainDb
    return from.gainDb + ((to.gainDb - from.gainDb) * (frame - from.frame)) / (to.frame - from.frame)
  }
}
