import type { Platform } from '../platform'
import { releaseService } from './service'

const everyMs = 500

/** Releases what is due, twice a second; also what fell due while no server ran, at the first look. */
export function startReleaseClock(
  platform: Pick<Platform, 'database' | 'clock' | 'jobs' | 'events' | 'configuration' | 'media'>,
  report: (error: unknown) => void,
): { stop(): Promise<void> } {
  const releases = releaseService(platform)
  let stopped = false
  let timer: NodeJS.Timeout | undefined
  let looking: Promise<void> = Promise.resolve()

  async function look(): Promise<void> {
    try {
      while (!stopped && (await releases.releaseDue()) > 0);
    } catch (error) {
      report(error)
    }
    if (!stopped)
      timer = setTimeout(() => {
        looking = look()
      }, everyMs)
  }

  looking = look()
  return {
    async stop() {
      stopped = true
      clearTimeout(timer)
      await looking
    },
  }
}
