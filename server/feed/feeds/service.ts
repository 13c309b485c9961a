import type { IncomingMessage } from 'node:http'
import type { ShowChange } from '@contract/shows'
import { withAllFacts } from '@core/feed/facts'
import { feedJson, jsonFeedType } from '@core/feed/json'
import type { FeedModel } from '@core/feed/model'
import { partOf, partsOf } from '@core/feed/parts'
import { feedXml } from '@core/feed/xml'
import type { Configuration } from '../../platform/configuration'
import { type Outlet, publicOutlet } from '../../show/episodes/audience'
import { releasedCount } from '../../show/episodes/released'
import { publicAccess } from '../../platform/storage/publicAccess'
import { sendingOf, writtenOf } from '../../platform/storage/written'
import { nosniff } from '../../platform/http/nosniff'
import type { Platform } from '../../platform/platform'
import type { Show } from '../../show/shows/models'
import { leadsTo } from '../../show/shows/elsewhere'
import { Strand } from '../../show/shows/strands'
import { addressesOf, withFacts } from '../../show/shows/service'
import { type WrittenAnswer, writtenAnswers } from '../../show/shows/writtenAnswers'
import { channelOf } from './channel'
import { strandModel } from './strand'
import { feedItems, type KnownItems } from './items'
import { type KeptFeed, keptFeed, keptIdentity } from './kept'

/** The name of a show's feed among its feeds; others are named by their address behind that of the show, too. */
export const mainFeed = 'feed.xml'

/** A secret in an address has so many letters, for 192 random bits. */
export const secretLetters = 32

/** Where the house is found, and the hub that is told of its feeds. */
type Where = Pick<Configuration, 'publicUrl' | 'hubUrl'>

/** Everything that a show's feed tells, to everybody where nobody else is meant. */
export async function wholeModel(
  show: Show,
  { publicUrl, hubUrl }: Where,
  outlet: Omit<Outlet, 'headers'> = publicOutlet(publicUrl),
  known?: KnownItems,
): Promise<FeedModel> {
  const [channel, items] = await Promise.all([
    channelOf(show, publicUrl, hubUrl, outlet.base),
    feedItems(show, publicUrl, outlet, known),
  ])
  return { channel, items }
}

/** A show's feed as it is written now, with all that is released, whoever that is for. */
export async function feedText(show: Show, where: Where, known?: KnownItems): Promise<string> {
  const { itemsPerPart } = withAllFacts(show.feedFacts)
  const outlet = { audience: 'whoever' as const, base: where.publicUrl }
  return feedXml(partOf(await wholeModel(show, where, outlet, known), 1, itemsPerPart))
}

interface Form {
  type: string
  of: (model: FeedModel) => string
}
const asXml: Form = { type: 'application/rss+xml; charset=utf-8', of: feedXml }
const asJson: Form = { type: `${jsonFeedType}; charset=utf-8`, of: feedJson }

/** Which part of a show's feed stands at a name, and in which form; null where none can. */
function readName(name: string): { part: number; form: Form; strand: string | null } | null {
  if (name === mainFeed) return { part: 1, form: asXml, strand: null }
  if (name === 'feed.json') return { part: 1, form: asJson, strand: null }
  const [, strand] = /^strands\/([a-z0-9-]{1,60})\/feed\.xml$/.exec(name) ?? []
  if (strand) return { part: 1, form: asXml, strand }
  const [, part, form] = /^parts\/([2-9]|[1-9]\d{1,4})\/feed\.(xml|json)$/.exec(name) ?? []
  return part ? { part: Number(part), form: form === 'json' ? asJson : asXml, strand: null } : null
}

/** A feed of a show as everybody has it now, by its name; null where there is none of that name, or where it is not for everybody. */
export async function currentFeed(
  platform: Pick<Platform, 'clock' | 'configuration'>,
  show: Show,
  name: string,
): Promise<(KeptFeed & Pick<Form, 'type'>) | null> {
  const { publicUrl } = platform.configuration
  const { itemsPerPart } = withAllFacts(show.feedFacts)
  const named = show.isPrivate ? null : readName(name)
  if (!named || (named.part > 1 && named.part > partsOf(await releasedCount(show.id), itemsPerPart))) return null
  const { type, of } = named.form
  const strand = named.strand === null ? null : await Strand.findOne({ where: { showId: show.id, slug: named.strand } })
  if (named.strand !== null && (!strand || strand.isPrivate)) return null
  const kept = await keptFeed(platform, show, name, async () => {
    const model = await wholeModel(show, platform.configuration)
    const { feedAddress } = model.channel
    return of(
      strand ? await strandModel(model, strand, publicUrl, feedAddress) : partOf(model, named.part, itemsPerPart),
    )
  })
  return { ...kept, type }
}

/** What stands for a listener's secret in a feed that is written for all of them, and is as long. */
export const anyListener = 'of-your-own-'.padEnd(secretLetters, '0')

/** The beginning of all addresses that a listener has. */
export const listenerBase = (publicUrl: string, secret: string): string => `${publicUrl}/_${secret}`

/**
 * The feed of a show, or of one of its strands, for listeners with an address of their own: written once for all of them, with
 * `anyListener` in the place of the secret. No directory lists it, and no hub tells of it.
 */
export async function listenersFeed(
  platform: Pick<Platform, 'clock' | 'configuration'>,
  show: Show,
  strand: Strand | null,
): Promise<KeptFeed> {
  const { publicUrl } = platform.configuration
  const name = strand ? `listeners/strands/${strand.slug}/${mainFeed}` : `listeners/${mainFeed}`
  const outlet = { audience: { strandId: strand?.id ?? null }, base: listenerBase(publicUrl, anyListener) }
  return keptFeed(platform, show, name, async () => {
    const whole = await wholeModel(show, { publicUrl, hubUrl: null }, outlet)
    const known = addressesOf(publicUrl, show).feedAddress
    const { channel, items } = strand ? await strandModel(whole, strand, publicUrl, known) : whole
    // A strand for listeners is found where a whole show is: at the secret alone.
    const { feedAddress, movedTo } = whole.channel
    const own = { feedAddress, movedTo, jsonAddress: null, isBlocked: true, parts: null }
    return feedXml({ channel: { ...channel, ...own }, items })
  })
}

/** The feed of a show for whoever it is for. */
export const feedOf = async (
  platform: Pick<Platform, 'clock' | 'configuration'>,
  show: Show,
): Promise<{ name: string; feed: KeptFeed }> =>
  show.isPrivate
    ? { name: `listeners/${mainFeed}`, feed: await listenersFeed(platform, show, null) }
    : { name: mainFeed, feed: (await currentFeed(platform, show, mainFeed))! }

/** A show's feed as it would be were the show another in some facts. */
export const feedTextWith = (show: Show, facts: Omit<ShowChange, 'version'>, where: Where): Promise<string> =>
  feedText(withFacts(show, facts), where, new Map())

const guides = { ...publicAccess, ...nosniff }
const nothing = { identity: Buffer.alloc(0), gzip: Buffer.alloc(0), br: Buffer.alloc(0) }

/** The feeds of shows, written once for each change and kept. */
export function feedService(platform: Pick<Platform, 'configuration' | 'events' | 'clock'>) {
  const answers = writtenAnswers(
    platform,
    async (show, name): Promise<Pick<WrittenAnswer, 'path' | 'answer' | 'movedTo'> | null> => {
      const feed = await currentFeed(platform, show, name)
      if (!feed) return null
      const { movedTo, isRedirected } = withAllFacts(show.feedFacts)
      const { publicUrl } = platform.configuration
      return {
        path: name,
        // What has come to be an address of this show since, such as a host name of its own, leads nowhere. Whoever reads another
        // form or a further part would find neither of them elsewhere.
        movedTo:
          name === mainFeed && isRedirected && movedTo && !(await leadsTo(show, publicUrl, movedTo)) ? movedTo : null,
        answer: writtenOf(feed.type, feed.bodies, feed.tag, feed.lastModified, guidesOf(show, name)),
      }
    },
  )

  /** Readers that do not look into a feed find its hub here, too (W3C WebSub, section 4). */
  function guidesOf(show: Show, name: string): Readonly<Record<string, string>> {
    const { hubUrl, publicUrl } = platform.configuration
    const self = `${addressesOf(publicUrl, show).pageAddress}/${name}`
    return hubUrl ? { ...guides, link: `<${hubUrl}>; rel="hub", <${self}>; rel="self"` } : guides
  }

  /** What whoever has a feed already is told by, its tag and its date: its bytes need not be read for that. */
  const identities = writtenAnswers(
    platform,
    async (show, name): Promise<Pick<WrittenAnswer, 'path' | 'answer'> | null> => {
      const { isRedirected } = withAllFacts(show.feedFacts)
      const named = show.isPrivate || isRedirected ? null : readName(name)
      const kept = named && named.strand === null ? await keptIdentity(platform, show, name) : null
      if (!kept) return null
      const { tag, lastModified } = kept
      return { path: name, answer: writtenOf(named!.form.type, nothing, tag, lastModified, guidesOf(show, name)) }
    },
    1 / 64,
  )

  return {
    ...answers,

    /** That a show's feed has not changed, for whoever has it and says so; null where there is more to tell. */
    async unchanged(
      slug: string,
      name: string,
      request: Pick<IncomingMessage, 'headers'>,
    ): Promise<WrittenAnswer | null> {
      if (!request.headers['if-none-match'] && !request.headers['if-modified-since']) return null
      const told = identities.atHand(slug, name) ?? (await identities.current(slug, name))
      return told && sendingOf(request, told.answer, platform.clock.now())?.status === 304 ? told : null
    },
  }
}
