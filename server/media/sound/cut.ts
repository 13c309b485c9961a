import { spawn } from 'node:child_process'
import { endOf, type FileSource, reading } from './decoder'

const limitMs = 120_000
/** So that a cut in mid-word does not click. */
const fadeSeconds = 0.02
/** LAME makes everything quieter by this before it encodes (from memory of its sources; cut.test.ts measures it). */
const encoderScale = 0.95

/**
 * Cuts a stretch out of a sound into an MP3 without tags: 128 kbit/s, 44.1 kHz, as many channels as it has, at most two.
 * Throws with ffmpeg's words where it fails, and where it takes over two minutes.
 */
export async function cutMp3(
  source: Pick<FileSource, 'path' | 'junkBytes'> & { channels: number },
  { fromMs, toMs }: { fromMs: number; toMs: number },
  path: string,
): Promise<void> {
  const seconds = (toMs - fromMs) / 1000
  const filters = `volume=${1 / encoderScale},afade=t=in:d=${fadeSeconds},afade=t=out:st=${seconds - fadeSeconds}:d=${fadeSeconds}`
  const form = ['-ar', '44100', '-ac', String(Math.min(2, source.channels)), '-c:a', 'libmp3lame', '-b:a', '128000']
  const bare = ['-map_metadata', '-1', '-map_chapters', '-1', '-id3v2_version', '0', '-write_id3v1', '0', '-f', 'mp3']
  const child = spawn(
    'ffmpeg',
    [
      '-y',
      '-ss',
      String(fromMs / 1000),
      '-t',
      String(seconds),
      ...reading(source),
      '-af',
      filters,
      ...form,
      ...bare,
      path,
    ],
    { stdio: ['ignore', 'ignore', 'pipe'] },
  )
  let complaint = ''
  child.stderr.on('data', (words: Buffer) => {
    complaint = `${complaint}${words.toString()}`.slice(-2000)
  })
  const watchdog = setTimeout(() => child.kill('SIGKILL'), limitMs)
  try {
    if ((await endOf(child)) !== 0) throw new Error(complaint || 'ffmpeg ended too early.')
  } finally {
    clearTimeout(watchdog)
  }
}
