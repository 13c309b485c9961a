import { inject } from 'vitest'

declare module 'vitest' {
  export interface ProvidedContext {
    /** By how many ms the clock of the houses is ahead of the world's; 0 unless the tests begin at a moment that was named. */
    clockOffsetMs: number
  }
}

/** The current moment, as the houses have it. */
export const now = (): Date => new Date(Date.now() + inject('clockOffsetMs'))

/** As a literal of SQL, so many ms from now on. */
export const sqlMoment = (laterMs = 0): string =>
  `'${new Date(+now() + laterMs).toISOString().replace('T', ' ').slice(0, 23)}'`

/** What a server needs to be told to go by the clock that its database has. */
export const clockOf = (): Record<string, string> => (inject('clockOffsetMs') === 0 ? {} : { MOVABLE_CLOCK: 'yes' })
