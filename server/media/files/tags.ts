import type { Chapter } from '@core/episode/fields'

/** What players read in a file. */
export interface Tags {
  title: string
  /** One line; empty where there is none. */
  subtitle: string
  artist: string
  album: string
  track: number | null
  /** `2026-12-03` */
  date: string
  genre: string
  comment: string
  keywords: string[]
  /** Who did what. */
  people: string[]
  webAddress: string
  artworkId: string
  /** By the clock of the delivered file. */
  chapters: Chapter[]
}
