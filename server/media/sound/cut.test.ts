import { execFileSync } from 'node:child_process'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { makeSound } from '@core/audio/sound.fixture'
import { cutMp3 } from './cut'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lake-letter-cut-'))
})
afterAll(() => rm(folder, { recursive: true }))

/** The level of the middle of a sound in dB, by ffmpeg's volumedetect, to a tenth. */
function meanDb(path: string): number {
  const said = execFileSync(
    'sh',
    ['-c', 'ffmpeg -hide_banner -nostdin -ss 1 -t 3 -i "$0" -af volumedetect -f null - 2>&1', path],
    { encoding: 'utf8' },
  )
  return Number(/mean_volume: (-?[\d.]+) dB/.exec(said)![1])
}

it.each([
  ['a quiet tone', 'sine=frequency=440:sample_rate=44100:duration=6,volume=-20dB'],
  ['a tone at full scale', 'sine=frequency=440:sample_rate=44100:duration=6,volume=18dB'],
])('a stretch of %s is as loud as what it is cut from, to a tenth of a decibel', async (_name, source) => {
  const [whole, cut] = [join(folder, 'whole.wav'), join(folder, 'cut.mp3')]
  makeSound(whole, 6, ['-c:a', 'pcm_s24le'], source)
  await cutMp3({ path: whole, junkBytes: 0, channels: 1 }, { fromMs: 500, toMs: 5_500 }, cut)
  expect(Math.abs(meanDb(cut) - meanDb(whole))).toBeLessThanOrEqual(0.1)
})
