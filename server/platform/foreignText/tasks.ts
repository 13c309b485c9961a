import { chaptersFault } from '@core/chapters/json'
import { addressesIn, type AskedAddresses } from '@core/feed/addresses'
import { feedText } from '@core/feed/bytes'
import { checkFeed, type FeedFinding } from '@core/feed/check'
import { compareFeeds, type FeedComparison } from '@core/feed/compare'
import type { MetFeed } from '@core/feed/met'
import { readFeed, textIn } from '@core/feed/read'
import { NoTranscript, type Transcript } from '@core/transcript/cue'
import { readDraft } from '@core/transcript/draft'
import { type ReadFormat, readTranscript } from '@core/transcript/formats'

/** What is done with text that others wrote. */
export type TextTask =
  | { kind: 'addresses'; bytes: Uint8Array; contentType: string }
  | {
      kind: 'check'
      bytes: Uint8Array
      contentType: string
      met: Pick<MetFeed, 'address' | 'now' | 'answer' | 'answers'>
    }
  | { kind: 'compare'; earlier: Uint8Array; later: Uint8Array }
  | { kind: 'transcript'; bytes: Uint8Array; known: readonly string[] }
  | { kind: 'draft'; bytes: Uint8Array }
  | { kind: 'transcript fault'; bytes: Uint8Array }
  | { kind: 'chapters fault'; bytes: Uint8Array }

export interface TextAnswers {
  addresses: AskedAddresses
  check: { findings: FeedFinding[]; title: string; items: number }
  compare: FeedComparison
  transcript: ReturnType<typeof readTranscript>
  draft: Transcript
  'transcript fault': { fault: string | null; form: ReadFormat | null }
  'chapters fault': { fault: string | null; form: null }
}

/** What a thread says: what it read, or why it is no transcript. */
export type TextSaid = { answer: TextAnswers[keyof TextAnswers] } | { noTranscript: string }

const work: { [Kind in TextTask['kind']]: (task: Extract<TextTask, { kind: Kind }>) => TextAnswers[Kind] } = {
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
  transcript: ({ bytes, known }) => readTranscript(bytes, known),
  draft: ({ bytes }) => readDraft(bytes),
  'transcript fault'({ bytes }) {
    try {
      return { fault: null, form: readTranscript(bytes).format }
    } catch (error) {
      if (error instanceof NoTranscript) return { fault: error.message, form: null }
      throw error
    }
  },
  'chapters fault': ({ bytes }) => ({ fault: chaptersFault(new TextDecoder().decode(bytes)), form: null }),
}

export const workOn = <T extends TextTask>(task: T): TextAnswers[T['kind']] =>
  (work[task.kind] as unknown as (task: T) => TextAnswers[T['kind']])(task)
