/** Something that goes on until it is stopped; then what was in hand is awaited. */
export interface Repeated {
  stop(): Promise<void>
}

/**
 * Does something now and again, `everyMs` after it was done last, until it is stopped; a failure is reported and the next turn comes
 * all the same. `goesOn` tells a long turn whether to go on.
 */
export function repeat(
  everyMs: number,
  act: (goesOn: () => boolean) => Promise<unknown>,
  report: (error: unknown) => void,
): Repeated {
  let isStopped = false
  let timer: NodeJS.Timeout | undefined
  let turn: Promise<void>
  const next = (): void => {
    turn = act(() => !isStopped)
      .then(() => undefined, report)
      .then(() => {
        if (!isStopped) timer = setTimeout(next, everyMs)
      })
  }
  next()
  return {
    async stop() {
      isStopped = true
      clearTimeout(timer)
      await turn
    },
  }
}
