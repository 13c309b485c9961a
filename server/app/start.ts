import type { AddressInfo } from 'node:net'
import { createApp } from './app'
import { startBackground } from './background'
import { systemClock } from '../platform/clock'
import { followClockOffset, OffsetClock } from './clockOffset/clock'
import type { Configuration } from '../platform/configuration'
import { openPlatform, patiently, reporter } from './openPlatform'

export interface Running {
  /** Where it listens; null for a worker. */
  address: string | null
  stop(): Promise<void>
}

async function open(configuration: Configuration) {
  const clock = configuration.canMoveClock ? new OffsetClock() : systemClock
  const platform = await openPlatform(configuration, clock)
  const follow = (into: OffsetClock) => followClockOffset(into, platform.database, reporter(platform.log))
  const followed = clock instanceof OffsetClock ? await patiently(platform.log, () => follow(clock)) : null
  return { platform, followed }
}

/** Brings the schema up to date, listens, and does what goes on in the background, unless others do that. */
export async function start(configuration: Configuration): Promise<Running> {
  const { platform, followed } = await open(configuration)
  const app = await createApp(platform)
  await app.listen({ port: configuration.port, host: configuration.host })
  const background = configuration.runsJobs ? startBackground(platform) : null
  const { port } = app.server.address() as AddressInfo
  return {
    address: `http://${configuration.host}:${port}`,
    async stop() {
      await Promise.all([followed?.stop(), background?.stop(), platform.events.stop(), app.close()])
      await platform.deliveries.stop()
      await platform.database.close()
    },
  }
}

/** Does what goes on in the background, and listens to nobody. */
export async function startWorker(configuration: Configuration): Promise<Running> {
  const { platform, followed } = await open(configuration)
  const background = startBackground(platform)
  return {
    address: null,
    async stop() {
      await followed?.stop()
      await Promise.all([background.stop(), platform.events.stop()])
      await platform.database.close()
    },
  }
}
