import { addressesIn, type NamedAddress } from '@core/feed/addresses'
import { feedText } from '@core/feed/bytes'
import { checkFeed, type FeedFinding } from '@core/feed/check'
import { compareFeeds, type FeedComparison } from '@core/feed/compare'
import type { MetFeed } from '@core/feed/met'
import { readFeed, textIn } from '@core/feed/read'

/** What is done with feeds that takes a while where they are long. */
export type FeedTask =
  | { kind: 'addresses'; bytes: Uint8Array; contentType: string }
  | {
      kind: 'check'
      bytes: Uint8Array
      contentType: string
      met: Pick<MetFeed, 'address' | 'now' | 'answer' | 'answers'>
    }
  | { kind: 'compare'; earlier: Uint8Array; later: Uint8Array }

export interface FeedAnswers {
  addresses: NamedAddress[]
  check: { findings: FeedFinding[]; title: string; items: number }
  compare: FeedComparison
}

const work: { [Kind in FeedTask['kind']]: (task: Extract<FeedTask, { kind: Kind }>) => FeedAnswers[Kind] } = {
  addresses: ({ bytes, contentType }) => addressesIn(readFeed(feedText(bytes, contentType).text)),
  check({ bytes, contentType, met }) {
    const { text, fault } = feedText(bytes, contentType)
    const feed = readFeed(text)
    return {
      findings: checkFeed({ ...met, feed, bytes: bytes.length, encodingFault: fault }),
      title: feed.channel ? textIn(feed.channel, 'title') : '',
      items: feed.items.length,
    }
  },
  compare: ({ earlier, later }) => compareFeeds(readFeed(feedText(earlier).text), readFeed(feedText(later).text)),
}

export const workOn = <T extends FeedTask>(task: T): FeedAnswers[T['kind']] =>
  (work[task.kind] as unknown as (task: T) => FeedAnswers[T['kind']])(task)
