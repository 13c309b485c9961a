/** A directory as it presents itself. */
export interface Character {
  id: string
  name: string
  about: string
  /** What it wants of a show before it takes it, each by the name that its refusals have. */
  wants: readonly Want[]
  /** How many hours lie between its looks at a feed, at least and at most. */
  everyHours: readonly [number, number]
  /** How many working days its people take for a review; null where nobody looks. */
  reviewDays: readonly [number, number] | null
  /** How many days it keeps artwork before it fetches it again. */
  artworkDays: number
}

export const wants = {
  episode: 'At least one released episode',
  artwork: 'Square artwork, 1400 to 3000 px, JPEG or PNG',
  email: 'The owner’s email in the feed; a code is sent there',
  description: 'A description of the show',
  category: 'A category',
  language: 'The language of the show',
} as const
export type Want = keyof typeof wants

/** Three directories that are nowhere: one strict and read by people, one quick, one slow. */
export const characters: readonly Character[] = [
  {
    id: 'harbour-list',
    name: 'Harbour List',
    about: 'People look at every show, on working days, and nobody does over holidays.',
    wants: ['episode', 'artwork', 'email', 'description', 'category', 'language'],
    everyHours: [3, 6],
    reviewDays: [1, 5],
    artworkDays: 1,
  },
  {
    id: 'mossbird',
    name: 'Mossbird',
    about: 'A machine that takes every show that it can read, and looks every hour.',
    wants: ['episode', 'email'],
    everyHours: [1, 1],
    reviewDays: null,
    artworkDays: 1,
  },
  {
    id: 'old-pier',
    name: 'Old Pier',
    about: 'Takes its time, and keeps what it has.',
    wants: ['episode', 'email', 'artwork'],
    everyHours: [6, 12],
    reviewDays: null,
    artworkDays: 7,
  },
]
