/**
 * What is done one after the other: who asks while it is done waits, and then has it done once more, so that it finds what is
 * left by itself. A failure is told to the one that asked.
 */
export function oneByOne(act: () => Promise<void>): () => Promise<void> {
  let last: Promise<void> = Promise.resolve()
  return () => (last = last.then(act, act))
}
