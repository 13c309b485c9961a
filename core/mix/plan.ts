import { amplitude } from '../audio/decibels'
import type { CrossfadeShape } from '../audio/fades'
import type { Bed, Ducking } from './document'
import type { MixLayout, PlacedPiece } from './layout'
import { turnOf } from './turns'

/** Where something was cut out the two sides are crossfaded for so long, by what lies behind the cut on either side. */
const joinMs = 10

/** An end of a segment: over how many frames it opens or closes, and how. */
export interface Ramp {
  frames: number
  shape: CrossfadeShape
}

/** A piece or a bed as a whole, in frames of the mix: its fades go on over whatever cuts and turns it has. */
export interface Envelope {
  atFrame: number
  frames: number
  gain: number
  fadeIn: Ramp
  fadeOut: Ramp
}

/** A stretch of a file as it is heard in a mix, all in frames of the mix. */
export interface Segment {
  fileId: string
  /** The first frame of the file that is heard. */
  fromFrame: number
  /** Where in the mix that is. */
  atFrame: number
  frames: number
  /** How it is crossfaded with the stretches before and behind it. */
  joinIn: Ramp
  joinOut: Ramp
  whole: Envelope
  /** Which bed it is of; null for a piece. */
  bed: number | null
}

/** A mix worked out for a clock: what is heard when, how loud. */
export interface MixPlan {
  sampleRateHz: number
  channels: 1 | 2
  frames: number
  segments: Segment[]
  /** What each bed does on top of its gain and its fades. */
  beds: { atFrame: number; frames: number; ducking: Ducking | null; points: { frame: number; gainDb: number }[] }[]
}

/** Works a layout out, in the order in which its segments begin. */
export function planOf(
  layout: MixLayout,
  { sampleRateHz, channels }: Pick<MixPlan, 'sampleRateHz' | 'channels'>,
  lengthOf: (fileId: string) => number,
): MixPlan {
  const frameAt = (ms: number): number => Math.round((ms / 1000) * sampleRateHz)
  const segments = [
    ...layout.pieces.flatMap((placed, n) =>
      segmentsOfPiece(placed, layout.pieces[n + 1], lengthOf(placed.piece.fileId), frameAt),
    ),
    ...layout.beds.flatMap((placed, n) => segmentsOfBed(placed, n, lengthOf(placed.bed.fileId), frameAt)),
  ]
  return {
    sampleRateHz,
    channels,
    frames: frameAt(layout.durationMs),
    segments: segments.toSorted((one, other) => one.atFrame - other.atFrame),
    beds: layout.beds.map(({ bed: { ducking, points }, atMs, durationMs }) => ({
      atFrame: frameAt(atMs),
      frames: frameAt(atMs + durationMs) - frameAt(atMs),
      ducking,
      points: points.map(point => ({ frame: frameAt(point.atMs), gainDb: point.gainDb })),
    })),
  }
}

type FrameAt = (ms: number) => number
const noJoin: Ramp = { frames: 0, shape: 'linear' }

/** The stretches that are kept, each with a little of what lies around it where it meets the next. */
function segmentsOfPiece(
  { piece, timeline: { kept }, atMs, durationMs, overlapMs }: PlacedPiece,
  next: PlacedPiece | undefined,
  lengthMs: number,
  frameAt: FrameAt,
): Segment[] {
  const nextOverlapMs = next?.overlapMs ?? 0
  const whole: Envelope = {
    atFrame: frameAt(atMs),
    frames: frameAt(atMs + durationMs) - frameAt(atMs),
    gain: amplitude(piece.gainDb),
    fadeIn: { frames: frameAt(Math.max(piece.fadeInMs, overlapMs)), shape: piece.shape },
    fadeOut: {
      frames: frameAt(Math.max(piece.fadeOutMs, nextOverlapMs)),
      shape: next && nextOverlapMs > piece.fadeOutMs ? next.piece.shape : piece.shape,
    },
  }
  let keptMs = 0
  return kept.map(({ fromMs, toMs }, n) => {
    // As much of a join as there is behind the cut, and the same on both of its sides.
    const before = n === 0 ? 0 : joinBetween(kept[n - 1]!.toMs, fromMs, lengthMs)
    const after = n === kept.length - 1 ? 0 : joinBetween(toMs, kept[n + 1]!.fromMs, lengthMs)
    const atFrame = frameAt(atMs + keptMs - before / 2)
    keptMs += toMs - fromMs
    return {
      fileId: piece.fileId,
      fromFrame: frameAt(fromMs - before / 2),
      atFrame,
      frames: frameAt(atMs + keptMs + after / 2) - atFrame,
      joinIn: { frames: frameAt(before), shape: 'linear' },
      joinOut: { frames: frameAt(after), shape: 'linear' },
      whole,
      bed: null,
    }
  })
}

const joinBetween = (endMs: number, beginMs: number, lengthMs: number): number =>
  Math.max(0, Math.min(joinMs, beginMs - endMs, 2 * (lengthMs - endMs), 2 * beginMs))

/** As often as it takes, each crossfaded into the next. */
function segmentsOfBed(
  { bed, atMs, durationMs }: { bed: Bed; atMs: number; durationMs: number },
  n: number,
  lengthMs: number,
  frameAt: FrameAt,
): Segment[] {
  const { turnMs, crossMs } = turnOf(bed, lengthMs)
  if (turnMs <= 0) return []
  const cross: Ramp = { frames: frameAt(crossMs), shape: 'equal power' }
  const whole: Envelope = {
    atFrame: frameAt(atMs),
    frames: frameAt(atMs + durationMs) - frameAt(atMs),
    gain: amplitude(bed.gainDb),
    fadeIn: { frames: frameAt(bed.fadeInMs), shape: bed.shape },
    fadeOut: { frames: frameAt(bed.fadeOutMs), shape: bed.shape },
  }
  const segments: Segment[] = []
  for (let doneMs = 0; doneMs < durationMs; doneMs += turnMs - crossMs) {
    const isLast = doneMs + turnMs >= durationMs
    const atFrame = frameAt(atMs + doneMs)
    segments.push({
      fileId: bed.fileId,
      fromFrame: frameAt(bed.startMs),
      atFrame,
      frames: frameAt(atMs + Math.min(doneMs + turnMs, durationMs)) - atFrame,
      joinIn: doneMs === 0 ? noJoin : cross,
      joinOut: isLast ? noJoin : cross,
      whole,
      bed: n,
    })
    if (isLast) break
  }
  return segments
}
