import { withAllFacts } from '@core/feed/facts'
import { feedJson, jsonFeedType } from '@core/feed/json'
import type { FeedModel } from '@core/feed/model'
import { partOf, partsOf } from '@core/feed/parts'
import { feedXml } from '@core/feed/xml'
import { releasedCount } from '../episodes/released'
import { publicAccess } from '../media/publicAccess'
import { writtenOf } from '../media/written'
import { nosniff } from '../nosniff'
import type { Platform } from '../platform'
import type { Show } from '../shows/models'
import { type Told, writtenAnswers } from '../shows/writtenAnswers'
import { channelOf } from './channel'
import { feedItems } from './items'
import { keptFeed } from './kept'

/** The name of a show's feed among its feeds; others are named by their address behind that of the show, too. */
export const mainFeed = 'feed.xml'

/** Everything that a show's feed tells. */
export async function wholeModel(show: Show, publicUrl: string): Promise<FeedModel> {
  const [channel, items] = await Promise.all([channelOf(show, publicUrl), feedItems(show, publicUrl)])
  return { channel, items }
}

/** A show's feed as it is written now. */
export async function feedText(show: Show, publicUrl: string): Promise<string> {
  return feedXml(partOf(await wholeModel(show, publicUrl), 1, withAllFacts(show.feedFacts).itemsPerPart))
}

interface Form {
  type: string
  of: (model: FeedModel) => string
}
const asXml: Form = { type: 'application/rss+xml; charset=utf-8', of: feedXml }
const asJson: Form = { type: `${jsonFeedType}; charset=utf-8`, of: feedJson }

/** Which part of a show's feed stands at a name, and in which form; null where none can. */
function readName(name: string): { part: number; form: Form } | null {
  if (name === mainFeed) return { part: 1, form: asXml }
  if (name === 'feed.json') return { part: 1, form: asJson }
  const [, part] = /^parts\/([2-9]|[1-9]\d{1,4})\/feed\.xml$/.exec(name) ?? []
  return part ? { part: Number(part), form: asXml } : null
}

/** The feeds of shows, written once for each change and kept. */
export function feedService(platform: Pick<Platform, 'configuration' | 'events' | 'clock'>) {
  const { publicUrl } = platform.configuration
  return writtenAnswers(platform, async (show, name): Promise<Pick<Told, 'path' | 'answer' | 'movedTo'> | null> => {
    const { itemsPerPart, movedTo, isRedirected } = withAllFacts(show.feedFacts)
    const named = readName(name)
    if (!named || (named.part > 1 && named.part > partsOf(await releasedCount(show.id), itemsPerPart))) return null
    const { bodies, tag, lastModified } = await keptFeed(platform, show, name, async () =>
      named.form.of(partOf(await wholeModel(show, publicUrl), named.part, itemsPerPart)),
    )
    return {
      path: name,
      movedTo: isRedirected ? movedTo : null,
      answer: writtenOf(named.form.type, bodies, tag, lastModified, { ...publicAccess, ...nosniff }),
    }
  })
}
