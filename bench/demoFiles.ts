import { houseScope } from '@server/access/scope'
import { systemClock } from '@server/clock'
import { readConfiguration } from '@server/configuration'
import { AudioFile } from '@server/files/models'
import { measureFiles } from '@server/files/measuring'
import { Episode } from '@server/episodes/models'
import { episodeService } from '@server/episodes/service'
import { finishingService } from '@server/finishing/service'
import { openPlatform } from '@server/openPlatform'

/** Finishes every demo file by its show's usual recipe, and prints what came of each. */
export async function benchDemoFiles(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  measureFiles(platform)
  const finishing = finishingService(platform)
  const episodes = episodeService(platform)
  const rows = await Episode.findAll({ include: { model: AudioFile, as: 'file', required: true, attributes: ['id', 'name'] }, order: [['createdAt', 'ASC']] })
  console.log('finishing the demo’s files (target −16 LUFS, −19 for one channel; ceiling −1 dBTP)')
  for (const { id, showId, file } of rows) {
    const scope = houseScope({ id, showId })
    const { sound, version } = await episodes.get(scope)
    await finishing.begin(scope, version, sound.usual)
    while (await platform.jobs.runNext('measuring') || await platform.jobs.runNext('finishing'));
    const { finished } = (await episodes.get(scope)).sound
    const [before, after] = [sound.source!.measurement!, finished!.measurement!]
    console.log(`  ${file!.name.padEnd(10)} ${before.integratedLufs!.toFixed(2)} LUFS, ${before.truePeakDbtp!.toFixed(2)} dBTP -> ${after.integratedLufs!.toFixed(2)} LUFS, ${after.truePeakDbtp!.toFixed(2)} dBTP, ${after.channels} channel${after.channels === 1 ? '' : 's'}`)
  }
  await platform.database.close()
}
