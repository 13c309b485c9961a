import type { Chapter } from '@core/episode/fields'
import type { ToldPerson } from '@core/feed/model'

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
  subscribe: readonly { name: string; address: string }[]
}

export interface PublicEpisode {
  title: string
  number: number | null
  /** One line; empty where there is none. */
  hook: string
  /** Clean HTML. */
  notesHtml: string
  /** The hook, or the beginning of the notes as plain text. */
  summary: string
  tags: readonly string[]
  people: readonly ToldPerson[]
  /** Those that are listed, by the clock of its sound. */
  chapters: readonly (Pick<Chapter, 'fromMs' | 'title' | 'address'> & { pictureAddress: string | null })[]
  /** Stretches to be heard before and passed on, by the clock of its sound; each as a file of its own, where there is one. */
  soundbites: readonly { fromMs: number; toMs: number; title: string; address: string | null }[]
  /** What is said, in the language that is spoken, by the clock of its sound. */
  said: readonly SaidCue[]
  /** In which languages else, and as which files it is there. */
  transcriptFiles: readonly { address: string; language: string; format: string }[]
  /** A picture of its own; null where the show's is used, as for author. */
  artworkAddress: string | null
  author: string | null
  /** A page about it elsewhere, and where it is talked about. */
  page: string | null
  discussion: string | null
  isPromotion: boolean
  isExplicit: boolean
  licence: string | null
  place: string | null
  pageAddress: string
  /** Null in a look before the release, where there is none yet; as for the moment. */
  sound: { address: string; type: string; bytes: number; durationMs: number } | null
  /** ISO 8601, UTC. */
  releasedAt: string | null
}

export interface SaidCue {
  fromMs: number | null
  speaker: string | null
  text: string
}

export interface ShowPage {
  show: PublicShow
  episodes: readonly PublicEpisode[]
}
export interface EpisodePage {
  show: PublicShow
  episode: PublicEpisode
}
