import { spawn } from 'node:child_process'
import { createReadStream } from 'node:fs'
import type { Readable } from 'node:stream'
import { Mp3Scanner } from '@core/audio/mp3Scan'
import { type FileSource, reading } from './decoder'

/** Where the frames of an MP3 begin: one place of so many are kept. */
export interface Mp3Places {
  sampleRateHz: number
  samplesPerFrame: number
  /** Samples at the beginning that a decoder leaves out. */
  skippedSamples: number
  /** The byte at which each 32nd frame begins. */
  bytes: number[]
}
const framesPerPlace = 32
/** What a decoder of layer III adds to the encoder’s own delay (common practice, from memory: 528 and 1). */
const decoderDelay = 529
/** So many frames before the one that is wanted hold all that it is made of (ISO/IEC 11172-3: main_data_begin is 511 bytes at most). */
const framesBefore = 20

/** Walks an MP3; null where it has no frames. */
export async function mp3PlacesOf(path: string): Promise<Mp3Places | null> {
  const bytes: number[] = []
  let frames = 0
  let samplesPerFrame = 0
  const scanner = new Mp3Scanner((atByte, frame) => {
    samplesPerFrame ||= frame.samples
    if (frames++ % framesPerPlace === 0) bytes.push(atByte)
  })
  for await (const chunk of createReadStream(path, { highWaterMark: 256 * 1024 })) scanner.push(chunk as Buffer)
  const scan = scanner.finish()
  return (
    scan && {
      sampleRateHz: scan.sampleRateHz,
      samplesPerFrame,
      skippedSamples: scan.delaySamples > 0 ? scan.delaySamples + decoderDelay : 0,
      bytes,
    }
  )
}

/** A resampler, and a codec that goes by what was before, have come to the same after so long. */
const settledSeconds = 1

/**
 * ffmpeg’s parameters that decode a file from a frame of the wanted clock on, as it is when it is decoded from its beginning. All
 * begin at a whole second, where any two clocks meet, and so a resampler puts its samples where it would have put them.
 *
 * @param places where it is an MP3: ffmpeg itself finds a moment of one by its bit rate only
 */
export function decodingFrom(source: FileSource, fromFrame: number, places: Mp3Places | null): string[] {
  const { sampleRateHz, channels } = source
  const second = Math.max(0, Math.floor(fromFrame / sampleRateHz) - settledSeconds)
  const skipped = fromFrame - second * sampleRateHz
  const begins =
    second === 0
      ? { input: reading(source), filters: [] }
      : places
        ? inMp3(source, second, places)
        : inOther(source, second)
  const filters = [
    ...begins.filters,
    `aresample=${sampleRateHz}`,
    ...(skipped > 0 ? [`atrim=start_sample=${skipped}`] : []),
  ]
  return [...begins.input, '-af', filters.join(','), '-ac', String(channels), '-f', 's16le', '-']
}

const inOther = (source: FileSource, second: number) => ({
  input: ['-ss', String(second), ...reading(source)],
  filters: [] as string[],
})

function inMp3(
  source: FileSource,
  second: number,
  { sampleRateHz, samplesPerFrame, skippedSamples, bytes }: Mp3Places,
) {
  const wanted = second * sampleRateHz + skippedSamples
  const place = Math.floor((wanted / samplesPerFrame - framesBefore) / framesPerPlace)
  const begun = Math.min(Math.max(0, place), bytes.length - 1)
  const before = wanted - begun * framesPerPlace * samplesPerFrame
  return {
    input: reading({ ...source, junkBytes: bytes[begun]! }),
    filters: [`atrim=start_sample=${before}`, 'asetpts=PTS-STARTPTS'],
  }
}

/** How long nobody may read before a decoder is ended. */
const unreadMs = 60_000

/** Decodes by what `decodingFrom` says: interleaved frames of 16 bits, little-endian. Whoever has read enough destroys the stream. */
export function decode(parameters: readonly string[]): Readable {
  const child = spawn('ffmpeg', parameters, { stdio: ['ignore', 'pipe', 'ignore'] })
  const { stdout } = child
  const watch = setTimeout(() => stdout.destroy(), unreadMs)
  child.once('error', error => stdout.destroy(error))
  stdout.once('close', () => {
    clearTimeout(watch)
    child.kill('SIGKILL')
  })
  return stdout.on('data', () => watch.refresh()).pause()
}
