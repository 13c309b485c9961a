import type { Person } from '../episode/fields'

/** A person with where a picture of them is. */
export type ToldPerson = Pick<Person, 'name' | 'role' | 'address'> & { pictureAddress: string | null }

/** A file of what is said. */
export interface ToldTranscript {
  address: string
  type: string
  language: string
  /** Whether it has the times that captions need. */
  isCaptions: boolean
}

/** A show and its released episodes as the feed tells them: plain data, newest episode first. */
export interface FeedModel {
  channel: FeedChannel
  items: readonly FeedItem[]
}

export interface FeedChannel {
  title: string
  /** The show's public page. */
  link: string
  /** The address of this feed. */
  feedAddress: string
  /** Plain text. */
  description: string
  /** BCP 47, for example `en` or `pt-br`. */
  language: string
  author: string
  owner: { name: string; email: string }
  artworkAddress: string
  category: string
  subcategory: string | null
  explicit: boolean
  type: 'episodic' | 'serial'
  podcastGuid: string
  changedAt: Date
  generator: string
}

export interface FeedItem {
  title: string
  /** Without what the show's pattern adds. */
  bareTitle: string
  /** One line; empty where there is none. */
  hook: string
  /** Made once, never an address, never changed. */
  guid: string
  link: string
  /** Null in a look before the release, where there is none yet; as for enclosure and duration. */
  publishedAt: Date | null
  enclosure: { address: string; bytes: number; type: string } | null
  durationMs: number | null
  /** The notes as plain text. */
  description: string
  /** The notes as clean HTML. */
  notesHtml: string
  number: number | null
  season: number | null
  kind: 'full' | 'trailer' | 'bonus'
  explicit: boolean
  /** Null where the show's is used, as for author. */
  artworkAddress: string | null
  author: string | null
  tags: readonly string[]
  people: readonly ToldPerson[]
  /** Of its file of chapters; null where it has none. */
  chaptersAddress: string | null
  transcripts: readonly ToldTranscript[]
  /** Where it is talked about. */
  discussion: string | null
  licence: string | null
  place: string | null
}

/** An item that is released has all that goes out. */
export type ReleasedItem = {
  [Name in keyof FeedItem]: Name extends 'publishedAt' | 'enclosure' | 'durationMs'
    ? NonNullable<FeedItem[Name]>
    : FeedItem[Name]
}
