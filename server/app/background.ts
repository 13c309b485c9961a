import { startCounting } from '../numbers/counting/counter'
import { startLogFolder } from '../numbers/logs/folder'
import { startWeekly } from '../numbers/weekly/weekly'
import { startProxyLog } from '../feed/delivery/proxyLog'
import { jobList } from './jobList'
import { reporter } from './openPlatform'
import type { Platform } from '../platform/platform'
import type { Repeated } from '../platform/repeat'
import { startReleaseClock } from '../release/releases/releaseClock'
import { startRetention } from './retention/retention'
import { startUploadWatch } from '../production/uploads/watch'

/** Starts what goes on without anybody asking: the jobs, the release clock, the look after uploads. Any number of processes may. */
export function startBackground(platform: Platform): Repeated {
  const report = reporter(platform.log)
  platform.jobs.use(jobList(platform))
  platform.jobs.start()
  const { mediaAccelLog, logsDir } = platform.configuration
  const watches = [
    startReleaseClock(platform, report),
    startUploadWatch(platform, report),
    ...(mediaAccelLog ? [startProxyLog(platform, mediaAccelLog, report)] : []),
    ...(logsDir ? [startLogFolder(platform, logsDir, report)] : []),
    startCounting(platform, report),
    startWeekly(platform, report),
    startRetention(platform, report),
  ]
  return {
    async stop() {
      await Promise.all([...watches.map(watch => watch.stop()), platform.jobs.stop()])
    },
  }
}
