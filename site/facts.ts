import type { CommentFault } from '@core/comments/comment'
import type { Chapter } from '@core/episode/fields'
import type { FeedPerson } from '@core/feed/model'
import type { PassageKind } from '@core/search/passages'
import type { EmbedTheme } from '@core/site/embed'
import type { BlockKind, Face, Layout } from '@core/site/siteTheme'
import type { EpisodeFilter } from '@core/site/filter'

/** What pages tell of a show and its episodes. */

export interface PublicShow {
  name: string
  description: string
  author: string
  language: string
  zone: string
  artworkAddress: string
  pageAddress: string
  feedAddress: string
  /** Where else it is listed. */
  subscribe: readonly Link[]
  /** Donation links to its makers. */
  funding: readonly Link[]
  /** Those who make it. */
  people: readonly FeedPerson[]
  /** Pages of its maker's own. */
  pages: readonly Link[]
  theme: PublicTheme
  /** For whoever is sent a link to it. */
  sharePicture: string | null
  /** Whether listeners may write to its episodes. */
  takesComments: boolean
  /** Where other sites ask for its player; null where they get none. */
  oembedAddress: string | null
}

/** How the pages of a show look. */
export interface PublicTheme {
  layout: Layout
  face: Face
  /** Custom properties of its colours, as a style sheet. */
  style: string
  /** Its ground and its band by day, for what is not a page. */
  ground: string
  band: string
  headerPictureAddress: string | null
  /** Those that are on, in their order. */
  blocks: readonly BlockKind[]
}

export interface Link {
  name: string
  address: string
}

/** An episode in a list. */
export interface EpisodeLine {
  title: string
  /** Where the title does not tell it. */
  number: number | null
  season: number | null
  /** The hook, or the beginning of the notes as plain text. */
  summary: string
  /** A picture of its own; null where the show's is used. */
  artworkAddress: string | null
  pageAddress: string
  sound: PublicSound
  /** ISO 8601, UTC. */
  releasedAt: string
}

export interface PublicSound {
  address: string
  type: string
  bytes: number
  durationMs: number
}

export interface PublicEpisode extends Omit<EpisodeLine, 'sound' | 'releasedAt'> {
  /** For whoever is sent a link to it. */
  sharePicture: string | null
  /** One line; empty where there is none. */
  hook: string
  /** Clean HTML. */
  notesHtml: string
  tags: readonly string[]
  people: readonly FeedPerson[]
  /** Those that are listed, by the clock of its sound. */
  chapters: readonly (Pick<Chapter, 'fromMs' | 'title' | 'address'> & { pictureAddress: string | null })[]
  /** Stretches to be heard before and passed on, by the clock of its sound; each as a file of its own, where there is one. */
  soundbites: readonly { fromMs: number; toMs: number; title: string; address: string | null }[]
  /** What is said, in the language that is spoken, by the clock of its sound. */
  said: readonly SaidCue[]
  /** In which languages else, and as which files it is there. */
  transcriptFiles: readonly { address: string; language: string; format: string }[]
  /** Null where it is the show's. */
  author: string | null
  /** A page about it elsewhere, and where it is talked about. */
  page: string | null
  discussion: string | null
  /** A film of it elsewhere, and whether it may be shown in the page. */
  film: { address: string; isShown: boolean } | null
  /** Those that its notes do not have. */
  links: readonly Link[]
  isPromotion: boolean
  isExplicit: boolean
  licence: string | null
  place: string | null
  /** Null in a look before the release, where there is none yet; as for the moment. */
  sound: PublicSound | null
  releasedAt: string | null
}

export interface SaidCue {
  fromMs: number | null
  speaker: string | null
  text: string
}

/** The show itself. */
export interface ShowPage {
  show: PublicShow
  newest: EpisodeLine | null
  /** What newcomers may hear first; null where there is none, or it is the newest. */
  trailer: EpisodeLine | null
  /** Those behind the newest, as many as the page shows. */
  episodes: readonly EpisodeLine[]
  choices: Choices
  people: readonly PersonInShow[]
  comments: readonly ShownComment[]
}

/** By what a show's episodes can be chosen, and how many there are. */
export interface Choices {
  total: number
  seasons: readonly number[]
  years: readonly number[]
  strands: readonly { slug: string; name: string; feedAddress: string }[]
  /** The most used first. */
  tags: readonly { tag: string; count: number }[]
}

/** A page of a show's episodes. */
export interface EpisodesPage {
  show: PublicShow
  filter: EpisodeFilter
  choices: Choices
  episodes: readonly EpisodeLine[]
  /** How many there are, on how many pages. */
  found: number
  pages: number
}

export interface EpisodePage {
  show: PublicShow
  episode: PublicEpisode
  /** Those that went out before and after it. */
  before: Neighbour | null
  after: Neighbour | null
  comments: readonly ShownComment[]
}

/** What a listener wrote, and what the maker answered. */
export interface ShownComment {
  name: string
  words: string
  answer: string | null
  cameAt: string
  /** Where it is told apart from those of other episodes. */
  episode?: Neighbour
}

/** What became of a comment: taken, or not for a reason. */
export interface CommentPage {
  show: PublicShow
  title: string
  pageAddress: string
  problem: CommentFault | 'too many comments' | null
  name: string
  words: string
}
/** Of an address at which a show, where it is one's, has nothing, or nothing any more. */
export interface MissingPage {
  show: (Pick<PublicShow, 'name' | 'pageAddress' | 'language'> & { isRemoved: boolean }) | null
}
export type Neighbour = Pick<EpisodeLine, 'title' | 'pageAddress'>

/** Somebody who makes a show or was heard in it. */
export interface PersonInShow extends Omit<FeedPerson, 'role'> {
  roles: readonly string[]
  /** The newest that they are in, as many as the page shows; and how many there are. */
  episodes: readonly Neighbour[]
  count: number
}
export interface PeoplePage {
  show: PublicShow
  people: readonly PersonInShow[]
}

export interface ListenPage {
  show: PublicShow
  strands: Choices['strands']
}

/** What was found by words. */
export interface SearchPage {
  show: PublicShow
  /** As they were typed. */
  words: string
  found: readonly { episode: EpisodeLine; places: readonly FoundPlace[] }[]
  /** Whether each place has all the words; else some. */
  hasAllWords: boolean
  /** Whether there are more than are shown. */
  isCut: boolean
  isTooLong: boolean
}
export interface FoundPlace {
  kind: PassageKind
  parts: readonly { text: string; isHit: boolean }[]
  /** When it begins to be said; null where it is not said, or nobody knows when. */
  fromMs: number | null
  speaker: string | null
}

/** A player in another site's page: one episode, or a list that begins with the newest. */
export interface Embed {
  show: PublicShow
  episodes: readonly EpisodeLine[]
  isList: boolean
  /** Of the one episode. */
  chapters: PublicEpisode['chapters']
  theme: EmbedTheme
}

/** A page of the maker's own. */
export interface OwnPage {
  show: PublicShow
  title: string
  /** Clean HTML. */
  contentHtml: string
  slug: string
}
