import { spawn } from 'node:child_process'
import { createWriteStream } from 'node:fs'
import { join } from 'node:path'
import { once } from 'node:events'
import { wavHead, wavHeadBytes } from '@core/audio/wav'
import { type Features, FeatureBuilder, alignmentRateHz } from '@core/transcript/alignment/features'
import { estimate, type Aligned, alignUnits, type Unit } from '@core/transcript/alignment/forcedAlignment'
import { framesOf, type Source } from './source'
import type { SoundTask } from './tasks'

/** What espeak-ng writes: one channel of 16 bit at 22,050 Hz. */
const spokenRateHz = 22_050
const spokenForm = { sampleRateHz: spokenRateHz, channels: 1, bitsPerSample: 16 } as const
/** Speech and its pauses are faster read than spoken. */
const wordsPerMinute = 160
/** Of a second of speech so much goes to the listening, the rest to the laying. */
const heardShare = 0.6

/** Finds where each part of a script is said in a sound: the script is spoken, and the one sound laid over the other. */
export async function alignScript(
  { source, expectedMs, script, folder }: Extract<SoundTask, { kind: 'align' }>,
  progress: (share: number) => void,
): Promise<Aligned[]> {
  const { texts, speakers, pinnedMs, voice } = script
  const sound = await describe({ ...source, sampleRateHz: alignmentRateHz, channels: 1 }, ms =>
    progress((ms / Math.max(1, expectedMs)) * heardShare * 0.5),
  )
  if (voice === null)
    return estimate(
      texts.map(({ length }) => length),
      sound,
    )
  const path = join(folder, 'script.wav')
  const spoken = await speak(texts, voice, path, share => progress(heardShare * (0.5 + share * 0.25)))
  const length = spoken.at(-1)?.toMs ?? 1
  const described = await describe({ path, sampleRateHz: alignmentRateHz, channels: 1, junkBytes: 0 }, ms =>
    progress(heardShare * (0.75 + (ms / length) * 0.25)),
  )
  return alignUnits(
    spoken.map((unit, at): Unit => ({ ...unit, speaker: speakers[at] ?? null, pinnedMs: pinnedMs[at] ?? null })),
    described,
    sound,
  )
}

async function describe(source: Source, heard: (ms: number) => void): Promise<Features> {
  const builder = new FeatureBuilder()
  let samples = 0
  for await (const part of framesOf(source)) {
    builder.push(part)
    samples += part.length
    heard((samples / alignmentRateHz) * 1000)
  }
  return builder.finish()
}

/** Speaks texts one after the other into a file; answers where each stands in it. */
async function speak(
  texts: readonly string[],
  voice: string,
  path: string,
  progress: (share: number) => void,
): Promise<{ fromMs: number; toMs: number }[]> {
  const file = createWriteStream(path)
  file.write(wavHead(spokenForm, null))
  const places: { fromMs: number; toMs: number }[] = []
  let bytes = 0
  for (let from = 0; from < texts.length; from += spokenAtOnce) {
    const parts = await Promise.all(texts.slice(from, from + spokenAtOnce).map(text => spokenText(text, voice)))
    for (const part of parts) {
      const { lead, tail } = soundIn(part)
      places.push({ fromMs: msOf(bytes + lead), toMs: msOf(bytes + tail) })
      bytes += part.length
      if (!file.write(part)) await once(file, 'drain')
    }
    progress((from + parts.length) / texts.length)
  }
  file.end()
  await once(file, 'close')
  return places
}
const spokenAtOnce = 2
const msOf = (bytes: number): number => (bytes / 2 / spokenRateHz) * 1000

/** Where in a spoken text something is heard, in bytes. */
function soundIn(part: Buffer): { lead: number; tail: number } {
  const samples = new Int16Array(part.buffer.slice(part.byteOffset, part.byteOffset + (part.length & ~1)))
  const least = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0) * 0.03
  const first = samples.findIndex(sample => Math.abs(sample) > least)
  const last = samples.findLastIndex(sample => Math.abs(sample) > least)
  return { lead: Math.max(0, first) * 2, tail: (last < 0 ? samples.length : last) * 2 }
}

function spokenText(text: string, voice: string): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const child = spawn('espeak-ng', ['-v', voice, '-s', String(wordsPerMinute), '--stdin', '--stdout'], {
      stdio: ['pipe', 'pipe', 'ignore'],
      timeout: longestTextMs,
      killSignal: 'SIGKILL',
    })
    const parts: Buffer[] = []
    child.stdout.on('data', (part: Buffer) => parts.push(part))
    child.stdin.on('error', () => undefined)
    child.once('error', reject)
    child.once('close', code => {
      if (code === 0) resolve(Buffer.concat(parts).subarray(wavHeadBytes))
      else reject(new Error(`espeak-ng ended with ${code}`))
    })
    child.stdin.end(text)
  })
}
const longestTextMs = 60_000
