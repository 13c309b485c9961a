import type { AddressInfo } from 'node:net'
import { createApp } from './app'
import { type Clock, systemClock } from './clock'
import type { Configuration } from './configuration'
import { openPlatform, reporter } from './openPlatform'
import { startReleaseClock } from './releases/releaseClock'
import { startUploadWatch } from './uploads/watch'

export interface Running {
  address: string
  stop(): Promise<void>
}

/** Brings the schema up to date, starts listening, the jobs and the release clock. */
export async function start(configuration: Configuration, clock: Clock = systemClock): Promise<Running> {
  const platform = await openPlatform(configuration, clock)
  const app = await createApp(platform)
  await app.listen({ port: configuration.port, host: configuration.host })
  platform.jobs.start()
  const report = reporter(platform.log)
  const watches = [startReleaseClock(platform, report), startUploadWatch(platform, report)]
  const { port } = app.server.address() as AddressInfo
  return {
    address: `http://${configuration.host}:${port}`,
    async stop() {
      await Promise.all([...watches.map(watch => watch.stop()), platform.jobs.stop(), platform.events.stop(), app.close()])
      await platform.database.close()
    },
  }
}
