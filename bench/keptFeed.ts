import { QueryTypes } from 'sequelize'
import type { FeedItem } from '@core/feed/model'
import { itemOf, modelOf } from '@core/feed/model.fixture'
import { feedXml } from '@core/feed/xml'
import { systemClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import { keptFeed } from '@server/feed/feeds/kept'
import { releasedEpisodes, releasedVersions } from '@server/show/episodes/released'
import { feedText, wholeModel } from '@server/feed/feeds/service'
import { encoded } from '@server/platform/storage/written'
import { openPlatform } from '@server/app/openPlatform'
import { Show } from '@server/show/shows/models'
import { seed } from '@server/testing/seed'

const episodes = 200
const rounds = 20

/** Processor time of what is done for a feed of 200 items when something of it has changed: read, written, compressed and kept. */
export async function benchKeptFeed(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  await seed(platform.database, 'bellows-and-reeds', { shows: 1, episodesPerShow: episodes })
  const show = await Show.findOne({ where: { slug: 'seed-1' }, rejectOnEmpty: true })
  let version = 1000
  /** `growth` 1: what the show says in its items is another, so all are told anew; 0: only what it says of itself is. */
  const changeAndKeep = (growth: number) => async (): Promise<void> => {
    version += growth
    await platform.database.query(
      'UPDATE shows SET feed_revision = feed_revision + 1, description = UUID() WHERE id = ?',
      {
        replacements: [show.id],
        type: QueryTypes.UPDATE,
      },
    )
    await show.reload()
    show.name = `Show ${Math.floor(version)}`
    await keptFeed(platform, show, 'feed.xml', () => feedText(show, platform.configuration))
  }
  const words = await feedText(show, platform.configuration)
  const whole = await processorMs(changeAndKeep(1))
  const warm = await processorMs(changeAndKeep(0))
  const model = await wholeModel(show, platform.configuration)
  const fixture = modelOf(Array.from({ length: episodes }, () => itemOf()))
  const parts = {
    'reading which are out': await processorMs(() => releasedVersions(show.id, 'everybody')),
    'reading what is told of them': await processorMs(() => releasedEpisodes(show.id, 'everybody')),
    'reading and telling it': await processorMs(() =>
      wholeModel(show, platform.configuration, undefined, new Map<string, FeedItem>()),
    ),
    writing: await processorMs(async () => feedXml({ ...model, items: model.items.map(item => ({ ...item })) })),
    'writing what was told before': await processorMs(async () => feedXml(model)),
    compressing: await processorMs(() => encoded(Buffer.from(words))),
  }
  console.log(
    `a feed of ${model.items.length} items (${words.length} characters) read, written, compressed and kept: ${whole.toFixed(1)} ms of processor time, ${(whole / (await processorMs(async () => feedXml(fixture)))).toFixed(0)} times what writing a bare one takes`,
  )
  console.log(`  where its items had been told before: ${warm.toFixed(1)} ms`)
  for (const [name, ms] of Object.entries(parts)) console.log(`  of that ${name}: ${ms.toFixed(1)} ms`)
  await platform.deliveries.stop()
  await platform.events.stop()
  await platform.database.close()
}

/** The processor time of this process for one round, the median of several. */
async function processorMs(act: () => Promise<unknown>): Promise<number> {
  for (let n = 0; n < 40; n++) await act()
  const times: number[] = []
  for (let n = 0; n < rounds; n++) {
    const before = process.cpuUsage()
    await act()
    const { user, system } = process.cpuUsage(before)
    times.push((user + system) / 1000)
  }
  return times.sort((one, other) => one - other)[rounds / 2]!
}
