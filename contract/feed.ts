import { z } from 'zod'
import type { FeedFinding } from '@core/feed/check'
import type { FeedComparison } from '@core/feed/compare'
import type { EpisodeFix, ShowFix } from '@core/feed/rules/rule'
import { webAddress } from '@core/words/schemas'

/** The episode that a finding is about, and how a press mends it; changed is one that has changes which wait to be sent. */
export interface FoundEpisode {
  id: string
  version: number
  isChanged: boolean
  byPress: EpisodeFix | null
}
/** A finding, and how a press mends it in a show of the house. */
export interface FeedFindingView extends Omit<FeedFinding, 'places'> {
  byPress: ShowFix | null
  places: (FeedFinding['places'][number] & { episode: FoundEpisode | null })[]
}
const finding = z.custom<FeedFindingView>()

/** A feed as it was from some moment on, and what was other then than before, in words. */
const feedState = z.object({ id: z.string(), at: z.string(), bytes: z.number(), words: z.array(z.string()) })

/** Somebody who fetches a feed: a program by its name, from an address without its end. */
const feedReader = z.object({
  agent: z.string(),
  address: z.string(),
  firstAt: z.string(),
  lastAt: z.string(),
  status: z.number(),
  wholeCount: z.number(),
  sameCount: z.number(),
  /** Whether it was here since the feed became what it is now, and was told so. */
  hasNewest: z.boolean(),
})
export type FeedReader = z.infer<typeof feedReader>

export const feedOverview = z.object({
  feedAddress: z.string(),
  items: z.number(),
  bytes: z.number(),
  changedAt: z.string(),
  rules: z.number(),
  findings: z.array(finding),
  /** The newest first. */
  states: z.array(feedState),
  readers: z.array(feedReader),
})
export type FeedOverview = z.infer<typeof feedOverview>

export const feedComparison = z.object({ comparison: z.custom<FeedComparison>(), words: z.array(z.string()) })
export type FeedComparisonView = z.infer<typeof feedComparison>

export const mostFeedBytes = 25_000_000

/** A feed to be checked: at an address, or pasted. */
export const feedCheck = z.union([
  z.strictObject({
    address: webAddress,
  }),
  z.strictObject({
    text: z
      .string()
      .min(1, 'Must not be empty.')
      .max(5_000_000, 'At most 5,000,000 characters; give its address instead.'),
  }),
])
export type FeedCheck = z.infer<typeof feedCheck>

export const feedChecked = z.object({
  title: z.string(),
  items: z.number(),
  bytes: z.number(),
  /** How many of the addresses in it were asked. */
  asked: z.number(),
  /** How many there are in what is asked of a feed; more than `asked` where they were too many. */
  named: z.number(),
  rules: z.number(),
  findings: z.array(finding),
})
export type FeedChecked = z.infer<typeof feedChecked>
