/**
 * Joins questions that are asked at the same time into one: whoever asks while an answer is under way gets the next
 * one, so that every answer was fetched after it was asked for, and a thousand askers cost two questions.
 */
export function joined<T>(ask: () => Promise<T>): () => Promise<T> {
  let current: Promise<T> | null = null
  let next: Promise<T> | null = null

  function start(): Promise<T> {
    const answer = ask().finally(() => { current = null })
    current = answer
    return answer
  }

  return () => {
    if (!current) return start()
    next ??= current.catch(() => undefined).then(() => {
      next = null
      return start()
    })
    return next
  }
}
