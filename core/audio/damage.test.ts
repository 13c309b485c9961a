import { expect, it } from 'vitest'
import { DamageFinder } from './damage'

const tone = (frames: number): Float32Array =>
  Float32Array.from({ length: frames * 2 }, (_, at) => Math.sin(at / 20) * 0.5)

it('what is far beyond full scale, or no number, is left out around where it is; all else stays as it was', () => {
  const sound = tone(48_000)
  const before = sound.slice()
  sound[2 * 24_000] = 1e5
  sound[2 * 24_010 + 1] = NaN
  sound[2 * 40_000] = -Infinity
  const finder = new DamageFinder(48_000, 2)
  // In pieces, as a decoder hands it over.
  for (let at = 0; at < sound.length; at += 9_216) finder.push(sound.subarray(at, at + 9_216))
  expect(finder.places().map(({ fromMs, toMs }) => [Math.floor(fromMs), Math.ceil(toMs)])).toEqual([
    [480, 504],
    [816, 840],
  ])
  expect(sound.every(value => Math.abs(value) <= 0.5)).toBe(true)
  expect([...sound.slice(0, 2 * 23_000)]).toEqual([...before.slice(0, 2 * 23_000)])
})

it('what is loud, up to +12 dBFS, is sound', () => {
  const finder = new DamageFinder(48_000, 1)
  expect(finder.push(Float32Array.of(0, 1.5, -3.98, 4))).toEqual(Float32Array.of(0, 1.5, -3.98, 4))
  expect(finder.places()).toEqual([])
})
