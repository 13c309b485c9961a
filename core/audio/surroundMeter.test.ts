import { spawnSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { SurroundMeter, surroundChannels } from './surroundMeter'

const rate = 48_000

/** Tones of 1 kHz, each channel at its level in dBFS (−Infinity for none), in the phases given. */
function tones(seconds: number, dbfs: readonly number[]): Float32Array {
  return Float32Array.from(
    { length: seconds * rate * surroundChannels },
    (_, i) =>
      10 ** (dbfs[i % surroundChannels]! / 20) *
      Math.sin((2 * Math.PI * (1000 + 7 * (i % surroundChannels)) * Math.floor(i / surroundChannels)) / rate),
  )
}

function measure(sound: Float32Array) {
  const meter = new SurroundMeter(rate)
  for (let at = 0; at < sound.length; at += 50_000) meter.push(sound.slice(at, at + 50_000))
  return meter.finish().measurement
}

// Reference: ffmpeg's ebur128, which weighs 5.0 as BS.1770 does.
function theirs(sound: Float32Array): { lufs: number; peak: number } {
  const { stderr } = spawnSync(
    'ffmpeg',
    [
      '-nostats',
      '-f',
      'f32le',
      '-ar',
      String(rate),
      '-channel_layout',
      '5.0',
      '-i',
      '-',
      '-af',
      'ebur128=peak=true',
      '-f',
      'null',
      '-',
    ],
    { input: Buffer.from(sound.buffer), maxBuffer: 1e8 },
  )
  const said = stderr.toString()
  const summary = said.slice(said.lastIndexOf('Summary'))
  return { lufs: Number(/I:\s+(-?[\d.]+)/.exec(summary)![1]), peak: Number(/Peak:\s+(-?[\d.]+)/.exec(summary)![1]) }
}

describe('five channels', () => {
  it.each([
    ['all alike', [-26, -26, -26, -26, -26]],
    ['the centre alone', [-Infinity, -Infinity, -20, -Infinity, -Infinity]],
    ['the surrounds alone', [-Infinity, -Infinity, -Infinity, -24, -24]],
    // EBU Tech 3341 case 6, from memory: −28 left and right, −24 centre, −30 surrounds come to −23 LUFS.
    ['case 6 of EBU Tech 3341', [-28, -28, -24, -30, -30]],
  ])('are as loud as ffmpeg finds them: %s', (_name, levels) => {
    const sound = tones(20, levels)
    const found = measure(sound)
    const reference = theirs(sound)
    expect(Math.abs(found.integratedLufs! - reference.lufs)).toBeLessThanOrEqual(0.1)
    expect(Math.abs(found.truePeakDbtp! - reference.peak)).toBeLessThanOrEqual(0.1)
  })
  it('come to −23 LUFS in case 6', () =>
    expect(Math.abs(measure(tones(20, [-28, -28, -24, -30, -30])).integratedLufs! + 23)).toBeLessThanOrEqual(0.1))

  it('are silent where all of them are', () => {
    const sound = tones(12, [-20, -20, -20, -20, -20])
    sound.fill(0, 0, 2 * rate * surroundChannels)
    for (let frame = 5 * rate; frame < 9 * rate; frame++)
      for (const channel of [0, 1, 3, 4]) sound[frame * surroundChannels + channel] = 0
    const found = measure(sound)
    expect(found.headSilenceMs).toBeCloseTo(2000, -1)
    expect(found.gaps).toEqual([])
    expect(found.tailSilenceMs).toBe(0)
  })
})
