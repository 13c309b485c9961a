import { DamageFinder } from '@core/audio/damage'
import { SoundMeter } from '@core/audio/soundMeter'
import { surroundChannels, SurroundMeter } from '@core/audio/surroundMeter'
import { Refusal } from '../../platform/refusal'
import { framesOf } from './source'
import { finishSound } from './finish'
import type { Measured, SoundOrder, SoundSaid, SoundTask } from './tasks'

// A thread of its own: the event loop of the server only hands a task on. What only some tasks need is loaded by these.

type Progress = (share: number) => void

/** Says how far it is, five times a second at most. */
function sparing(say: Progress): Progress {
  let saidAtMs = 0
  return share => {
    if (performance.now() - saidAtMs < 200) return
    saidAtMs = performance.now()
    say(Math.min(0.99, share))
  }
}

async function measure(
  { source, expectedMs }: Extract<SoundTask, { kind: 'measure' }>,
  sayProgress: Progress,
): Promise<Measured> {
  const { sampleRateHz, channels } = source
  const meter = channels === surroundChannels ? new SurroundMeter(sampleRateHz) : new SoundMeter(sampleRateHz, channels)
  const damage = new DamageFinder(sampleRateHz, channels)
  let frames = 0
  for await (const sound of framesOf(source, damage)) {
    meter.push(sound)
    frames += sound.length / channels
    sayProgress(((frames / sampleRateHz) * 1000) / Math.max(1, expectedMs))
  }
  const { measurement, waveform } = meter.finish()
  return { measurement: { ...measurement, damaged: damage.places() }, waveform }
}

async function doTask(
  task: SoundTask,
  sayProgress: Progress,
): Promise<Extract<SoundSaid, { answer: unknown }>['answer']> {
  switch (task.kind) {
    case 'read':
      return (await import('./reading')).readAudio(task.path)
    case 'align':
      return (await import('./forcedAlignment')).alignScript(task, sayProgress)
    case 'measure':
      return measure(task, sayProgress)
    case 'finish':
      return finishSound(task, sayProgress)
  }
}

export default async function answer({ task, far }: SoundOrder): Promise<SoundSaid> {
  try {
    return {
      answer: await doTask(
        task,
        sparing(share => far.postMessage(share)),
      ),
    }
  } catch (error) {
    if (error instanceof Refusal) return { refusal: { title: error.title, detail: error.detail, todo: error.todo } }
    return { failure: error instanceof Error ? error.message : String(error) }
  } finally {
    far.close()
  }
}
