import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'

/** Sound made by ffmpeg on the spot: a quiet beat of two tones, as the given format. */
export function makeSound(
  path: string,
  seconds: number,
  coding: string[],
  source = `sine=frequency=220:sample_rate=44100:duration=${seconds}`,
): Buffer {
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', source, ...coding, path])
  return readFileSync(path)
}

/** What ffprobe counts, packet by packet: packets and the length of what they hold, in ms. */
export function probe(path: string): { packets: number; durationMs: number } {
  const out = execFileSync(
    'ffprobe',
    [
      '-v',
      'error',
      '-select_streams',
      'a:0',
      '-count_packets',
      '-show_entries',
      'stream=nb_read_packets,duration:format=duration',
      '-of',
      'json',
      path,
    ],
    { encoding: 'utf8' },
  )
  const { streams, format } = JSON.parse(out) as {
    streams: { nb_read_packets: string; duration?: string }[]
    format: { duration: string }
  }
  return {
    packets: Number(streams[0]!.nb_read_packets),
    durationMs: Number(streams[0]!.duration ?? format.duration) * 1000,
  }
}

/** How many samples ffmpeg decodes, in ms: what is heard, without what the encoder added at the ends. */
export function decodedMs(path: string, sampleRateHz = 44_100): number {
  const bytes = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', path, '-map', '0:a:0', '-ac', '1', '-ar', String(sampleRateHz), '-f', 's16le', '-'],
    { maxBuffer: 1e9 },
  )
  return (bytes.length / 2 / sampleRateHz) * 1000
}
