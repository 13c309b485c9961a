import { startProxyLog } from './delivery/proxyLog'
import { jobList } from './jobList'
import { reporter } from './openPlatform'
import type { Platform } from './platform'
import { startReleaseClock } from './releases/releaseClock'
import { tidying } from './tidying/tidy'
import { startUploadWatch } from './uploads/watch'

/** Starts what goes on without anybody asking: the jobs, the release clock, the look after uploads. Any number of processes may. */
export async function startBackground(platform: Platform): Promise<{ stop(): Promise<void> }> {
  const report = reporter(platform.log)
  platform.jobs.use(jobList(platform))
  platform.jobs.start()
  const { mediaAccelLog } = platform.configuration
  const watches = [
    startReleaseClock(platform, report),
    startUploadWatch(platform, report),
    ...(mediaAccelLog ? [startProxyLog(platform, mediaAccelLog, report)] : []),
  ]
  await tidying(platform).begin()
  return {
    async stop() {
      await Promise.all([...watches.map(watch => watch.stop()), platform.jobs.stop()])
    },
  }
}
