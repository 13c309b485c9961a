import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { parentPort, workerData } from 'node:worker_threads'
import { Finisher } from '@core/audio/finisher'
import { SoundMeter } from '@core/audio/soundMeter'
import { decoded, endOf } from './decoder'
import type { Finished, Measured, SoundNews, SoundTask } from './tasks'

// A thread of its own for one task: the event loop of the server only hands it on.

const say = (news: SoundNews, transfer: ArrayBuffer[] = []): void => parentPort!.postMessage(news, transfer)
let frames = 0
let saidAtMs = 0

function sayProgress({ source, expectedMs }: SoundTask, added: number): void {
  frames += added
  if (performance.now() - saidAtMs < 200) return
  saidAtMs = performance.now()
  say({ progress: Math.min(0.99, ((frames / source.sampleRateHz) * 1000) / Math.max(1, expectedMs)) })
}

async function measure(task: Extract<SoundTask, { kind: 'measure' }>): Promise<Measured> {
  const { sampleRateHz, channels } = task.source
  const meter = new SoundMeter(sampleRateHz, channels)
  const finisher = task.plan && new Finisher(task.plan)
  for await (const sound of decoded(task.source)) {
    meter.push(finisher ? finisher.push(sound) : sound)
    sayProgress(task, sound.length / channels)
  }
  if (finisher) meter.push(finisher.finish().rest)
  return meter.finish()
}

async function finish(task: Extract<SoundTask, { kind: 'finish' }>): Promise<Finished> {
  const { sampleRateHz, channels } = task.source
  const encoder = spawn('ffmpeg', [
    '-v', 'error', '-y', '-f', 'f32le', '-ar', String(sampleRateHz), '-ac', String(channels), '-i', '-', ...task.encoding, task.path,
  ], { stdio: ['pipe', 'ignore', 'pipe'] })
  let complaint = ''
  encoder.stderr.on('data', (words: Buffer) => { complaint = `${complaint}${words.toString()}`.slice(-2000) })
  const broken = new Promise<never>((_resolve, reject) => encoder.stdin.once('error', reject))
  broken.catch(() => undefined)
  const ended = endOf(encoder)
  ended.catch(() => undefined)
  const write = async (sound: Float32Array): Promise<void> => {
    if (sound.length === 0) return
    if (!encoder.stdin.write(Buffer.from(sound.buffer, sound.byteOffset, sound.byteLength))) await Promise.race([once(encoder.stdin, 'drain'), broken, ended])
  }
  const finisher = new Finisher(task.plan)
  try {
    for await (const sound of decoded(task.source)) {
      await write(finisher.push(sound))
      sayProgress(task, sound.length / channels)
    }
    const { rest, ...report } = finisher.finish()
    await write(rest)
    encoder.stdin.end()
    if (await ended !== 0) throw new Error(complaint)
    return report
  } catch (error) {
    encoder.kill('SIGKILL')
    await ended.catch(() => undefined)
    throw complaint ? new Error(complaint) : error
  }
}

const task = workerData as SoundTask
try {
  const answer = task.kind === 'measure' ? await measure(task) : await finish(task)
  say({ answer }, 'waveform' in answer ? [answer.waveform.buffer as ArrayBuffer] : [])
} catch (error) {
  say({ failure: error instanceof Error ? error.message : String(error) })
}
