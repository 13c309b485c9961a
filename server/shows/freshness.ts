import { LRUCache } from 'lru-cache'
import type { Transaction } from 'sequelize'

let writes = 0

/** Says, once the transaction is committed, that this process has changed what feeds tell. */
export function noteFeedWrite(transaction: Transaction): void {
  transaction.afterCommit(() => { writes++ })
}

export interface Joined<T> {
  /** The kept answer for a key, while it serves; undefined where there is none. */
  kept(key: string): T | undefined
  ask(key: string): Promise<T>
}

interface Batch<T> { keys: Set<string>; answers: Promise<ReadonlyMap<string, T>> }

const mostKept = 5_000

/**
 * Joins questions about keys into one for all that are asked together: whoever asks while an answer is under way gets the
 * next one, and an answer serves for `keepMs` unless this process has written since. So an answer never misses a write of
 * this process that was committed before it was asked for, and misses one of another process for `keepMs` at most.
 */
export function joined<T>(ask: (keys: readonly string[]) => Promise<ReadonlyMap<string, T>>, nothing: T, keepMs: number): Joined<T> {
  const answered = new LRUCache<string, { answer: T; untilMs: number; writes: number }>({ max: mostKept })
  let current: Batch<T> | null = null
  let next: Batch<T> | null = null

  function kept(key: string): T | undefined {
    const known = answered.get(key)
    return known && known.writes === writes && performance.now() < known.untilMs ? known.answer : undefined
  }

  /** A batch that asks once the one before it is answered; keys can join it until then. */
  function batchBehind(before: Promise<unknown>): Batch<T> {
    const batch: Batch<T> = { keys: new Set(), answers: Promise.resolve(new Map()) }
    batch.answers = before.catch(() => undefined).then(async () => {
      if (next === batch) next = null
      current = batch
      const writesBefore = writes
      try {
        const answers = await ask([...batch.keys])
        for (const key of batch.keys) answered.set(key, { answer: answers.get(key) ?? nothing, untilMs: performance.now() + keepMs, writes: writesBefore })
        return answers
      } finally {
        if (current === batch) current = null
      }
    })
    return batch
  }

  return {
    kept,
    async ask(key) {
      const known = kept(key)
      if (known !== undefined) return known
      next ??= batchBehind(current?.answers ?? Promise.resolve())
      next.keys.add(key)
      return (await next.answers).get(key) ?? nothing
    },
  }
}
