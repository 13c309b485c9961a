import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { open } from 'node:fs/promises'
import { parseFile } from 'music-metadata'
import { type Finding, mp3Findings } from '@core/audio/findings'
import { type Mp3Scan, Mp3Scanner } from '@core/audio/mp3Scan'
import { sniff, sniffBytes } from '@core/audio/sniff'
import { type Waveform, WaveformBuilder } from '@core/audio/waveform'
import type { FileTags } from './models'
import { refusalFor } from './refusals'

/** Everything the machine finds out about an audio file. */
export interface AudioFacts {
  sha256: string
  bytes: number
  type: 'audio/mpeg' | 'audio/mp4'
  durationMs: number
  codec: string
  bitRateBps: number
  sampleRateHz: number
  channels: number
  tags: FileTags
  picture: Uint8Array | null
  findings: Finding[]
  waveform: Waveform
}

/**
 * Reads an audio file: content, frames, tags, waveform. The decoding runs in child processes.
 * Throws a Refusal where the file is not whole MP3 or M4A sound, whatever its name says.
 */
export async function readAudio(path: string): Promise<AudioFacts> {
  const format = sniff(await head(path))
  if (format !== 'mp3' && format !== 'm4a') throw refusalFor(format)
  const { sha256, bytes, scan } = await walk(path)
  const probe = await probed(path)
  const junkBytes = format === 'mp3' ? scan?.leadingJunkBytes ?? 0 : 0
  const waveform = await drawn(path, junkBytes)
  if (waveform.length === 0) throw refusalFor('no sound')
  const common = { sha256, bytes, waveform, ...await tagsOf(path) }
  if (format === 'mp3') {
    if (!scan) throw refusalFor('unknown')
    return {
      ...common,
      type: 'audio/mpeg',
      codec: 'mp3',
      durationMs: Math.round(scan.durationMs),
      bitRateBps: scan.bitRateBps,
      sampleRateHz: scan.sampleRateHz,
      channels: scan.channels,
      findings: mp3Findings(scan),
    }
  }
  return { ...common, type: 'audio/mp4', findings: [], ...m4aFacts(probe, bytes) }
}

interface Probe {
  streams?: {
    codec_type?: string
    codec_name?: string
    sample_rate?: string
    channels?: number
    duration?: string
    bit_rate?: string
    disposition?: { attached_pic?: number }
  }[]
}

function m4aFacts(probe: Probe, bytes: number) {
  const streams = probe.streams ?? []
  const sound = streams.find(stream => stream.codec_type === 'audio')
  if (streams.some(stream => stream.codec_type === 'video' && !stream.disposition?.attached_pic)) throw refusalFor('film')
  if (!sound) throw refusalFor('no sound')
  if (sound.codec_name !== 'aac') throw refusalFor('other codec', sound.codec_name)
  const seconds = Number(sound.duration)
  return {
    codec: 'aac',
    durationMs: Math.round(seconds * 1000),
    bitRateBps: Math.round(Number(sound.bit_rate) || (bytes * 8) / seconds),
    sampleRateHz: Number(sound.sample_rate),
    channels: sound.channels ?? 1,
  }
}

async function head(path: string): Promise<Uint8Array> {
  const file = await open(path)
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(sniffBytes), 0, sniffBytes, 0)
    return buffer.subarray(0, bytesRead)
  } finally {
    await file.close()
  }
}

/** One pass over the bytes: their SHA-256, their number, and the frames of an MP3. */
async function walk(path: string): Promise<{ sha256: string; bytes: number; scan: Mp3Scan | null }> {
  const hash = createHash('sha256')
  const scanner = new Mp3Scanner()
  let bytes = 0
  for await (const chunk of createReadStream(path, { highWaterMark: 256 * 1024 })) {
    hash.update(chunk)
    scanner.push(chunk)
    bytes += chunk.length
  }
  return { sha256: hash.digest('hex'), bytes, scan: scanner.finish() }
}

async function probed(path: string): Promise<Probe> {
  const parts: Buffer[] = []
  await runChild('ffprobe', ['-v', 'error', '-show_streams', '-of', 'json', path], chunk => void parts.push(chunk))
  return JSON.parse(Buffer.concat(parts).toString() || '{}') as Probe
}

/** Draws the sound, decoded to 8 kHz mono; empty where nothing could be decoded. */
async function drawn(path: string, skipBytes: number): Promise<Waveform> {
  const builder = new WaveformBuilder()
  let odd: Buffer = Buffer.alloc(0)
  const skip = skipBytes > 0 ? ['-skip_initial_bytes', String(skipBytes), '-f', 'mp3'] : []
  await runChild('ffmpeg', ['-v', 'error', '-nostdin', ...skip, '-i', path, '-map', '0:a:0', '-ac', '1', '-ar', '8000', '-f', 's16le', '-'], chunk => {
    const bytes = Buffer.concat([odd, chunk])
    const even = bytes.length - (bytes.length % 2)
    odd = bytes.subarray(even)
    builder.push(new Int16Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + even)))
  })
  return builder.finish()
}

async function tagsOf(path: string): Promise<{ tags: FileTags; picture: Uint8Array | null }> {
  try {
    const { common } = await parseFile(path, { duration: false })
    const text = (value: string | undefined): string | null => value?.replaceAll('\0', '').trim().slice(0, 300) || null
    return {
      tags: { title: text(common.title), artist: text(common.artist), album: text(common.album), track: common.track.no, year: common.year ?? null },
      picture: common.picture?.[0]?.data ?? null,
    }
  } catch {
    // Tags that cannot be read are as good as none; the sound was judged before.
    return { tags: { title: null, artist: null, album: null, track: null, year: null }, picture: null }
  }
}

const longestRunMs = 20 * 60_000

/** Runs a program and hands on what it writes. Its exit code is not judged: a damaged file makes it grumble, what it wrote counts. */
function runChild(program: string, parameters: string[], onOutput: (chunk: Buffer) => void): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(program, parameters, { stdio: ['ignore', 'pipe', 'ignore'], timeout: longestRunMs })
    child.stdout.on('data', onOutput)
    child.once('error', reject)
    child.once('close', (_code, signal) => signal ? reject(new Error(`${program} was ended by ${signal}`)) : resolve())
  })
}
