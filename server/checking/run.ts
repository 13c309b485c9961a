import { join, resolve } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { Configuration } from '../configuration'
import { AppError } from '../errors'
import { type FeedAnswers, type FeedTask, workOn } from './tasks'

/** Below this a feed is read in less time than a thread takes to begin. */
const longBytes = 300_000
const limitMs = 60_000

const bytesIn = (task: FeedTask): number =>
  task.kind === 'compare' ? task.earlier.length + task.later.length : task.bytes.length

/** Has it done; of a long feed by a thread of its own, so that nothing else waits. Throws `feed-refused` where that takes a minute, or too much memory. */
export function run<T extends FeedTask>(
  task: T,
  { serverDir }: Pick<Configuration, 'serverDir'>,
): Promise<FeedAnswers[T['kind']]> {
  if (bytesIn(task) < longBytes) return Promise.resolve(workOn(task))
  return new Promise((done, fail) => {
    const worker = new Worker(join(resolve(serverDir), 'feedWorker.js'), {
      workerData: task,
      resourceLimits: { maxOldGenerationSizeMb: 2_000 },
    })
    const tooMuch = (): void => fail(new AppError('feed-refused', 'The feed takes too much time or memory to be read.'))
    const timer = setTimeout(() => {
      tooMuch()
      void worker.terminate()
    }, limitMs)
    worker.once('message', (answer: FeedAnswers[T['kind']]) => done(answer))
    worker.once('error', tooMuch)
    worker.once('exit', () => {
      clearTimeout(timer)
      tooMuch()
    })
  })
}
