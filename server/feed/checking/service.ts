import { promisify } from 'node:util'
import { gunzip } from 'node:zlib'
import { Op } from 'sequelize'
import type { FeedCheck, FeedChecked, FeedOverview, FeedComparisonView } from '@contract/feed'
import type { ShowChange } from '@contract/shows'
import { comparisonWords, firstStateWords } from '@core/feed/compare'
import { feedRules } from '@core/feed/rules'
import { Membership } from '../../people/access/models'
import type { Scope } from '../../people/access/scope'
import { rateCounts } from '../../platform/database/rateCounts'
import { AppError } from '../../platform/http/errors'
import { readText, TooMuchText } from '../../platform/foreignText/run'
import { FeedState } from '../feeds/models'
import { readersOf } from '../feeds/readers'
import { feedText, feedTextWith } from '../feeds/service'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { addressesOf } from '../../show/shows/service'
import { feedAsker } from './ask'
import { lookAtFeed } from './ownFeed'
import { foundElsewhere, foundHere } from './findingViews'

/** So long everything that a feed names is asked for, and no longer. */
const limitMs = 50_000
/** So many feeds are checked for one account in so long. */
const mostChecks = 30
const checksMs = 15 * 60_000
const shownStates = 20
/** So long a look at the feed waits for words of what became of it. */
const patienceMs = 2_000

/** Whether a feed is right, what became of it, and who has it. */
export function checkingService(platform: Pick<Platform, 'configuration' | 'clock' | 'database' | 'events'>) {
  const { configuration, clock } = platform
  const ask = feedAsker(configuration)
  const counts = rateCounts(platform, checksMs)

  async function find({ showId }: Scope): Promise<Show> {
    const show = await Show.findByPk(showId)
    if (!show) throw new AppError('not-found', 'There is no such show.')
    return show
  }

  /** The newest states of a show's feed, each with what was other in it than before. */
  async function statesOf(showId: string, name: string): Promise<FeedOverview['states']> {
    const states = await FeedState.findAll({
      where: { showId, name },
      attributes: ['id', 'at', 'bytes', 'words'],
      order: [['revision', 'DESC']],
      limit: shownStates + 1,
    })
    const until = performance.now() + patienceMs
    for (const [index, state] of states.entries()) {
      const before = states[index + 1]
      // Of long feeds the rest is compared when somebody looks again, or at that one.
      if (performance.now() > until) break
      if (!state.words && before) await state.update({ words: comparisonWords(await compared(before.id, state.id)) })
    }
    return states.slice(0, shownStates).map(({ id, at, bytes, words }, index) => ({
      id,
      at: at.toISOString(),
      bytes,
      words: words ?? (index < states.length - 1 ? [] : [firstStateWords]),
    }))
  }

  async function compared(earlierId: string, laterId: string) {
    const [earlier, later] = await Promise.all([bytesOf(earlierId), bytesOf(laterId)])
    return readText({ kind: 'compare', earlier, later }, configuration)
  }

  async function bytesOf(id: string): Promise<Buffer> {
    const { gzip } = await FeedState.findByPk(id, { attributes: ['gzip'], rejectOnEmpty: true })
    return promisify(gunzip)(gzip)
  }

  return {
    /** Everything about the feed of a show. */
    async overview(scope: Scope): Promise<FeedOverview> {
      const show = await find(scope)
      const { name, feed, items, findings } = await lookAtFeed(platform, show)
      const states = await statesOf(show.id, name)
      return {
        feedAddress: addressesOf(configuration.publicUrl, show).feedAddress,
        items,
        bytes: feed.bodies.identity.length,
        changedAt: new Date(Math.min(+feed.lastModified, +clock.now())).toISOString(),
        rules: feedRules.length,
        findings: await foundHere(findings, show),
        states,
        readers: await readersOf(platform.database, show.id, name, states[0]?.at ?? null),
      }
    },

    /** What became another thing with a state of the feed. */
    async stateOf({ showId }: Scope, id: string): Promise<FeedComparisonView> {
      const state = await FeedState.findOne({ where: { id, showId }, attributes: ['id', 'name', 'revision'] })
      if (!state) throw new AppError('not-found', 'There is no such state of the feed.')
      const before = await FeedState.findOne({
        where: { showId, name: state.name, revision: { [Op.lt]: state.revision } },
        attributes: ['id'],
        order: [['revision', 'DESC']],
      })
      if (!before) throw new AppError('not-found', 'There is no state before this one.')
      const comparison = await compared(before.id, state.id)
      return { comparison, words: comparisonWords(comparison) }
    },

    /** What a change of the show would change in its feed; nothing is changed. */
    async outlook(scope: Scope, change: Omit<ShowChange, 'version'>): Promise<FeedComparisonView> {
      const show = await find(scope)
      const earlier = Buffer.from(await feedText(show, configuration))
      const later = Buffer.from(await feedTextWith(show, change, configuration))
      const comparison = await readText({ kind: 'compare', earlier, later }, configuration)
      return { comparison, words: comparisonWords(comparison) }
    },

    /** Checks any feed. Throws `feed-refused` where there is none, and `too-many-checks`. */
    async check(wanted: FeedCheck, accountId: string, gone: AbortSignal): Promise<FeedChecked> {
      if ((await counts.count('feed check', accountId)) > mostChecks)
        throw new AppError(
          'too-many-checks',
          `At most ${mostChecks} feeds are checked for one account in a quarter of an hour.`,
        )
      const signal = AbortSignal.any([gone, AbortSignal.timeout(limitMs)])
      try {
        const asked = 'address' in wanted ? await ask.feed(wanted.address, signal) : null
        const bytes = asked?.body ?? Buffer.from((wanted as { text: string }).text)
        const contentType = asked?.contentType ?? ''
        const { asked: worth, named } = await readText({ kind: 'addresses', bytes, contentType }, configuration)
        const answers = await ask.named(worth, signal)
        const { findings, title, items } = await readText(
          {
            kind: 'check',
            bytes,
            contentType,
            met: { address: asked?.address ?? null, now: clock.now(), answer: asked?.answer ?? null, answers },
          },
          configuration,
        )
        const show = asked && (await ownShow(asked.address, accountId))
        return {
          title,
          items,
          bytes: bytes.length,
          asked: worth.length,
          named,
          rules: feedRules.length,
          findings: show ? await foundHere(findings, show) : foundElsewhere(findings),
        }
      } catch (error) {
        if (signal.aborted && !gone.aborted)
          throw new AppError('feed-refused', `It was not all answered within ${limitMs / 1000} seconds.`)
        if (error instanceof TooMuchText) throw new AppError('feed-refused', error.message)
        throw error
      }
    },
  }

  /** The show whose feed an address is, where the account may look at it. */
  async function ownShow(address: string, accountId: string): Promise<Show | null> {
    const slug = /^\/([a-z0-9-]+)\/feed\.xml$/.exec(new URL(address).pathname)?.[1]
    if (!slug || !address.startsWith(configuration.publicUrl)) return null
    const show = await Show.findOne({ where: { slug }, attributes: ['id', 'feedFacts'] })
    const member = show && (await Membership.findOne({ where: { accountId, showId: show.id } }))
    return member ? show : null
  }
}
