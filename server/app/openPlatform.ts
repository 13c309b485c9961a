import { resolve } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { type Logger, pino } from 'pino'
import { AccessDeniedError, HostNotFoundError } from 'sequelize'
import type { Clock } from '../platform/clock'
import type { Configuration } from '../platform/configuration'
import { openDatabase } from './openDatabase'
import { migrate } from '../platform/database/migrate'
import { openDeliveries } from '../platform/deliveries/open'
import { createEvents } from '../platform/events/events'
import { createJobs } from '../platform/jobs/jobs'
import { openDiskStore } from '../platform/storage/diskStore'
import type { Platform } from '../platform/platform'
import { isDatabaseDown } from '../platform/http/problems'
import { readSiteAssets } from './studio/routes'

const sameNewsMs = 10_000
/** So long a database is waited for that starts beside the server, or is very busy. */
const patienceMs = 60_000

/**
 * Does something with the database at the start, again and again while that does not answer. Throws at once where the database refuses
 * whoever asks, or where its host is unknown.
 */
export async function patiently<T>(log: Pick<Logger, 'warn'>, act: () => Promise<T>): Promise<T> {
  for (const until = performance.now() + patienceMs; ;) {
    try {
      return await act()
    } catch (error) {
      const isForGood = error instanceof AccessDeniedError || error instanceof HostNotFoundError
      if (isForGood || !isDatabaseDown(error) || performance.now() > until) throw error
      log.warn('The database does not answer yet; trying again.')
      await wait(500)
    }
  }
}

let saidAwayAt = -sameNewsMs

/** Writes what goes wrong in the background to the log; that the database is away is said once, however many ask for it. */
export function reporter(log: Logger): (error: unknown) => void {
  return error => {
    if (!isDatabaseDown(error)) return log.error(error)
    if (performance.now() - saidAwayAt < sameNewsMs) return
    saidAwayAt = performance.now()
    log.warn('The database does not answer; trying again.')
  }
}

/** Opens the database, its schema up to date, and the media store. */
export async function openPlatform(configuration: Configuration, clock: Clock): Promise<Platform> {
  const log = pino({ level: configuration.logLevel })
  const database = openDatabase(configuration.databaseUrl)
  await patiently(log, () => migrate(database))
  const events = createEvents(database, clock, reporter(log))
  return {
    log,
    configuration,
    clock,
    database,
    media: await openDiskStore(resolve(configuration.mediaDir)),
    jobs: createJobs(database, clock, events, reporter(log)),
    events,
    ...openDeliveries(configuration, database, clock, reporter(log)),
    siteAssets: await readSiteAssets(configuration.webDir),
  }
}
