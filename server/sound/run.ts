import { join, resolve } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { Configuration } from '../configuration'
import type { JobRun } from '../jobs/kinds'
import { Refusal } from './refusals'
import type { SoundAnswer, SoundNews, SoundTask } from './tasks'

/** A task could not be done; `reason` is what the program behind it said. */
export class SoundFailure extends Error {
  constructor(readonly reason: string) {
    super(reason)
  }
}

/** Runs a task in a worker thread of its own. Throws SoundFailure where it fails, Refusal where a file is none that can be worked with, and the signal's reason where it is aborted. */
export function runSound<T extends SoundTask>(
  task: T,
  { signal, progress }: Pick<JobRun, 'signal' | 'progress'>,
  { serverDir }: Pick<Configuration, 'serverDir'>,
): Promise<SoundAnswer<T>> {
  signal.throwIfAborted()
  return new Promise((done, fail) => {
    const worker = new Worker(join(resolve(serverDir), 'soundWorker.js'), {
      workerData: task,
      resourceLimits: { maxOldGenerationSizeMb: 256 },
    })
    // The worker's children notice: their pipes close with it.
    const stop = (): void => {
      fail(signal.reason as Error)
      void worker.terminate()
    }
    signal.addEventListener('abort', stop, { once: true })
    worker.on('message', (news: SoundNews) => {
      if ('progress' in news) progress(news.progress)
      else if ('answer' in news) done(news.answer as SoundAnswer<T>)
      else if ('refusal' in news) fail(new Refusal(news.refusal.title, news.refusal.detail, news.refusal.todo))
      else fail(new SoundFailure(news.failure))
    })
    worker.once('error', fail)
    worker.once('exit', () => {
      signal.removeEventListener('abort', stop)
      fail(new SoundFailure('The worker ended before it was done.'))
    })
  })
}
