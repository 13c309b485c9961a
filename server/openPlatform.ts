import { resolve } from 'node:path'
import type { Clock } from './clock'
import type { Configuration } from './configuration'
import { openDatabase } from './database/connection'
import { migrate } from './database/migrate'
import { createJobs } from './jobs/jobs'
import { openDiskStore } from './media/diskStore'
import type { Platform } from './platform'
import { readSiteAssets } from './studio/routes'

/** Opens the database, its schema up to date, and the media store. */
export async function openPlatform(configuration: Configuration, clock: Clock, report: (error: unknown) => void): Promise<Platform> {
  const database = openDatabase(configuration.databaseUrl)
  await migrate(database)
  return {
    configuration,
    clock,
    database,
    media: await openDiskStore(resolve(configuration.mediaDir)),
    jobs: createJobs(database, clock, report),
    siteAssets: await readSiteAssets(configuration.webDir),
  }
}
