import type { Transaction } from 'sequelize'

let writes = 0

/** Says, once the transaction is committed, that this process has changed what feeds tell. */
export function noteFeedWrite(transaction: Transaction): void {
  transaction.afterCommit(() => { writes++ })
}

/**
 * Joins questions into one: whoever asks while an answer is under way gets the next one, and an answer serves for
 * `keepMs` unless this process has written since. So an answer never misses a write of this process that was
 * committed before it was asked for, and misses one of another process for `keepMs` at most.
 */
export function joined<T>(ask: () => Promise<T>, keepMs: number): () => Promise<T> {
  let kept: { answer: Promise<T>; untilMs: number; writes: number } | null = null
  let current: Promise<T> | null = null
  let next: Promise<T> | null = null

  function start(): Promise<T> {
    const before = writes
    const answer = ask().finally(() => { current = null })
    current = answer
    answer.then(() => { kept = { answer, untilMs: performance.now() + keepMs, writes: before } }, () => { kept = null })
    return answer
  }

  return () => {
    if (kept && kept.writes === writes && performance.now() < kept.untilMs) return kept.answer
    if (!current) return start()
    next ??= current.catch(() => undefined).then(() => {
      next = null
      return start()
    })
    return next
  }
}
