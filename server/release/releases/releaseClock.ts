import { setTimeout as wait } from 'node:timers/promises'
import type { Platform } from '../../platform/platform'
import { repeat, type Repeated } from '../../platform/repeat'
import { dueReleases, mostAtOnce } from './due'

const everyMs = 500
/** The first ones go out sooner where there are few in a step. */
const fewAtFirst = 10
const [pauseShare, longestPauseMs] = [0.3, 150]
/** So often somebody is told of what is not ready. */
const noteEveryMs = 5_000

/** Releases what is due and retires what is at its end, twice a second; also what fell due while no server ran, at the first look. */
export function startReleaseClock(
  platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events' | 'configuration'>,
  report: (error: unknown) => void,
): Repeated {
  const { releaseDue, retireDue, noteUnready } = dueReleases(platform)
  let notedAt = -Infinity

  async function look(goesOn: () => boolean): Promise<void> {
    let goOn: (() => void) | null = null
    try {
      for (let most = fewAtFirst; goesOn(); most = Math.min(2 * most, mostAtOnce)) {
        const began = performance.now()
        if ((await releaseDue(most)) + (await retireDue()) === 0) break
        // What has gone out is looked at and made findable once all of it is out: of thousands that would take most of the time.
        goOn ??= platform.jobs.hold('checking')
        // Where thousands are due, others get their turn between.
        await wait(Math.min(longestPauseMs, (performance.now() - began) * pauseShare))
      }
      if (performance.now() - notedAt > noteEveryMs) {
        await noteUnready()
        notedAt = performance.now()
      }
    } finally {
      goOn?.()
    }
  }
  return repeat(everyMs, look, report)
}
