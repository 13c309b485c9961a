import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import type { FinishPlan } from '@core/audio/finisher'
import { readPyramid } from '@core/audio/pyramid'
import { makeSound, probe } from '@core/audio/sound.fixture'
import { runSound, SoundFailure } from './run'

const folder = mkdtempSync(join(tmpdir(), 'lake-letter-run-'))
afterAll(() => rmSync(folder, { recursive: true }))

const server = { serverDir: 'dist/server' }
const untilDone = () => {
  const shares: number[] = []
  const stop = new AbortController()
  return { shares, stop, run: { signal: stop.signal, isLastTry: false, progress: (share: number) => void shares.push(share) } }
}
const source = (name: string) => ({ path: join(folder, name), sampleRateHz: 44_100, channels: 2 as const, junkBytes: 0 })
const plan: FinishPlan = {
  sampleRateHz: 44_100, channels: 2, fromFrame: 0, toFrame: 44_100 * 1000, fades: { inFrames: 0, outFrames: 0, shape: 'linear' },
  gainBeforeDb: 0, levelling: 0, gainDb: 3, ceilingDbtp: -1,
}
const running = (name: string): boolean => execFileSync('ps', ['-eo', 'args'], { encoding: 'utf8' }).split('\n').some(line => line.startsWith('ffmpeg') && line.includes(join(folder, name)))

describe('a task on sound, in a worker thread', () => {
  it('measures, and says how far it is', async () => {
    makeSound(join(folder, 'long.wav'), 400, ['-ac', '2'])
    const { shares, run } = untilDone()
    const { measurement, waveform } = await runSound({ kind: 'measure', source: source('long.wav'), plan: null, expectedMs: 400_000 }, run, server)
    expect(measurement.durationMs).toBeCloseTo(400_000, -1)
    expect(readPyramid(waveform).durationMs).toBe(measurement.durationMs)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares.every(share => share >= 0 && share < 1)).toBe(true)
  })

  it('finishes into a file of the same length', async () => {
    const { run } = untilDone()
    const path = join(folder, 'made.mp3')
    await runSound({ kind: 'finish', source: source('long.wav'), plan, encoding: ['-c:a', 'libmp3lame', '-b:a', '64k'], path, expectedMs: 400_000 }, run, server)
    expect(Math.abs(probe(path).durationMs - 400_000)).toBeLessThan(80)
  })

  it('ends at once when it is stopped, and leaves no program behind', async () => {
    const { run, stop } = untilDone()
    const task = runSound({ kind: 'finish', source: source('long.wav'), plan, encoding: ['-c:a', 'libmp3lame', '-b:a', '320k'], path: join(folder, 'stopped.mp3'), expectedMs: 400_000 }, run, server)
    await expect.poll(() => running('long.wav')).toBe(true)
    stop.abort(new Error('given up'))
    await expect(task).rejects.toThrow('given up')
    await expect.poll(() => running('long.wav') || running('stopped.mp3')).toBe(false)
  })

  it('that was stopped before it began does not begin', () => {
    const { run, stop } = untilDone()
    stop.abort(new Error('given up'))
    expect(() => runSound({ kind: 'measure', source: source('long.wav'), plan: null, expectedMs: 0 }, run, server)).toThrow('given up')
  })

  it('tells why it failed in the words of the program behind it', async () => {
    const { run } = untilDone()
    const failing = runSound({ kind: 'finish', source: source('long.wav'), plan, encoding: ['-c:a', 'no-such-coder'], path: join(folder, 'never.mp3'), expectedMs: 0 }, run, server)
    await expect(failing).rejects.toThrow(SoundFailure)
    await expect(failing).rejects.toThrow(/no-such-coder/)
  })

  it('of a file that is not there finds nothing, and hangs nowhere', async () => {
    const { measurement } = await runSound({ kind: 'measure', source: source('missing.wav'), plan: null, expectedMs: 0 }, untilDone().run, server)
    expect(measurement).toMatchObject({ durationMs: 0, integratedLufs: null, truePeakDbtp: null })
  })
})
