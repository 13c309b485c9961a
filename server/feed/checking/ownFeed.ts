import ruleEdition from '@core/feed/rules?edition'
import { blockedShow } from '@core/feed/rules/blockedShow'
import type { Columns } from '../../platform/database/columns'
import { transact } from '../../platform/database/transact'
import { readText } from '../../platform/foreignText/run'
import type { KeptFeed } from '../feeds/kept'
import { feedOf } from '../feeds/service'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { FeedCheck } from './models'

export interface LookedAt extends Pick<FeedCheck, 'items' | 'findings'> {
  /** Which of the show's feeds. */
  name: string
  feed: KeptFeed
}

/** The feed of a show as it is now, and what the rules find in it: looked for once for each of its states, and kept. */
export async function lookAtFeed(
  platform: Pick<Platform, 'clock' | 'configuration' | 'database' | 'events'>,
  show: Show,
): Promise<LookedAt> {
  const { name, feed } = await feedOf(platform, show)
  const kept = await FeedCheck.findByPk(show.id)
  if (kept?.tag === feed.tag && kept.edition === ruleEdition)
    return { name, feed, items: kept.items, findings: kept.findings }
  const { items, findings: all } = await readText(
    {
      kind: 'check',
      bytes: feed.bodies.identity,
      contentType: '',
      met: { address: null, now: platform.clock.now(), answer: null, answers: new Map() },
    },
    platform.configuration,
  )
  // That directories are asked not to list it is what a private show wants.
  const findings = all.filter(({ name: rule }) => !show.isPrivate || rule !== blockedShow.name)
  await keep(platform, show, { tag: feed.tag, edition: ruleEdition, items, findings })
  return { name, feed, items, findings }
}

async function keep(
  { database, events }: Pick<Platform, 'database' | 'events'>,
  { id: showId, feedRevision }: Show,
  check: Columns<FeedCheck, 'tag' | 'edition' | 'items' | 'findings'>,
): Promise<void> {
  // A show that nothing came of yet has no listeners who would miss anything.
  const feedFaults = check.items === 0 ? 0 : check.findings.filter(({ severity }) => severity === 'error').length
  await transact(database, async transaction => {
    const current = await Show.findByPk(showId, { attributes: ['feedRevision', 'feedFaults'], lock: true, transaction })
    // Whoever looked at something newer has kept that, or will.
    if (current?.feedRevision !== feedRevision) return
    await FeedCheck.upsert({ showId, ...check }, { transaction })
    if (current.feedFaults === feedFaults) return
    await Show.update({ feedFaults }, { where: { id: showId }, transaction })
    await events.note({ kind: 'show', showId, id: showId }, transaction)
  })
}
