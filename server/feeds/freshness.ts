import type { Transaction } from 'sequelize'

let writes = 0

/** Says, once the transaction is committed, that this process has changed what feeds tell. */
export function noteFeedWrite(transaction: Transaction): void {
  transaction.afterCommit(() => { writes++ })
}

export interface Joined<T> {
  /** The kept answer, while it serves. */
  kept(): T | null
  ask(): Promise<T>
}

/**
 * Joins questions into one: whoever asks while an answer is under way gets the next one, and an answer serves for
 * `keepMs` unless this process has written since. So an answer never misses a write of this process that was
 * committed before it was asked for, and misses one of another process for `keepMs` at most.
 */
export function joined<T>(ask: () => Promise<T>, keepMs: number): Joined<T> {
  let kept: { answer: T; untilMs: number; writes: number } | null = null
  let current: Promise<T> | null = null
  let next: Promise<T> | null = null

  function start(): Promise<T> {
    const before = writes
    const answer = ask().finally(() => { current = null })
    current = answer
    answer.then(known => { kept = { answer: known, untilMs: performance.now() + keepMs, writes: before } }, () => { kept = null })
    return answer
  }

  const keptAnswer = (): T | null => kept && kept.writes === writes && performance.now() < kept.untilMs ? kept.answer : null

  async function answer(): Promise<T> {
    const known = keptAnswer()
    if (known !== null) return known
    if (!current) return start()
    next ??= current.catch(() => undefined).then(() => {
      next = null
      return start()
    })
    return next
  }

  return { kept: keptAnswer, ask: answer }
}
