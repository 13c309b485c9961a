import { z } from 'zod'
import { oneLine } from '../words/line'
import { webAddress, words } from '../words/schemas'
import { isCategory } from './categories'

const emailRule = 'An email address, such as name@example.org.'

/** What a feed can be of: the list of the podcast namespace's `medium`, from memory. */
export const media = ['podcast', 'audiobook', 'music', 'video', 'film', 'newsletter', 'blog'] as const

/** How many items a part of a feed may have, where it does not come whole. */
export const itemsPerPart = { least: 10, most: 10_000 } as const

const funding = z.object({ words: words(128), address: webAddress })
const statement = z.object({
  purpose: z.string().overwrite(oneLine).max(128, 'At most 128 characters.'),
  words: words(4000),
})
const recommended = z.object({ title: words(300), feedAddress: webAddress })
const seasonName = z.object({
  season: z.int('A whole number.').min(1, 'At least 1.').max(9_999, 'At most 9,999.'),
  name: words(128),
})

/** What a feed can say of a show beside what every show has; each may stay as it is. */
export const feedFacts = z.object({
  /** The show's own site, where it has one elsewhere. */
  site: webAddress.nullable(),
  ownerName: words(120).nullable(),
  webmaster: z.email(emailRule).max(254, 'At most 254 characters.').nullable(),
  copyright: words(300).nullable(),
  secondCategory: z
    .object({ category: z.string(), subcategory: z.string().nullable() })
    .refine(({ category, subcategory }) => isCategory(category, subcategory), 'A category of the fixed list.')
    .nullable(),
  keywords: z.array(words(60)).max(20, 'At most 20 keywords.'),
  licence: words(128).nullable(),
  place: words(128).nullable(),
  medium: z.enum(media),
  funding: z.array(funding).max(10, 'At most 10 ways to give.'),
  statements: z.array(statement).max(10, 'At most 10 statements.'),
  recommends: z.array(recommended).max(50, 'At most 50 shows.'),
  seasonNames: z
    .array(seasonName)
    .max(500, 'At most 500 seasons.')
    .refine(names => new Set(names.map(({ season }) => season)).size === names.length, 'Each season once.'),
  /** Whether it goes out to listeners with an address of their own only. */
  isPrivate: z.boolean(),
  isLocked: z.boolean(),
  isBlocked: z.boolean(),
  isComplete: z.boolean(),
  /** Where the feed has moved to; whether its old address then leads there at once, or says so in the feed first. */
  movedTo: webAddress.nullable(),
  isRedirected: z.boolean(),
  /** How many items the feed has; null for all of them. What is older is in further parts. */
  itemsPerPart: z
    .int('A whole number.')
    .min(itemsPerPart.least, `At least ${itemsPerPart.least}.`)
    .max(itemsPerPart.most, `At most ${itemsPerPart.most.toLocaleString('en')}.`)
    .nullable(),
})
export type FeedFacts = z.output<typeof feedFacts>

/** What a show says that has said nothing of it. Locked: taking a show over then needs a word from its owner. */
export const unsetFeedFacts: FeedFacts = {
  site: null,
  ownerName: null,
  webmaster: null,
  copyright: null,
  secondCategory: null,
  keywords: [],
  licence: null,
  place: null,
  medium: 'podcast',
  funding: [],
  statements: [],
  recommends: [],
  seasonNames: [],
  isPrivate: false,
  isLocked: true,
  isBlocked: false,
  isComplete: false,
  movedTo: null,
  isRedirected: false,
  itemsPerPart: null,
}

/** Facts as they are kept, with those that came later as they are where nobody has said them. */
export const withAllFacts = (kept: Partial<FeedFacts> | null): FeedFacts => ({ ...unsetFeedFacts, ...kept })
