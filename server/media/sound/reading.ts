import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { open, stat } from 'node:fs/promises'
import { parseFile } from 'music-metadata'
import type { Mark } from '@core/chapters/marks'
import { cutShortFinding, cutShortOgg, type Finding, mp3Findings, otherTracks } from '@core/audio/findings'
import { soundType } from '@core/audio/formats'
import { id3v2Length } from '@core/audio/mp3Frame'
import { type Mp3Scan, Mp3Scanner } from '@core/audio/mp3Scan'
import { isOggCutShort } from '@core/audio/oggEnd'
import { sniff, sniffBytes, type SoundFormat } from '@core/audio/sniff'
import { announcedWavMs } from '@core/audio/wavEnd'
import { cut, isBlank, oneLine } from '@core/words/line'
import { opensOnlySound, reading } from './decoder'
import { refusalFor } from './refusals'

/** What a file's own tags say. */
export interface FileTags {
  title: string | null
  artist: string | null
  album: string | null
  track: number | null
  year: number | null
}

/** Everything that can be found out about an audio file without decoding all of it. */
export interface AudioFacts {
  fingerprint: string
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
  chapters: Mark[]
  findings: Finding[]
}

/**
 * Reads an audio file: content, frames, tags, chapters. Nothing of its name is believed, and what it says of itself is cut to
 * what can be kept. Throws a Refusal where it is no sound that can be worked with.
 */
export async function readAudio(path: string): Promise<AudioFacts> {
  const format = await formatOf(path)
  if (format === 'empty' || format === 'text' || format === 'cut in its tag') throw refusalFor(format)
  const { sha256: fingerprint, bytes, scan } = await walk(path, format === 'mp3')
  const probe = await probed(path)
  const stream = scan ? null : soundOf(probe, bytes, format)
  if (!(await canBeDecoded(path, scan?.soundFromBytes ?? 0))) throw refusalFor('no sound')
  const tracks = probe.streams?.filter(({ codec_type: type }) => type === 'audio').length ?? 1
  const findings = [
    ...(scan ? mp3Findings(scan) : []),
    ...otherTracks(tracks),
    ...(await endFindings(format, path, bytes, stream?.durationMs ?? 0)),
  ]
  const common = { fingerprint, bytes, chapters: chaptersOf(probe), findings, ...(await tagsOf(path)) }
  if (!scan) return { ...common, ...stream!, soundFromBytes: null, soundToBytes: null }
  const { durationMs, bitRateBps, sampleRateHz, channels, soundFromBytes, soundToBytes } = scan
  return {
    ...common,
    type: 'audio/mpeg',
    codec: 'mp3',
    durationMs: Math.round(durationMs),
    bitRateBps,
    sampleRateHz,
    channels,
    soundFromBytes,
    soundToBytes,
  }
}

interface Probe {
  format?: { duration?: string; format_name?: string }
  streams?: {
    codec_type?: string
    codec_name?: string
    sample_rate?: string
    channels?: number
    duration?: string
    bit_rate?: string
    disposition?: { attached_pic?: number }
  }[]
  chapters?: { start_time?: string; tags?: { title?: string } }[]
}

/** The first stream of sound in a file; its length is the one that is announced. */
function soundOf(
  probe: Probe,
  bytes: number,
  format: SoundFormat,
): Pick<AudioFacts, 'type' | 'codec' | 'durationMs' | 'bitRateBps' | 'sampleRateHz' | 'channels'> {
  const streams = probe.streams ?? []
  const sound = streams.find(stream => stream.codec_type === 'audio')
  if (streams.some(stream => stream.codec_type === 'video' && !stream.disposition?.attached_pic))
    throw refusalFor('film')
  if (!sound) throw refusalFor(format === 'unknown' ? 'unknown' : 'no sound')
  const [sampleRateHz, channels] = [Number(sound.sample_rate), sound.channels ?? 0]
  if (!(sampleRateHz > 0 && channels > 0)) throw refusalFor('no sound')
  const seconds = Number(sound.duration ?? probe.format?.duration)
  // A header that lost its end tells no length, or one that nothing could have; then the measuring does, which hears every sample.
  const codec = (sound.codec_name ?? 'unknown').slice(0, 20)
  const isTold = !isGuessed(probe.format?.format_name ?? '', codec)
  const known = isTold && Number.isFinite(seconds) && seconds > 0 && seconds < longestSeconds
  return {
    type: soundType(probe.format?.format_name ?? '', codec),
    codec,
    durationMs: known ? Math.round(seconds * 1000) : 0,
    bitRateBps: Math.min(mostBitRateBps, Math.round(Number(sound.bit_rate) || (known ? (bytes * 8) / seconds : 0))),
    sampleRateHz,
    channels,
  }
}

/**
 * Whether a length is guessed from a bit rate: of streams that are in no container, and of sound in a WAV whose samples differ
 * in size. What is really there, only the measuring hears.
 */
const isGuessed = (formatName: string, codec: string): boolean =>
  /^(?:aac|ac3|eac3|dts|amr|mp2|loas)$/.test(formatName) ||
  (/^w(?:av|64)$/.test(formatName) && !codec.startsWith('pcm_'))

/** As long and as many as their columns hold. */
const longestSeconds = 4_000_000
const mostBitRateBps = 4_000_000_000

/** What the first bytes say, behind any ID3v2 tags, whose pictures can be larger than what is looked at. */
async function formatOf(path: string): Promise<SoundFormat | 'cut in its tag'> {
  const { size } = await stat(path)
  const file = await open(path)
  try {
    let at = 0
    for (;;) {
      const { buffer, bytesRead } = await file.read(Buffer.alloc(10), 0, 10, at)
      const tagBytes = id3v2Length(buffer.subarray(0, bytesRead), 0)
      if (tagBytes === 0) break
      at += tagBytes
      if (at >= size) return 'cut in its tag'
    }
    const { buffer, bytesRead } = await file.read(Buffer.alloc(sniffBytes), 0, sniffBytes, at)
    return sniff(buffer.subarray(0, bytesRead))
  } finally {
    await file.close()
  }
}

/** An Ogg page takes at most 65,307 bytes, and what stands before a WAV's sound rarely more. */
const endBytes = 66_000

/** Whether a file breaks off that does not show it by how much can be decoded of it. */
async function endFindings(format: SoundFormat, path: string, bytes: number, durationMs: number): Promise<Finding[]> {
  if (format !== 'ogg' && format !== 'wav') return []
  const file = await open(path)
  try {
    const length = Math.min(bytes, endBytes)
    const { buffer } = await file.read(Buffer.alloc(length), 0, length, format === 'ogg' ? bytes - length : 0)
    if (format === 'ogg') return isOggCutShort(buffer) ? [cutShortOgg(durationMs)] : []
    const cut = cutShortFinding(announcedWavMs(buffer) ?? 0, durationMs)
    return cut ? [cut] : []
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
  await runChild(
    'ffprobe',
    ['-v', 'error', ...opensOnlySound, '-show_streams', '-show_format', '-show_chapters', '-of', 'json', path],
    chunk => void parts.push(chunk),
  )
  try {
    return JSON.parse(Buffer.concat(parts).toString()) as Probe
  } catch {
    // Of a file that it cannot open it writes nothing, or half of an answer.
    return {}
  }
}

/** Whether there is any sound in the first minute; a file can be built like one with sound and hold none. */
async function canBeDecoded(path: string, junkBytes: number): Promise<boolean> {
  let bytes = 0
  await runChild(
    'ffmpeg',
    [...reading({ path, junkBytes }), '-t', '60', '-frames:a', '1', '-f', 's16le', '-'],
    chunk => {
      bytes += chunk.length
    },
  )
  return bytes > 0
}

const mostChapters = 500
const longestWords = 300

/** The chapters that a file brings, in the order of time; those without words are left out. */
function chaptersOf({ chapters = [] }: Probe): Mark[] {
  return chapters
    .map(({ start_time: from, tags }) => ({ fromMs: Math.round(Number(from) * 1000), title: words(tags?.title) ?? '' }))
    .filter(({ fromMs, title }) => Number.isSafeInteger(fromMs) && fromMs >= 0 && title !== '')
    .sort((one, other) => one.fromMs - other.fromMs)
    .filter(({ fromMs }, index, all) => index === 0 || fromMs > all[index - 1]!.fromMs)
    .slice(0, mostChapters)
}

/** A tag's words as they can be kept; null where there is nothing to see in them. */
function words(text: string | undefined): string | null {
  const line = cut(oneLine((text ?? '').toWellFormed()).trim(), longestWords)
  return isBlank(line) ? null : line
}

async function tagsOf(path: string): Promise<{ tags: FileTags; picture: Uint8Array | null }> {
  try {
    const { common } = await parseFile(path, { duration: false })
    const count = (value: number | null | undefined, most: number): number | null =>
      Number.isInteger(value) && value! > 0 && value! <= most ? value! : null
    return {
      tags: {
        title: words(common.title),
        artist: words(common.artist),
        album: words(common.album),
        track: count(common.track.no, 99_999),
        year: count(common.year, 9_999),
      },
      picture: common.picture?.[0]?.data ?? null,
    }
  } catch {
    // Tags that cannot be read are as good as none; the sound was judged before.
    return { tags: { title: null, artist: null, album: null, track: null, year: null }, picture: null }
  }
}

const longestRunMs = 4 * 60_000

/** Runs a program and hands on what it writes. Its exit code is not judged: a damaged file makes it grumble, what it wrote counts. */
function runChild(program: string, parameters: string[], onOutput: (chunk: Buffer) => void): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(program, parameters, {
      stdio: ['ignore', 'pipe', 'ignore'],
      timeout: longestRunMs,
      killSignal: 'SIGKILL',
    })
    child.stdout.on('data', onOutput)
    child.once('error', reject)
    child.once('close', (_code, ended) => (ended ? reject(new Error(`${program} was ended by ${ended}`)) : resolve()))
  })
}
