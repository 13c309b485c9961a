import { type ChildProcess, spawn } from 'node:child_process'
import type { Readable } from 'node:stream'
import { DamageFinder } from '@core/audio/damage'
import { surroundChannels } from '@core/audio/surroundMeter'

/** What a sound is decoded to. */
export interface Rendering {
  sampleRateHz: number
  /** Five are left, right, centre and both surrounds, whatever the file has. */
  channels: 1 | 2 | typeof surroundChannels
  /** Where one channel is made of one side of two. */
  side?: 'left' | 'right'
}

/** A file, and what it is decoded to. */
export interface FileSource extends Rendering {
  path: string
  /** Bytes before an MP3's first frame that are no sound. */
  junkBytes: number
}

/** How long a program may stay silent before it counts as hung. */
const stallMs = 60_000

/**
 * Only what holds sound is opened, and only as itself: no playlists and no scripts, which would make ffmpeg fetch from
 * addresses and read files that somebody else named (OWASP SSRF prevention cheat sheet).
 */
export const opensOnlySound: readonly string[] = [
  '-protocol_whitelist',
  'file,pipe',
  '-format_whitelist',
  'mov,mp3,wav,w64,flac,ogg,aiff,caf,au,asf,aac,matroska,webm,amr,ape,wv,tta,mpc,mpc8,ac3,eac3,voc',
]

/** ffmpeg's parameters that read a source; what follows says where the sound goes. */
export function reading({ path, junkBytes }: Pick<FileSource, 'path' | 'junkBytes'>): string[] {
  const skip = junkBytes > 0 ? ['-skip_initial_bytes', String(junkBytes), '-f', 'mp3'] : []
  return ['-v', 'error', '-nostdin', ...opensOnlySound, ...skip, '-i', path, '-map', '0:a:0']
}

function mixing({ channels, side }: Rendering): string[] {
  if (side) return ['-af', `pan=mono|c0=c${side === 'left' ? 0 : 1}`]
  return channels === surroundChannels ? ['-af', 'aformat=channel_layouts=5.0'] : ['-ac', String(channels)]
}

/**
 * Interleaved frames of a file as ffmpeg decodes them, 32 bit, full scale 1; what cannot be sound is left out, and told to
 * `damage`. Throws where ffmpeg was ended, hangs, or finds nothing.
 */
export async function* decoded(
  source: FileSource,
  damage = new DamageFinder(source.sampleRateHz, source.channels),
): AsyncGenerator<Float32Array> {
  const child = spawn(
    'ffmpeg',
    [...reading(source), ...mixing(source), '-ar', String(source.sampleRateHz), '-f', 'f32le', '-'],
    { stdio: ['ignore', 'pipe', 'ignore'] },
  )
  const ended = endOf(child)
  ended.catch(() => undefined)
  let isEmpty = true
  try {
    for await (const sound of frames(child.stdout, source.channels, child)) {
      isEmpty &&= sound.length === 0
      yield damage.push(sound)
    }
    const code = await ended
    // Of a damaged file what it wrote counts; of one that is gone it wrote nothing.
    if (isEmpty && code !== 0) throw new Error(`ffmpeg found no sound in ${source.path} (exit code ${code}).`)
  } finally {
    child.kill('SIGKILL')
    await ended.catch(() => undefined)
  }
}

/** Interleaved frames as they come from a program, which is ended where it stays silent. */
export async function* frames(stream: Readable, channels: number, child: ChildProcess): AsyncGenerator<Float32Array> {
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
    child.once('close', (code, signal) =>
      signal ? reject(new Error(`${child.spawnfile} was ended by ${signal}`)) : resolve(code),
    )
  })
}
