import { type FeedFacts, withAllFacts } from '@core/feed/facts'
import { badInput } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { remoteFetcher } from '../../platform/outside/fetch'
import { Refusal } from '../../platform/refusal'
import { currentSlug } from './addresses'
import { Show } from './models'

/** So much of what is at an address tells whether it is a feed. */
const looksLikeBytes = 64_000
const looksLikeFeed = /<(?:\w+:)?(?:rss|feed|RDF)[\s>]|jsonfeed\.org\/version/
/** So many shows of a house are followed from one to the next. */
const mostMoves = 10

/** Which show of the house an address leads to, however it is spelt: with a query, a fragment, a former address part, by its own host. */
async function showAt(publicUrl: string, address: string): Promise<Show | null> {
  if (!URL.canParse(address)) return null
  const [url, house] = [new URL(address), new URL(publicUrl)]
  const own = await Show.findOne({ where: { hostName: url.hostname } })
  if (own) return own
  if (url.hostname !== house.hostname) return null
  let part = url.pathname.slice(house.pathname.replace(/\/$/, '').length).split('/')[1] ?? ''
  try {
    part = decodeURIComponent(part)
  } catch {
    return null
  }
  const slug = await currentSlug(part)
  return slug === null ? null : Show.findOne({ where: { slug } })
}

/** Whether an address leads to a show, by itself or over others of the house that lead everybody on. */
export async function leadsTo(show: Show, publicUrl: string, address: string): Promise<boolean> {
  let next: string | null = address
  for (let moves = 0; next !== null && moves < mostMoves; moves++) {
    const there: Show | null = await showAt(publicUrl, next)
    if (!there) return false
    if (there.id === show.id) return true
    const { movedTo, isRedirected } = withAllFacts(there.feedFacts)
    next = isRedirected ? movedTo : null
  }
  return next !== null
}

/**
 * Looks where a show says that it has moved to, before it is said. Throws `bad-input` where that leads back here; and, where
 * everybody is to be led there, where no feed answers.
 */
export async function needElsewhere(
  { configuration }: Pick<Platform, 'configuration'>,
  show: Show,
  { movedTo, isRedirected }: Pick<FeedFacts, 'movedTo' | 'isRedirected'>,
): Promise<void> {
  const { publicUrl, fetchAllow } = configuration
  const before = withAllFacts(show.feedFacts)
  if (movedTo === null || (before.movedTo === movedTo && (before.isRedirected || !isRedirected))) return
  const field = 'feedFacts.movedTo'
  if (await leadsTo(show, publicUrl, movedTo))
    throw badInput(field, movedTo, 'An address that does not lead back to this feed.')
  if (!isRedirected) return
  try {
    const { status, body } = await remoteFetcher(fetchAllow)(movedTo, {
      mostBytes: looksLikeBytes,
      onRedirect: async to => {
        if (await leadsTo(show, publicUrl, to))
          throw badInput(field, movedTo, `An address that does not lead back to this feed; it leads to ${to}.`)
      },
    })
    if (status !== 200) throw badInput(field, movedTo, `An address where a feed answers; this one answers ${status}.`)
    if (!looksLikeFeed.test(body.toString('latin1')))
      throw badInput(field, movedTo, 'An address where a feed answers; what answers there is none.')
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    throw badInput(field, movedTo, `An address where a feed answers. ${error.detail}`)
  }
}
