import { describe, expect, it } from 'vitest'
import { WaveformBuilder } from './waveform'

const draw = (samples: Int16Array, stretches: number, chunk = samples.length) => {
  const builder = new WaveformBuilder(stretches)
  for (let at = 0; at < samples.length; at += chunk) builder.push(samples.subarray(at, at + chunk))
  return builder.finish()
}

describe('a waveform', () => {
  it('never has more stretches than it may, and reaches the peaks at both ends', () => {
    const samples = new Int16Array(1_000_000)
    samples[0] = 32_767
    samples[999_999] = -32_768
    const form = draw(samples, 200)
    expect(form.length / 2).toBeLessThanOrEqual(200)
    expect(form.length / 2).toBeGreaterThanOrEqual(100)
    expect(form[1]).toBe(127)
    expect(form[form.length - 2]).toBe(-127)
  })
  it('is the same however the samples come in', () => {
    const samples = Int16Array.from({ length: 50_000 }, (_, i) => Math.round(20_000 * Math.sin(i / 40) * Math.sin(i / 9000)))
    expect(draw(samples, 100, 333)).toEqual(draw(samples, 100))
  })
  it('is empty without sound', () => expect(draw(new Int16Array(), 100)).toHaveLength(0))
})
