import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

// The bench is built elsewhere: the sounds are found from where it is started, the root of the project.
// Speech with known times: spoken by another synthesiser (flite) than the one that scripts are laid by (espeak-ng), a sentence
// at a time, with pauses between, music before and behind, and the same music 15 dB under it.
const rateHz = 16_000
const sounds = join(process.cwd(), 'demo/sounds')
const segmenter = new Intl.Segmenter('en', { granularity: 'sentence' })

/** What the demo's sounds say, in paragraphs of sentences. */
export const spokenParagraphs = (...names: string[]): string[][] =>
  names.flatMap(name =>
    readFileSync(join(sounds, 'spoken', `${name}.txt`), 'utf8')
      .split('\n')
      .filter(Boolean)
      .map(line => [...segmenter.segment(line)].map(({ segment }) => segment.trim()).filter(Boolean)),
  )

interface Voice {
  name: 'slt' | 'rms' | 'awb'
  /** How long everything takes, against the usual. */
  stretch: number
}

/** Sentences, each as it is spoken. */
export const spokenSentences = (
  sentences: readonly string[],
  folder: string,
  voiceOf: (at: number) => Voice = () => ({ name: 'slt', stretch: 1 }),
): Float32Array[] =>
  sentences.map((text, at) => {
    const path = join(folder, `${at}.wav`)
    const { name, stretch } = voiceOf(at)
    execFileSync('flite', ['-voice', name, '--setf', `duration_stretch=${stretch}`, '-t', text, '-o', path])
    const bytes = readFileSync(path)
    if (bytes.readUInt32LE(24) !== rateHz) throw new Error(`flite writes ${bytes.readUInt32LE(24)} Hz.`)
    // 16 bit, one channel, behind a head of 44 bytes.
    const samples = bytes.buffer.slice(bytes.byteOffset + 44, bytes.byteOffset + (bytes.length & ~1))
    return Float32Array.from(new Int16Array(samples), value => value / 32_768)
  })

function music(): Float32Array {
  const bytes = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', join(sounds, 'br-31.mp3'), '-t', '5', '-ac', '1', '-ar', String(rateHz), '-f', 'f32le', '-'],
    { maxBuffer: 1 << 28 },
  )
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length))
}

const power = (sound: Float32Array): number =>
  Math.sqrt(sound.reduce((sum, value) => sum + value * value, 0) / sound.length)

/** Spoken sentences, by their places, as an MP3 in a folder; with when each begins in it, and how long it is. */
export function mixedSpeech(
  parts: readonly Float32Array[],
  places: readonly number[],
  folder: string,
  name: string,
): { path: string; beginsMs: Map<number, number>; durationMs: number } {
  const bed = music()
  const beginsMs = new Map<number, number>()
  const pieces: Float32Array[] = [bed, new Float32Array(rateHz)]
  let samples = bed.length + rateHz
  for (const place of places) {
    const part = parts[place]!
    const loudest = part.reduce((most, value) => Math.max(most, Math.abs(value)), 0)
    beginsMs.set(place, ((samples + part.findIndex(value => Math.abs(value) > loudest * 0.03)) / rateHz) * 1000)
    // Pauses from a tenth of a second to nine, always the same.
    const pause = new Float32Array(Math.round(rateHz * (0.1 + ((place * 37) % 80) / 100)))
    pieces.push(part, pause)
    samples += part.length + pause.length
  }
  pieces.push(new Float32Array(rateHz * 3), bed)
  samples += rateHz * 3 + bed.length
  const mixed = new Int16Array(samples)
  const gain = (power(parts[0]!) / power(bed)) * 10 ** (-15 / 20)
  let at = 0
  for (const piece of pieces)
    for (const value of piece) {
      mixed[at] = Math.max(-1, Math.min(1, (value + bed[at % bed.length]! * gain) * 0.7)) * 32_767
      at++
    }
  const [raw, path] = [join(folder, `${name}.raw`), join(folder, `${name}.mp3`)]
  writeFileSync(raw, new Uint8Array(mixed.buffer))
  const input = ['-f', 's16le', '-ar', String(rateHz), '-ac', '1', '-i', raw]
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...input, '-b:a', '64k', path])
  return { path, beginsMs, durationMs: (samples / rateHz) * 1000 }
}

/** The value under which such a share of values lies. */
export const share = (values: readonly number[], part: number): number =>
  values.toSorted((one, other) => one - other)[Math.min(values.length - 1, Math.floor(values.length * part))]!
