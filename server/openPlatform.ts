import { resolve } from 'node:path'
import { type Logger, pino } from 'pino'
import type { Clock } from './clock'
import type { Configuration } from './configuration'
import { openDatabase } from './openDatabase'
import { migrate } from './database/migrate'
import { deliveryLog } from './delivery/log'
import { createEvents } from './events/events'
import { createJobs } from './jobs/jobs'
import { openDiskStore } from './media/diskStore'
import type { Platform } from './platform'
import { isDatabaseDown } from './problems'
import { readSiteAssets } from './studio/routes'

const sameNewsMs = 10_000
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
  await migrate(database)
  const events = createEvents(database, clock, reporter(log))
  return {
    log,
    configuration,
    clock,
    database,
    media: await openDiskStore(resolve(configuration.mediaDir)),
    jobs: createJobs(database, clock, events, reporter(log)),
    events,
    deliveries: deliveryLog(database, clock, reporter(log)),
    siteAssets: await readSiteAssets(configuration.webDir),
  }
}
