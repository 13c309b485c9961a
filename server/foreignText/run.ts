import { join, resolve } from 'node:path'
import { Worker } from 'node:worker_threads'
import { NoTranscript } from '@core/transcript/cue'
import type { Configuration } from '../configuration'
import type { TextAnswers, TextTask } from './tasks'

/** A text could not be read within the time and the memory that there are for it. */
export class TooMuchText extends Error {
  constructor() {
    super('It takes too much time or memory to be read.')
  }
}

/** Of a feed of 25 MB all is looked through. */
const limitMs: Readonly<Record<TextTask['kind'], number>> = {
  addresses: 60_000,
  check: 60_000,
  compare: 60_000,
  transcript: 20_000,
  draft: 20_000,
  'transcript fault': 10_000,
  'chapters fault': 10_000,
}
const mostMemoryMb = 2_000
const mostAtOnce = 2
/** Threads that are at work, and those that have nothing to do. */
let running = 0
const idle: Worker[] = []
const line: (() => void)[] = []

/**
 * Has text that others wrote read by a thread, so that nothing else waits for it. Throws NoTranscript where it is said to be one and
 * is none, and TooMuchText where it is not done in time, or the thread ends on it.
 */
export async function readText<T extends TextTask>(
  task: T,
  { serverDir }: Pick<Configuration, 'serverDir'>,
): Promise<TextAnswers[T['kind']]> {
  if (running >= mostAtOnce) await new Promise<void>(go => line.push(go))
  else running++
  try {
    return await asked(idle.pop() ?? start(serverDir), task)
  } finally {
    const next = line.shift()
    if (next) next()
    else running--
  }
}

function start(serverDir: string): Worker {
  const worker = new Worker(join(resolve(serverDir), 'textWorker.js'), {
    resourceLimits: { maxOldGenerationSizeMb: mostMemoryMb },
  })
  worker.once('exit', () => {
    const at = idle.indexOf(worker)
    if (at >= 0) idle.splice(at, 1)
  })
  return worker
}

type Said<T extends TextTask> = { answer: TextAnswers[T['kind']] } | { noTranscript: string }

function asked<T extends TextTask>(worker: Worker, task: T): Promise<TextAnswers[T['kind']]> {
  return new Promise((done, fail) => {
    worker.ref()
    const end = (): void => {
      clearTimeout(timer)
      worker.off('message', answered).off('error', ended).off('exit', ended)
    }
    const answered = (said: Said<T>): void => {
      end()
      // One that waits for work keeps nobody alive.
      worker.unref()
      idle.push(worker)
      if ('answer' in said) done(said.answer)
      else fail(new NoTranscript(said.noTranscript))
    }
    const ended = (): void => {
      end()
      worker.on('error', () => undefined)
      fail(new TooMuchText())
    }
    const timer = setTimeout(() => {
      ended()
      void worker.terminate()
    }, limitMs[task.kind])
    worker.on('message', answered).once('error', ended).once('exit', ended)
    worker.postMessage(task)
  })
}
