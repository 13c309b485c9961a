import { withAllFacts } from '@core/feed/facts'
import { partAddress, partsOf } from '@core/feed/parts'
import { strandAddress } from '@core/feed/strands'
import { releasedCount } from '../../show/episodes/released'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { addressed, addressesOf } from '../../show/shows/service'
import { Strand } from '../../show/shows/strands'

const patienceMs = 10_000
/** Hardly anybody subscribes to a part further back. */
const mostParts = 100

/**
 * The job: tells the hub that the feeds of a show have changed, so that it fetches them and hands them on to who subscribed
 * (W3C WebSub section 6, publishing; how a hub is told is left open there, and done by `hub.mode=publish` in a form, as all
 * hubs take it). What the hub does not take is told again, ever later.
 */
export function announceFeed({
  configuration,
}: Pick<Platform, 'configuration'>): JobDefinition<Payloads['announce-feed']> {
  return {
    lane: 'network',
    limitMs: 60_000,
    async run({ showId }, { signal }) {
      const { hubUrl, publicUrl } = configuration
      const show = await Show.findByPk(showId, { attributes: [...addressed, 'feedFacts', 'isPrivate'] })
      if (!hubUrl || !show || show.isPrivate) return
      const { feedAddress, jsonAddress } = addressesOf(publicUrl, show)
      const strands = await Strand.findAll({ where: { showId, isPrivate: false }, attributes: ['slug'], raw: true })
      const form = new URLSearchParams([['hub.mode', 'publish']])
      const count = partsOf(await releasedCount(showId), withAllFacts(show.feedFacts).itemsPerPart)
      const parts = Array.from({ length: Math.min(count, mostParts) }, (_none, index) => index + 1)
      const topics = [
        ...parts.flatMap(part => [partAddress(feedAddress, part), partAddress(jsonAddress, part)]),
        ...strands.map(({ slug }) => strandAddress(feedAddress, slug)),
      ]
      for (const topic of topics) form.append('hub.url', topic)
      const answer = await fetch(hubUrl, {
        method: 'POST',
        body: form,
        signal: AbortSignal.any([signal, AbortSignal.timeout(patienceMs)]),
      })
      if (!answer.ok) throw new Error(`The hub answers ${answer.status} to the news of ${feedAddress}.`)
    },
    gaveUp: null,
  }
}
