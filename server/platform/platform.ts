import type { Logger } from 'pino'
import type { Sequelize } from 'sequelize'
import type { SiteAssets } from '@site/pages'
import type { Clock } from './clock'
import type { Configuration } from './configuration'
import type { DeliveryLog } from './deliveries/log'
import type { Askers } from './deliveries/open'
import type { Events } from './events/events'
import type { Jobs } from './jobs/jobs'
import type { MediaStore } from './storage/store'

/** What every capability may lean on; each is given it and takes what it needs. */
export interface Platform {
  log: Logger
  configuration: Configuration
  clock: Clock
  database: Sequelize
  media: MediaStore
  jobs: Jobs
  events: Events
  deliveries: DeliveryLog
  /** What tells the log, and whoever brings one in, who was answered. */
  askers: Askers
  /** Addresses of what the public pages load in the browser. */
  siteAssets: SiteAssets
}
