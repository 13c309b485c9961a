import type { Person } from '../episode/fields'

/** A person with where a picture of them is. */
export type FeedPerson = Pick<Person, 'name' | 'role' | 'address'> & { pictureAddress: string | null }

/** A file of what is said. */
export interface FeedTranscript {
  address: string
  type: string
  language: string
  /** Whether it has the times that captions need. */
  isCaptions: boolean
}

/** A stretch of a sound, in milliseconds, with a title. */
export interface FeedSoundbite {
  fromMs: number
  durationMs: number
  title: string
}

/** A show and its released episodes as the feed tells them: plain data, newest episode first. */
export interface FeedModel {
  channel: FeedChannel
  items: readonly FeedItem[]
}

/** A place on the page of directories, of the fixed list. */
export interface FeedCategory {
  category: string
  subcategory: string | null
}

/** Words that lead somewhere. */
export interface FeedLink {
  words: string
  address: string
}

export interface FeedChannel {
  title: string
  /** The show's own site where it has one elsewhere, else its public page. */
  link: string
  /** The public page, where `link` is another. */
  pageAddress: string
  /** The address of this feed. */
  feedAddress: string
  /** The same as JSON Feed; null where there is none. */
  jsonAddress: string | null
  /** Where those who want to hear of changes ask to be told (W3C WebSub). */
  hubs: readonly string[]
  /** The other parts of a feed that comes in parts (RFC 5005); null where it comes whole. */
  parts: {
    first: string
    last: string
    previous: string | null
    next: string | null
    /** The next one as JSON. */
    nextJson: string | null
  } | null
  /** Plain text. */
  description: string
  /** BCP 47, for example `en` or `pt-br`. */
  language: string
  author: string
  owner: { name: string; email: string }
  webmaster: string | null
  copyright: string | null
  artworkAddress: string
  /** The same in other widths, the widest first. */
  artworkWidths: readonly { address: string; widthPx: number }[]
  /** The first is the main one. */
  categories: readonly FeedCategory[]
  keywords: readonly string[]
  explicit: boolean
  type: 'episodic' | 'serial'
  /** What is in the feed, of the podcast namespace's list. */
  medium: string
  podcastGuid: string
  /** Whether other hosts may not take the show over; whom they would write to is the owner. */
  isLocked: boolean
  /** Whether directories may not list it. */
  isBlocked: boolean
  /** Whether nothing will ever be added. */
  isComplete: boolean
  /** Where the feed has moved to. */
  movedTo: string | null
  people: readonly FeedPerson[]
  funding: readonly FeedLink[]
  licence: string | null
  place: string | null
  statements: readonly { purpose: string; words: string }[]
  recommends: readonly { guid: string | null; feedAddress: string; title: string }[]
  /** How often something comes: in words, and as a recurrence of RFC 5545. */
  rhythm: { words: string; rule: string } | null
  changedAt: Date
  generator: string
}

/** The file of an item; `integrity` is its digest as Subresource Integrity writes it, null where nobody knows it. */
export interface Enclosure {
  address: string
  bytes: number
  type: string
  integrity: string | null
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
  enclosure: Enclosure | null
  durationMs: number | null
  /** The notes as plain text. */
  description: string
  /** The notes as clean HTML. */
  notesHtml: string
  number: number | null
  /** What apps show in its place. */
  numberShown: string | null
  season: number | null
  seasonName: string | null
  kind: 'full' | 'trailer' | 'bonus'
  explicit: boolean
  /** Null where the show's is used, as for author. */
  artworkAddress: string | null
  author: string | null
  tags: readonly string[]
  people: readonly FeedPerson[]
  /** Of its file of chapters; null where it has none. */
  chaptersAddress: string | null
  transcripts: readonly FeedTranscript[]
  /** Stretches of the enclosure to be heard before. */
  soundbites: readonly FeedSoundbite[]
  /** Discussion page. */
  discussion: string | null
  /** By what apps take part in that; null where it is a page like any other. */
  discussionProtocol: string | null
  licence: string | null
  place: string | null
  /** The feed it belongs to, in a feed that is put together of a part of it. */
  from: { title: string; feedAddress: string } | null
}

/** An item that is released has all that goes out. */
export type ReleasedItem = {
  [Name in keyof FeedItem]: Name extends 'publishedAt' | 'enclosure' | 'durationMs'
    ? NonNullable<FeedItem[Name]>
    : FeedItem[Name]
}
