import type { EpisodeField } from '@core/episode/fields'
import { t } from './messages'

/** The parts of the desk, in the order of the work. */
export const deskParts = [
  'sound',
  'words',
  'people',
  'chapters',
  'transcript',
  'soundbites',
  'extras',
  'numbers',
] as const
export type DeskPart = (typeof deskParts)[number]

/** Those that go by the time of the sound and have a lane under it. */
export const partsByTime: readonly DeskPart[] = ['chapters', 'transcript', 'soundbites']

export const partNames: Readonly<Record<DeskPart, string>> = {
  sound: t('sound'),
  words: t('words'),
  people: t('peopleAndTags'),
  chapters: t('chapters'),
  transcript: t('transcript'),
  soundbites: t('soundbites'),
  extras: t('extras'),
  numbers: t('numbers'),
}

const places: Readonly<Record<EpisodeField, DeskPart | 'head'>> = {
  title: 'head',
  number: 'head',
  season: 'head',
  kind: 'head',
  hook: 'words',
  notes: 'words',
  links: 'words',
  tags: 'people',
  people: 'people',
  chapters: 'chapters',
  soundbites: 'soundbites',
  mix: 'sound',
  artworkId: 'extras',
  extras: 'extras',
}

/** Where each field is written: in a part, or above them all. */
export const placeOf = (field: EpisodeField): DeskPart | 'head' => places[field]
