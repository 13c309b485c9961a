import { resolve } from 'node:path'
import { type Logger, pino } from 'pino'
import type { Clock } from './clock'
import type { Configuration } from './configuration'
import { openDatabase } from './database/connection'
import { migrate } from './database/migrate'
import { createEvents } from './events/events'
import { createJobs } from './jobs/jobs'
import { openDiskStore } from './media/diskStore'
import type { Platform } from './platform'
import { isDatabaseDown } from './problems'
import { readSiteAssets } from './studio/routes'

/** Writes what goes wrong in the background to the log; a database that is away is no news twice a second. */
export function reporter(log: Logger): (error: unknown) => void {
  return error => isDatabaseDown(error) ? log.warn('The database does not answer; trying again.') : log.error(error)
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
    siteAssets: await readSiteAssets(configuration.webDir),
  }
}
