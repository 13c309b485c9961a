import { type ChildProcess, spawn } from 'node:child_process'
import type { Readable } from 'node:stream'

/** Which sound to decode, and what to. */
export interface Source {
  path: string
  sampleRateHz: number
  channels: 1 | 2
  /** Bytes before an MP3's first frame that are no sound. */
  junkBytes: number
}

/** How long a program may stay silent before it counts as hung. */
const stallMs = 60_000

/** ffmpeg's parameters that read a source; what follows says where the sound goes. */
export function reading({ path, junkBytes }: Pick<Source, 'path' | 'junkBytes'>): string[] {
  const skip = junkBytes > 0 ? ['-skip_initial_bytes', String(junkBytes), '-f', 'mp3'] : []
  return ['-v', 'error', '-nostdin', ...skip, '-i', path, '-map', '0:a:0']
}

/** Interleaved frames of a source as ffmpeg decodes them, 32 bit, full scale 1. Throws where ffmpeg was ended or hangs. */
export async function* decoded(source: Source): AsyncGenerator<Float32Array> {
  const child = spawn('ffmpeg', [...reading(source), '-ac', String(source.channels), '-ar', String(source.sampleRateHz), '-f', 'f32le', '-'], { stdio: ['ignore', 'pipe', 'ignore'] })
  const ended = endOf(child)
  try {
    yield* frames(child.stdout, source.channels, child)
    await ended
  } finally {
    child.kill('SIGKILL')
    await ended.catch(() => undefined)
  }
}

async function* frames(stream: Readable, channels: number, child: ChildProcess): AsyncGenerator<Float32Array> {
  const frameBytes = channels * 4
  let odd: Buffer = Buffer.alloc(0)
  let watchdog = setTimeout(() => child.kill('SIGKILL'), stallMs)
  try {
    for await (const chunk of stream as AsyncIterable<Buffer>) {
      clearTimeout(watchdog)
      const bytes = odd.length > 0 ? Buffer.concat([odd, chunk]) : chunk
      const whole = bytes.length - (bytes.length % frameBytes)
      odd = bytes.subarray(whole)
      // A view on floats starts at a multiple of four bytes.
      if (bytes.byteOffset % 4 === 0) yield new Float32Array(bytes.buffer as ArrayBuffer, bytes.byteOffset, whole / 4)
      else yield new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + whole) as ArrayBuffer)
      watchdog = setTimeout(() => child.kill('SIGKILL'), stallMs)
    }
  } finally {
    clearTimeout(watchdog)
  }
}

/** Resolves with a program's exit code; throws where a signal ended it or it could not be started. */
export function endOf(child: ChildProcess): Promise<number | null> {
  return new Promise((resolve, reject) => {
    child.once('error', reject)
    child.once('close', (code, signal) => signal ? reject(new Error(`${child.spawnfile} was ended by ${signal}`)) : resolve(code))
  })
}
