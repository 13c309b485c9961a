import { houseScope } from '@server/people/access/scope'
import { systemClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import { Episode } from '@server/show/episodes/models'
import { fileIn, withRole } from '@server/show/episodes/roles'
import { episodeService } from '@server/show/episodes/service'
import { finishingService } from '@server/production/finishing/service'
import { jobList } from '@server/app/jobList'
import { openPlatform } from '@server/app/openPlatform'

/** Finishes every demo file by its show's usual recipe, and prints what came of each. */
export async function benchDemoFiles(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  platform.jobs.use(jobList(platform))
  const finishing = finishingService(platform)
  const episodes = episodeService(platform)
  const rows = await Episode.findAll({ include: withRole('source', 'name'), order: [['createdAt', 'ASC']] })
  console.log('finishing the demo’s files (target −16 LUFS, −19 for one channel; ceiling −1 dBTP)')
  for (const row of rows) {
    const scope = houseScope(row)
    const { source, usual, version } = await episodes.sound(scope)
    await finishing.begin(scope, version, usual)
    while ((await platform.jobs.runNext('measuring')) || (await platform.jobs.runNext('finishing')));
    const { finished } = await episodes.sound(scope)
    const [before, after] = [source!.measurement!, finished!.measurement!]
    console.log(
      `  ${fileIn(row, 'source')!.name.padEnd(10)} ${before.integratedLufs!.toFixed(2)} LUFS, ${before.truePeakDbtp!.toFixed(2)} dBTP -> ${after.integratedLufs!.toFixed(2)} LUFS, ${after.truePeakDbtp!.toFixed(2)} dBTP, ${after.channels} channel${after.channels === 1 ? '' : 's'}`,
    )
  }
  await platform.database.close()
}
