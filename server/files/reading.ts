import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { open } from 'node:fs/promises'
import { parseFile } from 'music-metadata'
import { type Finding, mp3Findings } from '@core/audio/findings'
import { id3v2Length } from '@core/audio/mp3Frame'
import { type Mp3Scan, Mp3Scanner } from '@core/audio/mp3Scan'
import { sniff, sniffBytes } from '@core/audio/sniff'
import { reading } from '../sound/decoder'
import type { FileTags } from './models'
import { refusalFor } from './refusals'

/** Everything that can be found out about an audio file without decoding all of it. */
export interface AudioFacts {
  sha256: string
  bytes: number
  type: string
  durationMs: number
  codec: string
  bitRateBps: number
  sampleRateHz: number
  channels: number
  soundFromBytes: number | null
  soundToBytes: number | null
  tags: FileTags
  picture: Uint8Array | null
  findings: Finding[]
}

const types: Readonly<Record<string, string>> = { mp3: 'audio/mpeg', m4a: 'audio/mp4', wav: 'audio/wav', flac: 'audio/flac', ogg: 'audio/ogg' }

/**
 * Reads an audio file: content, frames, tags. Nothing of its name is believed.
 * Throws a Refusal where it is no sound that can be worked with.
 */
export async function readAudio(path: string): Promise<AudioFacts> {
  const format = sniff(await head(path))
  if (!types[format]) throw refusalFor(format)
  const { sha256, bytes, scan } = await walk(path, format === 'mp3')
  if (format === 'mp3' && !scan) throw refusalFor('unknown')
  const stream = scan ? null : soundOf(await probed(path), bytes, format)
  if (!await canBeDecoded(path, scan?.soundFromBytes ?? 0)) throw refusalFor('no sound')
  const common = { sha256, bytes, type: types[format]!, ...await tagsOf(path) }
  if (!scan) return { ...common, ...stream!, soundFromBytes: null, soundToBytes: null, findings: [] }
  const { durationMs, bitRateBps, sampleRateHz, channels, soundFromBytes, soundToBytes } = scan
  return { ...common, codec: 'mp3', durationMs: Math.round(durationMs), bitRateBps, sampleRateHz, channels, soundFromBytes, soundToBytes, findings: mp3Findings(scan) }
}

interface Probe {
  format?: { duration?: string }
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

/** The one stream of sound in a file; its length is that of its samples. */
function soundOf(probe: Probe, bytes: number, format: string): Pick<AudioFacts, 'codec' | 'durationMs' | 'bitRateBps' | 'sampleRateHz' | 'channels'> {
  const streams = probe.streams ?? []
  const sound = streams.find(stream => stream.codec_type === 'audio')
  if (streams.some(stream => stream.codec_type === 'video' && !stream.disposition?.attached_pic)) throw refusalFor('film')
  if (!sound) throw refusalFor('no sound')
  if (format === 'm4a' && sound.codec_name !== 'aac') throw refusalFor('other codec', sound.codec_name)
  const seconds = Number(sound.duration ?? probe.format?.duration)
  // A header that lost its end tells no length; then the measuring does, which hears every sample.
  const known = Number.isFinite(seconds) && seconds > 0
  return {
    codec: sound.codec_name ?? 'unknown',
    durationMs: known ? Math.round(seconds * 1000) : 0,
    bitRateBps: Math.round(Number(sound.bit_rate) || (known ? (bytes * 8) / seconds : 0)),
    sampleRateHz: Number(sound.sample_rate),
    channels: sound.channels ?? 1,
  }
}

/** The first bytes behind any ID3v2 tags, whose pictures can be larger than what is looked at. */
async function head(path: string): Promise<Uint8Array> {
  const file = await open(path)
  try {
    let at = 0
    for (;;) {
      const { buffer, bytesRead } = await file.read(Buffer.alloc(10), 0, 10, at)
      const tagBytes = id3v2Length(buffer.subarray(0, bytesRead), 0)
      if (tagBytes === 0) break
      at += tagBytes
    }
    const { buffer, bytesRead } = await file.read(Buffer.alloc(sniffBytes), 0, sniffBytes, at)
    return buffer.subarray(0, bytesRead)
  } finally {
    await file.close()
  }
}

/** One pass over the bytes: their SHA-256, their number, and the frames of an MP3. */
async function walk(path: string, isMp3: boolean): Promise<{ sha256: string; bytes: number; scan: Mp3Scan | null }> {
  const hash = createHash('sha256')
  const scanner = new Mp3Scanner()
  let bytes = 0
  for await (const chunk of createReadStream(path, { highWaterMark: 256 * 1024 })) {
    hash.update(chunk)
    if (isMp3) scanner.push(chunk)
    bytes += chunk.length
  }
  return { sha256: hash.digest('hex'), bytes, scan: isMp3 ? scanner.finish() : null }
}

async function probed(path: string): Promise<Probe> {
  const parts: Buffer[] = []
  await runChild('ffprobe', ['-v', 'error', '-show_streams', '-show_format', '-of', 'json', path], chunk => void parts.push(chunk))
  return JSON.parse(Buffer.concat(parts).toString() || '{}') as Probe
}

/** Whether there is any sound in the first minute; a file can be built like one with sound and hold none. */
async function canBeDecoded(path: string, junkBytes: number): Promise<boolean> {
  let bytes = 0
  await runChild('ffmpeg', [...reading({ path, junkBytes }), '-t', '60', '-ac', '1', '-ar', '8000', '-f', 's16le', '-'], chunk => { bytes += chunk.length })
  return bytes > 0
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
