import { spawn } from 'node:child_process'
import { once } from 'node:events'
import type { Encoding } from '@core/audio/recipe'
import { endOf, frames } from './decoder'

/** Samples that each encoder puts before the sound and that players leave out again. ffmpeg reports them as initial padding. */
const leadSamples: Readonly<Record<Encoding['codec'], number>> = { mp3: 1105, aac: 1024 }

const forms: Readonly<
  Record<
    Encoding['codec'],
    { name: string; coding: readonly string[]; file: string; stream: string; streamFormat: string }
  >
> = {
  mp3: {
    name: 'sound.mp3',
    coding: ['-c:a', 'libmp3lame'],
    file: 'f=mp3:id3v2_version=0:write_id3v1=0',
    stream: 'f=mp3:write_xing=0:id3v2_version=0',
    streamFormat: 'mp3',
  },
  aac: { name: 'sound.m4a', coding: ['-c:a', 'aac'], file: 'f=ipod', stream: 'f=adts', streamFormat: 'aac' },
}

/** The name of the file that an encoding comes to in its folder. */
export const encodedName = ({ codec }: Encoding): string => forms[codec].name

/**
 * Encodes sound into a file of a folder, and hears at once what comes out: the encoded sound is decoded while it is
 * being made and handed to `hear`, as long as the sound that went in. Throws with ffmpeg's words where it fails.
 */
export function startEncoding(
  { codec, bitRateBps, sampleRateHz, channels }: Encoding,
  folder: string,
  hear: (sound: Float32Array) => void,
) {
  const { name, coding, file, stream, streamFormat } = forms[codec]
  const raw = ['-f', 'f32le', '-ar', String(sampleRateHz), '-ac', String(channels)]
  const encoder = spawn(
    'ffmpeg',
    [
      '-v',
      'error',
      '-y',
      ...raw,
      '-i',
      '-',
      '-map',
      '0:a',
      ...coding,
      '-b:a',
      String(bitRateBps),
      '-map_metadata',
      '-1',
      '-f',
      'tee',
      `[${file}]${name}|[${stream}]pipe:1`,
    ],
    { cwd: folder, stdio: ['pipe', 'pipe', 'pipe'] },
  )
  const decoder = spawn('ffmpeg', ['-v', 'error', '-f', streamFormat, '-i', '-', ...raw, '-'], {
    stdio: ['pipe', 'pipe', 'ignore'],
  })
  let complaint = ''
  encoder.stderr.on('data', (words: Buffer) => {
    complaint = `${complaint}${words.toString()}`.slice(-2000)
  })
  // A program that ends early closes its pipe; its own end says why.
  for (const pipe of [encoder.stdin, decoder.stdin]) pipe.on('error', () => undefined)
  encoder.stdout.pipe(decoder.stdin)
  const ended = endOf(encoder)
  ended.catch(() => undefined)
  const decoderEnded = endOf(decoder)
  decoderEnded.catch(() => undefined)

  let framesIn = 0
  const pending: { at: number; sound: Float32Array }[] = []
  function flush(until: number): void {
    for (let next = pending[0]; next && next.at < until; next = pending[0]) {
      const count = Math.min(next.sound.length / channels, until - next.at)
      hear(next.sound.subarray(0, count * channels))
      if (count * channels === next.sound.length) pending.shift()
      else {
        next.sound = next.sound.subarray(count * channels)
        next.at += count
        return
      }
    }
  }

  const heard = (async () => {
    let place = -leadSamples[codec]
    for await (const sound of frames(decoder.stdout, channels, decoder)) {
      const count = sound.length / channels
      const from = Math.max(0, -place)
      // The tail is only known once all went in; by then it has not been heard yet, for the encoder runs behind.
      if (from < count) pending.push({ at: place + from, sound: sound.slice(from * channels) })
      place += count
      flush(framesIn)
    }
  })()
  return {
    async write(sound: Float32Array): Promise<void> {
      if (sound.length === 0) return
      framesIn += sound.length / channels
      if (encoder.exitCode !== null) throw new Error(complaint || 'The encoder ended too early.')
      if (!encoder.stdin.write(Buffer.from(sound.buffer, sound.byteOffset, sound.byteLength)))
        await Promise.race([once(encoder.stdin, 'drain'), ended])
    },
    async finish(): Promise<void> {
      encoder.stdin.end()
      if ((await ended) !== 0) throw new Error(complaint || 'The encoder ended too early.')
      await heard
      await decoderEnded
      flush(framesIn)
    },
    async stop(): Promise<void> {
      encoder.kill('SIGKILL')
      decoder.kill('SIGKILL')
      await Promise.allSettled([ended, decoderEnded, heard])
    },
  }
}
