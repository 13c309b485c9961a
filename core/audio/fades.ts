import { amplitude } from './decibels'
import { type FadeShape, fadeShapes } from './recipe'

const deepestDb = -60

/** Two sounds that have nothing to do with each other stay as loud as one where they are crossfaded by equal power. */
export const crossfadeShapes = [...fadeShapes, 'equal power'] as const
export type CrossfadeShape = (typeof crossfadeShapes)[number]

/** How far a fade has opened, 0 to 1, as a factor: evenly, evenly in dB as the ear hears it, or by a quarter of a sine. */
export function fadeGain(share: number, shape: CrossfadeShape): number {
  if (share <= 0) return 0
  if (share >= 1) return 1
  if (shape === 'equal power') return Math.sin((share * Math.PI) / 2)
  return shape === 'linear' ? share : amplitude(deepestDb * (1 - share))
}

export interface Fades {
  frames: number
  inFrames: number
  outFrames: number
  shape: FadeShape
}

/** Fades interleaved frames in place; the first of them has the given place in the whole sound. */
export function fade(
  interleaved: Float32Array,
  channels: number,
  place: number,
  { frames, inFrames, outFrames, shape }: Fades,
): void {
  const count = interleaved.length / channels
  if (place >= inFrames && place + count <= frames - outFrames) return
  for (let i = 0; i < count; i++) {
    const at = place + i
    const gain = Math.min(fadeGain((at + 1) / (inFrames + 1), shape), fadeGain((frames - at) / (outFrames + 1), shape))
    if (gain === 1) continue
    for (let channel = 0; channel < channels; channel++) interleaved[i * channels + channel]! *= gain
  }
}
