import type { SoundFormat } from '../audio/sniff'
import type { ReadFormat } from '../transcript/formats'
import type { ReadFeed } from './read'

/** A feed to be checked, with what was seen of it and of what it names. */
export interface MetFeed {
  feed: ReadFeed
  /** Null for one that was pasted. */
  address: string | null
  bytes: number
  now: Date
  /** How its bytes were told to be written, and what about that is not so; null where it is. */
  encodingFault: string | null
  /** Null where nobody asked for it. */
  answer: FeedAnswer | null
  /** What answered at the addresses in it that were asked. */
  answers: ReadonlyMap<string, MetAddress>
}

/** How a feed answered. */
export interface FeedAnswer {
  status: number
  contentType: string
  cacheControl: string
  hasEtag: boolean
  hasLastModified: boolean
  /** What answered when asked whether it had changed, right after; null where it could not be asked. */
  conditionalStatus: number | null
  isCompressed: boolean
  headStatus: number | null
  /** The redirects on the way, in their order. */
  redirects: readonly { status: number; to: string }[]
}

/** What answered at an address. */
export interface MetAddress {
  /** Null where nothing did. */
  status: number | null
  /** Why nothing did. */
  problem: string | null
  contentType: string
  /** Of the whole; null where it does not say. */
  bytes: number | null
  takesRanges: boolean
  /** What a HEAD answered; null where it was not asked. */
  headStatus: number | null
  redirects: number
  picture: { format: string; widthPx: number; heightPx: number; space: string; isTransparent: boolean } | null
  /** What it is by its bytes, for audio and a transcript; null where that was not looked at, or cannot be told. */
  form: SoundFormat | ReadFormat | null
  /** How long the audio is, where its beginning tells. */
  durationMs: number | null
  /** What is wrong with what came, for a transcript or chapters. */
  fault: string | null
}
