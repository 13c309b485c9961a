import type { Stretch } from './measurement'

/** What is louder than this, +12 dBFS, no program writes on purpose; a decoder that lost its way writes far more (common practice, no source). */
const mostAmplitude = 4
const [mostBits] = new Int32Array(Float32Array.of(mostAmplitude).buffer)
/** So much is left out around it: as much as one frame of MPEG-1 layer III holds. */
const blockFrames = 1152
/** Places so close to each other are one. */
const apartMs = 250
const mostPlaces = 100

/** A number without its sign, as whole numbers that are in the same order; what is no number is larger than all (IEEE 754). */
const magnitude = (bits: number): number => bits & 0x7fff_ffff

/** By far the most sound is sound, and an hour of it is hundreds of millions of values: they are compared as they lie there. */
function isWild(bits: Int32Array): boolean {
  let most = 0
  for (let at = 0; at < bits.length; at++) {
    const value = magnitude(bits[at]!)
    if (value > most) most = value
  }
  return most > mostBits!
}

/** Finds what cannot be sound in what a decoder makes of a damaged file, and leaves it out: there is silence in its place. */
export class DamageFinder {
  private place = 0
  private readonly found: Stretch[] = []

  constructor(
    private readonly sampleRateHz: number,
    private readonly channels: number,
  ) {}

  /** Looks through interleaved sound, full scale 1, and silences in it what is none; the same array comes back. */
  push(sound: Float32Array): Float32Array {
    const block = blockFrames * this.channels
    const bits = new Int32Array(sound.buffer, sound.byteOffset, sound.length)
    for (let at = isWild(bits) ? 0 : sound.length; at < sound.length; at++) {
      if (magnitude(bits[at]!) <= mostBits!) continue
      const from = at - (at % block)
      const to = Math.min(sound.length, from + block)
      sound.fill(0, from, to)
      this.note(this.place + from / this.channels, this.place + to / this.channels)
      at = to - 1
    }
    this.place += sound.length / this.channels
    return sound
  }

  /** Where it was, the first hundred. */
  places(): Stretch[] {
    return this.found
  }

  private note(fromFrame: number, toFrame: number): void {
    const [fromMs, toMs] = [fromFrame, toFrame].map(frame => (frame / this.sampleRateHz) * 1000) as [number, number]
    const last = this.found.at(-1)
    if (last && fromMs - last.toMs < apartMs) last.toMs = toMs
    else if (this.found.length < mostPlaces) this.found.push({ fromMs, toMs })
  }
}
