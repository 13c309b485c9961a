import { parentPort, workerData } from 'node:worker_threads'
import { DamageFinder } from '@core/audio/damage'
import { SoundMeter } from '@core/audio/soundMeter'
import { surroundChannels, SurroundMeter } from '@core/audio/surroundMeter'
import { decoded } from './decoder'
import { finishSound } from './finish'
import { Refusal } from './refusals'
import type { Measured, SoundNews, SoundTask } from './tasks'

// A thread of its own for one task: the event loop of the server only hands it on. What only some tasks need is loaded by these.

const say = (news: SoundNews, transfer: ArrayBuffer[] = []): void => parentPort!.postMessage(news, transfer)
let saidAtMs = 0

function sayProgress(share: number): void {
  if (performance.now() - saidAtMs < 200) return
  saidAtMs = performance.now()
  say({ progress: Math.min(0.99, share) })
}

async function measure({ source, expectedMs }: Extract<SoundTask, { kind: 'measure' }>): Promise<Measured> {
  const { sampleRateHz, channels } = source
  const meter = channels === surroundChannels ? new SurroundMeter(sampleRateHz) : new SoundMeter(sampleRateHz, channels)
  const damage = new DamageFinder(sampleRateHz, channels)
  let frames = 0
  for await (const sound of decoded(source, damage)) {
    meter.push(sound)
    frames += sound.length / channels
    sayProgress(((frames / sampleRateHz) * 1000) / Math.max(1, expectedMs))
  }
  const { measurement, waveform } = meter.finish()
  return { measurement: { ...measurement, damaged: damage.places() }, waveform }
}

const task = workerData as SoundTask
try {
  if (task.kind === 'read') {
    const { readAudio } = await import('./reading')
    say({ answer: await readAudio(task.path) })
  } else if (task.kind === 'lay') {
    const { layScript } = await import('./lay')
    say({ answer: await layScript(task, sayProgress) })
  } else {
    const answer = task.kind === 'measure' ? await measure(task) : await finishSound(task, sayProgress)
    say({ answer }, [answer.waveform.buffer as ArrayBuffer])
  }
} catch (error) {
  if (error instanceof Refusal) say({ refusal: { title: error.title, detail: error.detail, todo: error.todo } })
  else say({ failure: error instanceof Error ? error.message : String(error) })
}
