import { mkdtemp, rm } from 'node:fs/promises'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { monitorEventLoopDelay } from 'node:perf_hooks'
import { firstRecipe } from '@core/audio/recipe'
import { runSound } from '@server/media/sound/run'
import { ffmpeg, makeStereo, timed, withMemory } from './sound'

const seconds = 3600
/** ffmpeg's loudnorm is slow; a part of the hour tells as much. */
const finishedSeconds = 600
const serverDir = 'dist/server'
const run = { signal: new AbortController().signal, progress: () => undefined }
const source = (path: string) => ({ path, sampleRateHz: 44_100, channels: 2 as const, junkBytes: 0 })

/** Measuring and finishing an hour of stereo MP3, against ffmpeg on the same file in the same run. */
export async function benchSounds(): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-bench-'))
  const path = join(folder, 'hour.mp3')
  await makeStereo(path, seconds)
  const pass = { kind: 'measure' as const, source: source(path), expectedMs: seconds * 1000 }

  const lag = monitorEventLoopDelay({ resolution: 5 })
  const decoding = await ffmpeg(['-v', 'error', '-i', path, '-f', 'null', '-'])
  const meter = await ffmpeg(['-i', path, '-af', 'ebur128=peak=true', '-f', 'null', '-'])
  lag.enable()
  const { megabytes, answer: ours } = await withMemory(() => timed(() => runSound(pass, run, { serverDir })))
  lag.disable()
  const measured = ours.answer.measurement
  const theirs = (mark: RegExp): string => mark.exec(meter.said.slice(meter.said.lastIndexOf('Summary')))?.[1] ?? '?'
  console.log(`measuring ${seconds / 60} min of stereo MP3 (${cpus().length} cores)`)
  console.log(
    `  time against ffmpeg’s ebur128 with true peak: ${(ours.seconds / meter.seconds).toFixed(2)} (${ours.seconds.toFixed(1)} s : ${meter.seconds.toFixed(1)} s)`,
  )
  console.log(
    `  time against ffmpeg decoding alone: ${(ours.seconds / decoding.seconds).toFixed(2)} (${ours.seconds.toFixed(1)} s : ${decoding.seconds.toFixed(1)} s)`,
  )
  console.log(
    `  found: ${measured.integratedLufs!.toFixed(2)} LUFS : ${theirs(/I:\s+(-?[\d.]+)/)}, ${measured.rangeLu.toFixed(2)} LU : ${theirs(/LRA:\s+([\d.]+)/)}, ${measured.truePeakDbtp!.toFixed(2)} dBTP : ${theirs(/Peak:\s+(-?[\d.]+)/)}`,
  )
  console.log(
    `  memory of process and children grew by ${megabytes.toFixed(0)} MB; event loop lag, 99th percentile: ${(lag.percentile(99) / 1e6).toFixed(1)} ms`,
  )

  await benchFinishing(folder)
  await rm(folder, { recursive: true, force: true })
}

async function benchFinishing(folder: string): Promise<void> {
  await benchWholeHour(folder)
  const path = join(folder, 'part.mp3')
  await makeStereo(path, finishedSeconds)
  const finishing = await finishTimed(folder, path)
  const loudnorm = await timed(async () => {
    const first = await ffmpeg(['-i', path, '-af', 'loudnorm=I=-16:TP=-1:LRA=11:print_format=json', '-f', 'null', '-'])
    const found = JSON.parse(first.said.slice(first.said.lastIndexOf('{'), first.said.lastIndexOf('}') + 1)) as Record<
      string,
      string
    >
    const known = `measured_I=${found.input_i}:measured_TP=${found.input_tp}:measured_LRA=${found.input_lra}:measured_thresh=${found.input_thresh}:offset=${found.target_offset}:linear=true`
    await ffmpeg([
      '-i',
      path,
      '-af',
      `loudnorm=I=-16:TP=-1:LRA=11:${known}`,
      '-ar',
      '44100',
      ...delivery['speech and music'],
      join(folder, 'theirs.mp3'),
    ])
  })
  console.log(
    `finishing ${finishedSeconds / 60} min, time against ffmpeg’s two-pass loudnorm with the same encoder: ${(finishing.seconds / loudnorm.seconds).toFixed(2)} (${finishing.seconds.toFixed(1)} s : ${loudnorm.seconds.toFixed(1)} s)`,
  )
}

const delivery = {
  'speech and music': ['-c:a', 'libmp3lame', '-b:a', '128k'],
  m4a: ['-c:a', 'aac', '-b:a', '128k'],
} as const

async function finishTimed(folder: string, path: string, encoding: keyof typeof delivery = 'speech and music') {
  const { measurement } = await runSound({ kind: 'measure', source: source(path), expectedMs: 0 }, run, { serverDir })
  return timed(() =>
    runSound(
      {
        kind: 'finish',
        source: { path, junkBytes: 0, channels: 2 },
        measurement,
        recipe: { ...firstRecipe, encoding },
        folder,
      },
      run,
      { serverDir },
    ),
  )
}

/** Finishing an hour, against ffmpeg that only decodes and encodes the same file with the same encoder. */
async function benchWholeHour(folder: string): Promise<void> {
  const path = join(folder, 'hour.mp3')
  for (const encoding of ['speech and music', 'm4a'] as const) {
    const alone = await timed(() =>
      ffmpeg([
        '-v',
        'error',
        '-i',
        path,
        ...delivery[encoding],
        join(folder, encoding === 'm4a' ? 'alone.m4a' : 'alone.mp3'),
      ]),
    )
    const ours = await finishTimed(folder, path, encoding)
    const {
      measurement: { integratedLufs, truePeakDbtp },
    } = ours.answer
    console.log(
      `finishing ${seconds / 60} min as ${encoding === 'm4a' ? 'M4A' : 'MP3'}, time against decoding and encoding alone: ${(ours.seconds / alone.seconds).toFixed(2)} (${ours.seconds.toFixed(1)} s : ${alone.seconds.toFixed(1)} s); came to ${integratedLufs!.toFixed(2)} LUFS, ${truePeakDbtp!.toFixed(2)} dBTP`,
    )
  }
}
