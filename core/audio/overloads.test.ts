import { describe, expect, it } from 'vitest'
import { OverloadFinder } from './overloads'
import { tones } from './tones.fixture'

const rate = 48_000

/** What is found where a sound comes in blocks of so many samples. */
function foundIn(sound: Float32Array, channels: 1 | 2, block = 2_048): { fromMs: number; toMs: number }[] {
  const finder = new OverloadFinder(channels, rate)
  for (let at = 0; at < sound.length; at += block) finder.look(sound.subarray(at, at + block), at / channels)
  return finder.found.map(({ fromMs, toMs }) => ({ fromMs: Math.round(fromMs), toMs: Math.round(toMs) }))
}
const cutOff = (sound: Float32Array, from: number, to: number): Float32Array =>
  sound.map((value, i) => (i >= from && i < to ? Math.max(-1, Math.min(1, 4 * value)) : value))

describe('a voice that is too loud for the microphone', () => {
  const sound = tones([{ seconds: 4, dbfs: -6, hz: 220 }], rate, 1)

  it('is found where it is, in one stretch, however the sound is handed on', () => {
    const loud = cutOff(sound, rate, 1.5 * rate)
    const whole = foundIn(loud, 1)
    expect(whole).toHaveLength(1)
    expect(Math.abs(whole[0]!.fromMs - 1_000)).toBeLessThan(3)
    expect(Math.abs(whole[0]!.toMs - 1_500)).toBeLessThan(3)
    for (const block of [1, 127, 128, 4_096]) expect(foundIn(loud, 1, block)).toEqual(whole)
  })

  it('is found on either channel, and twice where a second lies between', () => {
    const twice = cutOff(cutOff(sound, 0.5 * rate, 0.6 * rate), 2 * rate, 2.1 * rate)
    const right = new Float32Array(sound.length * 2)
    for (const [i, value] of twice.entries()) right[2 * i + 1] = value
    expect(foundIn(right, 2).map(({ fromMs }) => Math.round(fromMs / 100))).toEqual([5, 20])
  })

  it('is not where it only just fits, or one sample stands out', () => {
    expect(foundIn(tones([{ seconds: 1, dbfs: -0.2, hz: 220 }], rate, 1), 1)).toEqual([])
    expect(foundIn(new Float32Array(rate).fill(1, 100, 102), 1)).toEqual([])
    expect(foundIn(new Float32Array(rate).fill(1, 100, 103), 1)).toHaveLength(1)
  })
})
