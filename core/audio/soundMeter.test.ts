import { execFileSync, spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { SoundMeter } from './soundMeter'
import { beginningsAfter, pausesOf } from './pauses'
import { columnsOf, curveOf, readPyramid } from './pyramid'
import { eased, loudnessCases, rangeCases, tones, truePeakCases } from './tones.fixture'

function measure(sound: Float32Array, rate = 48_000, channels: 1 | 2 = 2, chunk = 100_000 * channels) {
  const meter = new SoundMeter(rate, channels)
  for (let at = 0; at < sound.length; at += chunk) meter.push(sound.subarray(at, at + chunk))
  return meter.finish()
}
const measured = (...given: Parameters<typeof measure>) => measure(...given).measurement

describe('integrated loudness of EBU Tech 3341', () => {
  it.each(loudnessCases)('case %s', (_name, parts, lufs) => {
    expect(Math.abs(measured(tones(parts)).integratedLufs! - lufs)).toBeLessThanOrEqual(0.1)
  })

  it.each([8000, 11_025, 22_050, 44_100, 96_000])('case 1 at %i Hz', rate => {
    expect(
      Math.abs(measured(tones([{ seconds: 20, dbfs: -23 }], rate), rate).integratedLufs! + 23),
    ).toBeLessThanOrEqual(0.1)
  })

  it('of one channel is 3 LU lower than of two alike', () => {
    expect(measured(tones([{ seconds: 20, dbfs: -23 }], 48_000, 1), 48_000, 1).integratedLufs).toBeCloseTo(-26, 1)
  })
})

// EBU Tech 3341, cases 9 and 12 in spirit, from memory: a steady tone has the same momentary and short-term loudness.
it('momentary and short-term maximum of a steady tone are its loudness', () => {
  const { momentaryMaxLufs, shortTermMaxLufs } = measured(
    tones([
      { seconds: 10, dbfs: -40 },
      { seconds: 4, dbfs: -23 },
      { seconds: 6, dbfs: -40 },
    ]),
  )
  expect(momentaryMaxLufs).toBeCloseTo(-23, 1)
  expect(shortTermMaxLufs).toBeCloseTo(-23, 1)
})

describe('loudness range of EBU Tech 3342', () => {
  it.each(rangeCases)('case %s', (_name, parts, rangeLu) => {
    expect(Math.abs(measured(tones(parts)).rangeLu - rangeLu)).toBeLessThanOrEqual(1)
  })
})

describe('true peak of EBU Tech 3341', () => {
  it.each(truePeakCases)('case %s', (_name, parts, dbtp) => {
    const { truePeakDbtp } = measured(eased(tones(parts)))
    expect(truePeakDbtp).toBeLessThanOrEqual(dbtp + 0.2)
    expect(truePeakDbtp).toBeGreaterThanOrEqual(dbtp - 0.4)
  })
})

// Reference: ffmpeg's ebur128 on the same file.
describe('the demo’s files', () => {
  it.each([
    'br-31.mp3',
    'br-32.mp3',
    'br-33.mp3',
    'br-34.mp3',
    'br-35.mp3',
    'br-36.mp3',
    'br-37.mp3',
    'sf-4.m4a',
    'sf-5.mp3',
  ])('%s is measured as ffmpeg measures it', name => {
    const path = join(import.meta.dirname, '../../demo/sounds', name)
    const { stderr } = spawnSync('ffmpeg', ['-nostats', '-i', path, '-af', 'ebur128=peak=true', '-f', 'null', '-'], {
      encoding: 'utf8',
    })
    const summary = stderr.slice(stderr.lastIndexOf('Summary:'))
    const theirs = (mark: RegExp): number => Number(mark.exec(summary)![1])
    const [, rate, channels] = /, (\d+) Hz, (mono|stereo)/.exec(stderr)!
    const bytes = execFileSync('ffmpeg', ['-v', 'error', '-i', path, '-f', 'f32le', '-'], { maxBuffer: 1e9 })
    const ours = measured(
      new Float32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4),
      Number(rate),
      channels === 'mono' ? 1 : 2,
    )
    expect(Math.abs(ours.integratedLufs! - theirs(/I:\s+(-?[\d.]+) LUFS/))).toBeLessThanOrEqual(0.1)
    expect(Math.abs(ours.rangeLu - theirs(/LRA:\s+([\d.]+) LU/))).toBeLessThanOrEqual(0.5)
    expect(Math.abs(ours.truePeakDbtp! - theirs(/Peak:\s+(-?[\d.]+) dBFS/))).toBeLessThanOrEqual(0.3)
  })
})

describe('one pass', () => {
  const noise = Float32Array.from(
    { length: 400_001 * 2 },
    (_, i) => Math.sin(i * i * 0.000_37) * 0.6 * Math.abs(Math.sin(i / 90_000)),
  )

  it('finds the same however the sound comes in', () => {
    const whole = measure(noise, 44_100, 2, noise.length)
    for (const frames of [1, 333, 8192, 8200]) {
      if (frames === 1)
        expect(measured(noise.subarray(0, 40_000), 44_100, 2, 2)).toEqual(
          measured(noise.subarray(0, 40_000), 44_100, 2, 40_000),
        )
      else expect(measure(noise, 44_100, 2, frames * 2)).toEqual(whole)
    }
  })

  it('has the true peak that looking everywhere finds, though it looks only where a new one can be', () => {
    const { truePeakDbtp, samplePeakDbfs } = measured(noise, 44_100)
    const backwards = new Float32Array(noise).reverse()
    expect(measured(backwards, 44_100).truePeakDbtp).toBeCloseTo(truePeakDbtp!, 3)
    expect(truePeakDbtp).toBeGreaterThanOrEqual(samplePeakDbfs!)
  })

  it('of nothing, of a blink and of silence is told without a number that is none', () => {
    expect(measured(new Float32Array())).toMatchObject({
      durationMs: 0,
      integratedLufs: null,
      truePeakDbtp: null,
      rangeLu: 0,
    })
    expect(measured(tones([{ seconds: 0.3, dbfs: -20 }])).integratedLufs).toBeNull()
    const silence = measured(new Float32Array(48_000 * 10))
    expect(silence).toMatchObject({ integratedLufs: null, headSilenceMs: 5000, tailSilenceMs: 0, gaps: [] })
  })
})

describe('what is clipped', () => {
  it('is found where samples stand at full scale in a row, with its time', () => {
    const sound = tones([{ seconds: 3, dbfs: -6, hz: 100 }], 48_000, 1)
    for (const at of [48_000, 96_000, 96_500]) sound.fill(1, at, at + 20)
    const { clips, clipCount } = measured(sound, 48_000, 1)
    expect(clipCount).toBe(2)
    expect(clips.map(({ fromMs }) => Math.round(fromMs))).toEqual([1000, 2000])
    expect(clips[1]!.toMs).toBeCloseTo(2010.8, 1)
  })
  it('is not a single sample that just fits, nor a sine at full scale', () => {
    const sound = tones([{ seconds: 1, dbfs: -6 }], 48_000, 1)
    sound[5000] = 1
    expect(measured(sound, 48_000, 1).clipCount).toBe(0)
  })
  it('is not a value over full scale, as floating point and lossy codings have them', () => {
    const sound = Float32Array.from(
      { length: 48_000 * 2 },
      (_, i) => 1.6 * Math.sin((2 * Math.PI * 60 * i) / 48_000) + 0.2 * Math.sin((2 * Math.PI * 1234 * i) / 48_000),
    )
    expect(measured(sound, 48_000, 1)).toMatchObject({ clipCount: 0 })
  })
  it('is not a low tone that just fits, rounded to 16 bit', () => {
    const sound = Float32Array.from(
      { length: 48_000 * 2 },
      (_, i) => Math.round(32_767 * Math.sin((2 * Math.PI * 40 * i) / 48_000)) / 32_768,
    )
    const touched = sound.map(value => (value === 32_767 / 32_768 ? 1 - 1 / 65_536 : value))
    expect(measured(touched, 48_000, 1).clipCount).toBe(0)
  })
  it('is a tone whose tops were cut off', () => {
    const sound = Float32Array.from({ length: 48_000 }, (_, i) =>
      Math.max(-1, Math.min(1, 1.3 * Math.sin((2 * Math.PI * 200 * i) / 48_000))),
    )
    expect(measured(sound, 48_000, 1).clipCount).toBe(1)
  })
  it('is everything where all of it is at full scale', () => {
    const { clips, clipCount } = measured(new Float32Array(48_000).fill(1), 48_000, 1)
    expect(clipCount).toBe(1)
    expect(clips).toEqual([{ fromMs: 0, toMs: 1000 }])
  })
})

describe('silence', () => {
  it('is found at both ends and in long gaps', () => {
    const sound = tones([
      { seconds: 2, dbfs: -90 },
      { seconds: 5, dbfs: -20 },
      { seconds: 4, dbfs: -90 },
      { seconds: 5, dbfs: -20 },
      { seconds: 1, dbfs: -90 },
      { seconds: 3, dbfs: -20 },
      { seconds: 6, dbfs: -90 },
    ])
    const { headSilenceMs, tailSilenceMs, gaps } = measured(sound)
    expect(headSilenceMs).toBeCloseTo(2000, -1)
    expect(tailSilenceMs).toBeCloseTo(6000, -1)
    expect(gaps).toHaveLength(1)
    expect(gaps[0]!.fromMs).toBeCloseTo(7000, -1)
    expect(gaps[0]!.toMs).toBeCloseTo(11_000, -1)
  })
})

describe('the stereo image', () => {
  const mono = tones([{ seconds: 1, dbfs: -12 }])
  it.each([
    ['dual mono', mono],
    ['one side only', mono.map((value, i) => (i % 2 ? 0 : value))],
    ['stereo', mono.map((value, i) => (i % 2 ? value * 0.7 : value))],
  ])('%s', (image, sound) => expect(measured(sound).image).toBe(image))
})

describe('the waveform', () => {
  it.each([
    [1, 400_000],
    [9, 450_000],
  ])(
    'of %i hours takes less than %i bytes',
    (hours, bytes) => {
      const meter = new SoundMeter(8000, 1)
      const minute = tones([{ seconds: 60, dbfs: -6, hz: 300 }], 8000, 1)
      for (let n = 0; n < hours * 60; n++) meter.push(minute)
      const { waveform, measurement } = meter.finish()
      expect(waveform.length).toBeLessThan(bytes)
      expect(measurement.durationMs).toBe(hours * 3600_000)
      const pyramid = readPyramid(waveform)
      expect(pyramid.durationMs).toBe(hours * 3600_000)
      expect(pyramid.curveLufs.length).toBe(hours * 3600 - 2)
    },
    120_000,
  )

  it('can be drawn at any zoom, and shows a peak where it is', () => {
    const sound = tones([{ seconds: 30, dbfs: -40 }], 44_100, 1)
    sound[20 * 44_100] = 0.9
    const pyramid = readPyramid(measure(sound, 44_100, 1).waveform)
    for (const [fromMs, toMs] of [
      [0, 30_000],
      [15_000, 25_000],
      [19_990, 20_010],
    ] as const) {
      const columns = columnsOf(pyramid, fromMs, toMs, 400)
      const highest = columns.indexOf(Math.max(...columns))
      expect(Math.abs(fromMs + ((highest >> 1) / 400) * (toMs - fromMs) - 20_000)).toBeLessThanOrEqual(
        Math.max(2, (toMs - fromMs) / 400),
      )
      expect(columns[highest]).toBe(Math.round(0.9 * 127))
    }
  })

  it('has the loudness of each second', () => {
    const { curveLufs } = readPyramid(measure(tones([{ seconds: 10, dbfs: -23 }])).waveform)
    expect(curveLufs.every(lufs => Math.abs(lufs + 23) < 0.2)).toBe(true)
  })

  it('has its loudness curve where it sounds', () => {
    const pyramid = readPyramid(
      measure(
        tones([
          { seconds: 10, dbfs: -40 },
          { seconds: 10, dbfs: -20 },
        ]),
      ).waveform,
    )
    const points = curveOf(pyramid, 0, 20_000)
    expect(points.at(0)!.atMs).toBe(1500)
    // A window of 3 s lies in one of the halves, or over the step between.
    for (const { atMs, lufs } of points)
      if (atMs <= 8500) expect(lufs).toBeCloseTo(-40, 0)
      else if (atMs >= 11_500) expect(lufs).toBeCloseTo(-20, 0)
      else expect(lufs).toBeLessThan(-20.5)
    const part = curveOf(pyramid, 14_000, 16_000)
    expect([part[0]!.atMs, part.at(-1)!.atMs]).toEqual([13_500, 16_500])
  })

  it('knows the pauses between sounds, and where one would begin after each', () => {
    const pyramid = readPyramid(
      measure(
        tones([
          { seconds: 2, dbfs: -20 },
          { seconds: 0.5, dbfs: -90 },
          { seconds: 1, dbfs: -20 },
          { seconds: 0.1, dbfs: -90 },
          { seconds: 1, dbfs: -20 },
          { seconds: 3, dbfs: -90 },
        ]),
      ).waveform,
    )
    const pauses = pausesOf(pyramid)
    expect(pauses.length).toBe(2)
    expect(Math.abs(pauses[0]!.fromMs - 2000)).toBeLessThan(30)
    expect(Math.abs(pauses[0]!.toMs - 2500)).toBeLessThan(30)
    expect(Math.abs(beginningsAfter(pauses)[0]! - 2350)).toBeLessThan(30)
  })

  it('is nothing else', () => expect(() => readPyramid(new Uint8Array(100))).toThrow(RangeError))
})
