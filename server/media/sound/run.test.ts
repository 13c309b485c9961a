import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { readPyramid } from '@core/audio/pyramid'
import { firstRecipe } from '@core/audio/recipe'
import { makeSound, probe } from '@core/audio/sound.fixture'
import { runSound, SoundFailure } from './run'
import type { Measured } from './tasks'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-run-'))
afterAll(() => rmSync(folder, { recursive: true }))

const server = { serverDir: 'dist/server' }
const untilDone = () => {
  const shares: number[] = []
  const stop = new AbortController()
  return { shares, stop, run: { signal: stop.signal, progress: (share: number) => void shares.push(share) } }
}
const source = (name: string) => ({
  path: join(folder, name),
  sampleRateHz: 44_100,
  channels: 2 as const,
  junkBytes: 0,
})
const running = (name: string): boolean =>
  execFileSync('ps', ['-eo', 'args'], { encoding: 'utf8' })
    .split('\n')
    .some(line => line.startsWith('ffmpeg') && line.includes(join(folder, name)))

describe('a task on sound, in a worker thread', () => {
  it('measures, and says how far it is', async () => {
    makeSound(join(folder, 'long.wav'), 150, ['-ac', '2'])
    const { shares, run } = untilDone()
    const { measurement, waveform } = await runSound(
      { kind: 'measure', source: source('long.wav'), expectedMs: 150_000 },
      run,
      server,
    )
    expect(measurement.durationMs).toBeCloseTo(150_000, -1)
    expect(readPyramid(waveform).durationMs).toBe(measurement.durationMs)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares.every(share => share >= 0 && share < 1)).toBe(true)
  })

  let measured: Promise<Measured> | undefined
  /** A task that finishes the long sound in a folder of its own. */
  async function finishing(name: string, encoding: 'speech' | 'm4a' = 'speech') {
    const into = join(folder, name)
    mkdirSync(into)
    measured ??= runSound({ kind: 'measure', source: source('long.wav'), expectedMs: 150_000 }, untilDone().run, server)
    const { measurement } = await measured
    return {
      kind: 'finish' as const,
      source: { path: join(folder, 'long.wav'), junkBytes: 0, channels: 2 },
      measurement,
      recipe: { ...firstRecipe, encoding },
      folder: into,
    }
  }

  it.each(['speech', 'm4a'] as const)(
    'finishes as %s into a file of the same length, and measures what came out while it does',
    async encoding => {
      const { shares, run } = untilDone()
      const task = await finishing(`made-${encoding}`, encoding)
      const { name, measurement, report } = await runSound(task, run, server)
      const made = probe(join(task.folder, name))
      expect(Math.abs(made.durationMs - 150_000)).toBeLessThan(80)
      const again = await runSound(
        {
          kind: 'measure',
          source: {
            path: join(task.folder, name),
            sampleRateHz: 44_100,
            channels: encoding === 'speech' ? 1 : 2,
            junkBytes: 0,
          },
          expectedMs: 0,
        },
        untilDone().run,
        server,
      )
      expect(measurement.integratedLufs).toBeCloseTo(again.measurement.integratedLufs!, 2)
      expect(measurement.truePeakDbtp).toBeCloseTo(again.measurement.truePeakDbtp!, 1)
      expect(Math.abs(measurement.durationMs - again.measurement.durationMs)).toBeLessThan(25)
      expect(Math.abs(report.missedByLu)).toBeLessThanOrEqual(0.2)
      expect(shares).toEqual([...shares].sort((a, b) => a - b))
    },
  )

  it('ends at once when it is stopped, and leaves no program behind', async () => {
    const { run, stop } = untilDone()
    const task = runSound(await finishing('stopped'), run, server)
    await expect.poll(() => running('long.wav')).toBe(true)
    stop.abort(new Error('given up'))
    await expect(task).rejects.toThrow('given up')
    await expect.poll(() => running('long.wav')).toBe(false)
  })

  it('that was stopped before it began does not begin', async () => {
    const { run, stop } = untilDone()
    stop.abort(new Error('given up'))
    await expect(runSound({ kind: 'measure', source: source('long.wav'), expectedMs: 0 }, run, server)).rejects.toThrow(
      'given up',
    )
  })

  it('fails at once where its thread cannot begin', async () => {
    const task = { kind: 'measure' as const, source: source('long.wav'), expectedMs: 0 }
    await expect(runSound(task, untilDone().run, { serverDir: join(folder, 'nothing') })).rejects.toThrow(SoundFailure)
  })

  it('tells why it failed in the words of the program behind it', async () => {
    const task = await finishing('failing')
    const failing = runSound(
      { ...task, recipe: { ...task.recipe, encoding: 'm4a' }, folder: '/proc' },
      untilDone().run,
      server,
    )
    await expect(failing).rejects.toThrow(SoundFailure)
    await expect(failing).rejects.toThrow(/sound\.m4a/)
  })

  it('of a file that is not there is an error, and hangs nowhere', async () => {
    const task = { kind: 'measure', source: source('missing.wav'), expectedMs: 0 } as const
    await expect(runSound(task, untilDone().run, server)).rejects.toThrow('ffmpeg found no sound in')
  })
})
