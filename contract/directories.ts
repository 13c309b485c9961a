import { z } from 'zod'
import { webAddress, words } from '@core/words/schemas'

export const listingStates = ['reading', 'to confirm', 'in review', 'listed', 'refused'] as const

/** How a show stands in a directory. */
const listing = z.object({
  state: z.enum(listingStates),
  since: z.string(),
  submittedAt: z.string(),
  why: z.string().nullable(),
  /** Where the code went, while it is waited for. */
  sentTo: z.string().nullable(),
  /** Whether nobody reviews today. */
  isClosed: z.boolean(),
  listingAddress: z.string().nullable(),
  fetchedAt: z.string().nullable(),
  nextFetchAt: z.string().nullable(),
  /** How many of the released episodes it has, and which not yet, the newest first. */
  has: z.number(),
  lacks: z.array(
    z.object({ id: z.string(), title: z.string(), number: z.number().nullable(), releasedAt: z.string() }),
  ),
  /** Why nothing newer is known of it; null while it answers. */
  problem: z.string().nullable(),
})
export type Listing = z.infer<typeof listing>

const directory = z.object({
  id: z.string(),
  name: z.string(),
  about: z.string(),
  /** What it wants of a show, and whether that is there. */
  wants: z.array(z.object({ words: z.string(), isThere: z.boolean() })),
  everyHours: z.tuple([z.number(), z.number()]),
  reviewDays: z.tuple([z.number(), z.number()]).nullable(),
  address: z.string(),
  listing: listing.nullable(),
})
export type Directory = z.infer<typeof directory>

/** A directory that somebody follows by hand. */
const ownListing = z.object({ id: z.string(), name: z.string(), listingAddress: z.string() })

export const directoryList = z.object({
  /** Why the directories do not answer; null while they do, and where none are set. */
  problem: z.string().nullable(),
  feedAddress: z.string(),
  released: z.number(),
  directories: z.array(directory),
  own: z.array(ownListing),
})
export type DirectoryList = z.infer<typeof directoryList>

export const directoryCode = z.object({
  code: z.string().trim().min(1, 'Must not be empty.').max(40, 'At most 40 characters.'),
})

export const newOwnListing = z.object({
  name: words(80),
  listingAddress: webAddress,
})
export type NewOwnListing = z.infer<typeof newOwnListing>
