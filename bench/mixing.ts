import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v4 as uuidV4 } from 'uuid'
import { firstRecipe } from '@core/audio/recipe'
import { emptyMix, newBed, newPiece, withBed, withPiece } from '@core/mix/edits'
import type { MixedFile } from '@server/media/sound/mixed'
import { runSound } from '@server/media/sound/run'
import { ffmpeg, makeStereo, timed, withMemory } from './sound'

const pieceSeconds = [60, 3480, 60]
const bedSeconds = [60, 60]
const serverDir = 'dist/server'
const run = { signal: new AbortController().signal, progress: () => undefined }

/** An hour of three pieces and two beds that give way to them, against ffmpeg that only decodes the same files and encodes an hour. */
export async function benchMixing(): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-bench-'))
  const files: Record<string, MixedFile> = {}
  async function made(length: number): Promise<string> {
    const id = uuidV4()
    files[id] = { path: join(folder, `${id}.mp3`), junkBytes: 0, channels: 2, durationMs: length * 1000 }
    await makeStereo(files[id].path, length)
    return id
  }
  let mix = emptyMix
  for (const length of pieceSeconds)
    mix = withPiece(mix, newPiece(uuidV4(), await made(length), [{ fromMs: 0, toMs: length * 1000 }]))
  for (const [n, length] of bedSeconds.entries())
    mix = withBed(mix, newBed(uuidV4(), await made(length), mix.pieces[n * 2]!.id, length * 1000))

  const inputs = Object.values(files).flatMap(({ path }) => ['-i', path])
  const joined = pieceSeconds.map((_, n) => `[${n}:a]`).join('')
  const beds = bedSeconds.map((_, n) => ['-map', `${n + pieceSeconds.length}:a`, '-f', 'null', '-']).flat()
  const alone = await ffmpeg([
    '-v',
    'error',
    ...inputs,
    '-filter_complex',
    `${joined}concat=n=${pieceSeconds.length}:v=0:a=1[out]`,
    ...['-map', '[out]', '-c:a', 'libmp3lame', '-b:a', '128k', join(folder, 'alone.mp3')],
    ...beds,
  ])

  const source = { mix, files }
  const expectedMs = pieceSeconds.reduce((sum, length) => sum + length, 0) * 1000
  const measuring = await timed(() =>
    runSound({ kind: 'measure', source: { ...source, sampleRateHz: 44_100, channels: 2 }, expectedMs }, run, {
      serverDir,
    }),
  )
  const { measurement } = measuring.answer
  const finishing = await withMemory(() =>
    timed(() =>
      runSound({ kind: 'finish', source: { ...source, channels: 2 }, measurement, recipe: firstRecipe, folder }, run, {
        serverDir,
      }),
    ),
  )
  const ratio = (seconds: number): string =>
    `${(seconds / alone.seconds).toFixed(2)} (${seconds.toFixed(1)} s : ${alone.seconds.toFixed(1)} s)`
  console.log('an hour of three pieces and two beds that give way, against decoding and encoding alone')
  console.log(`  measured: ${ratio(measuring.seconds)}`)
  console.log(
    `  finished to MP3: ${ratio(finishing.answer.seconds)}; memory of process and children grew by ${finishing.megabytes.toFixed(0)} MB`,
  )
  await rm(folder, { recursive: true, force: true })
}
