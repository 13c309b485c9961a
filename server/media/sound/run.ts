import { MessageChannel } from 'node:worker_threads'
import type { Configuration } from '../../platform/configuration'
import type { JobRun } from '../../platform/jobs/kinds'
import { Refusal } from '../../platform/refusal'
import { threads } from '../../platform/threads'
import type { SoundAnswer, SoundOrder, SoundSaid, SoundTask } from './tasks'

/** A task could not be done; `reason` is what the program behind it said. */
export class SoundFailure extends Error {
  constructor(readonly reason: string) {
    super(reason)
  }
}

/** The lanes of the jobs see to it that there are fewer. */
const mostAtOnce = 16
const work = threads<SoundOrder, SoundSaid>('soundWorker.js', { mostAtOnce, mostMemoryMb: 256 })

/** Has a task done by a thread. Throws SoundFailure where it fails, Refusal where a file is none that can be worked with, and the signal's reason where it is aborted. */
export async function runSound<T extends SoundTask>(
  task: T,
  { signal, progress }: Pick<JobRun, 'signal' | 'progress'>,
  { serverDir }: Pick<Configuration, 'serverDir'>,
): Promise<SoundAnswer<T>> {
  signal.throwIfAborted()
  const { port1: near, port2: far } = new MessageChannel()
  near.on('message', progress).unref()
  try {
    const said = await work({ task, far }, serverDir, signal, [far]).catch((error: Error) => {
      signal.throwIfAborted()
      throw new SoundFailure(error.message)
    })
    if ('refusal' in said) throw new Refusal(said.refusal.title, said.refusal.detail, said.refusal.todo)
    if ('failure' in said) throw new SoundFailure(said.failure)
    return said.answer as SoundAnswer<T>
  } finally {
    near.close()
  }
}
