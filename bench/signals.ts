import { spawnSync } from 'node:child_process'
import type { Measurement } from '@core/audio/measurement'
import { SoundMeter } from '@core/audio/soundMeter'
import { eased, loudnessCases, type Part, rangeCases, tones, truePeakCases } from '@core/audio/tones.fixture'

const rate = 48_000

function ours(sound: Float32Array): Measurement {
  const meter = new SoundMeter(rate, 2)
  meter.push(sound)
  return meter.finish().measurement
}

function theirs(sound: Float32Array, mark: RegExp): string {
  const { stderr } = spawnSync(
    'ffmpeg',
    [
      '-nostats',
      '-f',
      'f32le',
      '-ar',
      String(rate),
      '-ac',
      '2',
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
  return mark.exec(said.slice(said.lastIndexOf('Summary')))?.[1] ?? '?'
}

function rows(
  name: string,
  unit: string,
  cases: readonly [string, Part[], number][],
  ease: boolean,
  mark: RegExp,
  value: (found: Measurement) => number | null,
): void {
  for (const [number, parts, wanted] of cases) {
    const sound = ease ? eased(tones(parts)) : tones(parts)
    console.log(
      `  ${name} ${number.padEnd(3)} wanted ${wanted.toFixed(1).padStart(6)} ${unit.padEnd(5)} ours ${value(ours(sound))!.toFixed(2).padStart(7)}   ffmpeg ${theirs(sound, mark).padStart(6)}`,
    )
  }
}

/** All check signals: what the standards want, what our meter finds, what ffmpeg's ebur128 finds. */
export function benchSignals(): void {
  console.log('check signals')
  rows('Tech 3341 case', 'LUFS', loudnessCases, false, /I:\s+(-?[\d.]+)/, found => found.integratedLufs)
  rows('Tech 3342 case', 'LU', rangeCases, false, /LRA:\s+([\d.]+)/, found => found.rangeLu)
  rows('Tech 3341 case', 'dBTP', truePeakCases, true, /Peak:\s+(-?[\d.]+)/, found => found.truePeakDbtp)
}
