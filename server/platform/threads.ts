import { join, resolve } from 'node:path'
import type { Transferable } from 'node:worker_threads'
import Tinypool from 'tinypool'

/** A thread that has nothing to do for so long is ended. */
const idleMs = 60_000

interface Limits {
  /** More than these wait. */
  mostAtOnce: number
  mostMemoryMb: number
}

/**
 * Threads that do the tasks of one file of the server's build, and stay warm for the next; one that waits keeps nobody alive. A task
 * is given up with its thread where the signal is aborted: then, and where the thread ends on it, it throws.
 */
export function threads<Task, Answer>(file: string, { mostAtOnce, mostMemoryMb }: Limits) {
  const pools = new Map<string, Tinypool>()
  function poolIn(serverDir: string): Tinypool {
    const known = pools.get(serverDir)
    if (known) return known
    const pool = new Tinypool({
      filename: join(resolve(serverDir), file),
      runtime: 'worker_threads',
      minThreads: 0,
      maxThreads: mostAtOnce,
      idleTimeout: idleMs,
      // A thread that waits must hear of the programs that it has started.
      useAtomics: false,
      resourceLimits: { maxOldGenerationSizeMb: mostMemoryMb },
    })
    // One that ends while it has nothing to do is no loss.
    pool.on('error', () => undefined).setMaxListeners(0)
    pools.set(serverDir, pool)
    return pool
  }
  return (task: Task, serverDir: string, signal: AbortSignal, transferList: Transferable[] = []): Promise<Answer> => {
    const pool = poolIn(serverDir)
    return new Promise((done, fail) => {
      const stop = new AbortController()
      // A thread that fails before it has a task tells only the pool: what waits for it would wait for ever.
      const failed = (error: Error): void => {
        fail(error)
        stop.abort()
      }
      pool.once('error', failed)
      pool
        .run(task, { signal: AbortSignal.any([signal, stop.signal]), transferList })
        .then(done, fail)
        .finally(() => pool.off('error', failed))
    })
  }
}
