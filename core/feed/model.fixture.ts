import type { FeedModel, ReleasedItem } from './model'

/** A feed of the demo's show for tests and benches. */
export const modelOf = (items: ReleasedItem[]): Omit<FeedModel, 'items'> & { items: ReleasedItem[] } => ({
  channel: {
    title: 'Bellows & Reeds',
    link: 'https://lake.example/bellows-and-reeds',
    feedAddress: 'https://lake.example/bellows-and-reeds/feed.xml',
    description: 'People who mend reed instruments.',
    language: 'en-gb',
    author: 'Tove Aldermoor',
    owner: { name: 'Tove Aldermoor', email: 'workshop@bellowsandreeds.example' },
    artworkAddress: 'https://lake.example/media/artwork/a.jpg',
    category: 'Leisure',
    subcategory: 'Crafts',
    explicit: false,
    type: 'episodic',
    podcastGuid: '2f450908-b7f8-58de-91f4-bc312b527759',
    changedAt: new Date('2026-03-10T05:00:00Z'),
    generator: 'Lake Letter',
  },
  items,
})

let made = 0
export const itemOf = (change: Partial<ReleasedItem> = {}): ReleasedItem => ({
  title: 'The harmonium that coughed',
  bareTitle: 'The harmonium that coughed',
  hook: '',
  guid: `00000000-0000-4000-8000-${String(++made).padStart(12, '0')}`,
  link: 'https://lake.example/bellows-and-reeds/the-harmonium-that-coughed',
  publishedAt: new Date('2026-03-05T05:00:00Z'),
  enclosure: { address: 'https://lake.example/media/one/two.mp3', bytes: 696_341, type: 'audio/mpeg' },
  durationMs: 85_655,
  description: 'A harmonium arrives on a handcart.',
  notesHtml: '<p>A harmonium arrives on a <em>handcart</em>.</p>',
  number: 31,
  season: null,
  kind: 'full',
  explicit: false,
  artworkAddress: null,
  author: null,
  tags: [],
  people: [],
  chaptersAddress: null,
  transcripts: [],
  discussion: null,
  licence: null,
  place: null,
  ...change,
})
