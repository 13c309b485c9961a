import { itemOf, modelOf } from './model.fixture'

/** A feed that says everything that it can, for tests. */
export const whole = modelOf([
  itemOf({
    number: 2,
    season: 3,
    seasonName: 'The winter boats',
    kind: 'trailer',
    hook: 'Why they wheeze',
    tags: ['reeds', 'lake'],
    discussion: 'https://talk.example/2',
    author: 'Odile',
    licence: 'cc-by-4.0',
    place: 'The workshop',
    chaptersAddress: 'https://lake.example/2/chapters.json',
    people: [{ name: 'Odile', role: 'Guest', address: null, pictureAddress: 'https://lake.example/o.jpg' }],
    transcripts: [{ address: 'https://lake.example/2.vtt', type: 'text/vtt', language: 'en', isCaptions: true }],
    from: { title: 'Bellows & Reeds', feedAddress: 'https://lake.example/bellows-and-reeds/feed.xml' },
  }),
])
export const channel = {
  ...whole.channel,
  link: 'https://workshop.example/',
  hubs: ['https://hub.example/'],
  copyright: '© the workshop',
  webmaster: 'web@bellowsandreeds.example',
  categories: [
    { category: 'Leisure', subcategory: 'Crafts' },
    { category: 'Music', subcategory: null },
  ],
  keywords: ['reeds', 'bellows'],
  isBlocked: true,
  isComplete: true,
  movedTo: 'https://new.example/feed.xml',
  people: [{ name: 'Tove', role: 'Host' as const, address: 'https://lake.example/tove', pictureAddress: null }],
  funding: [{ words: 'Buy a reed', address: 'https://workshop.example/give' }],
  licence: 'cc-by-4.0',
  place: 'The lake',
  statements: [{ purpose: 'verify', words: 'abc-123' }],
  recommends: [
    { guid: '917393e3-1b1e-5cef-ace4-edaa54e1f810', feedAddress: 'https://slow.example/feed.xml', title: 'Slow Ferry' },
  ],
  rhythm: { words: 'Every other Tuesday at 05:00', rule: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU' },
  artworkWidths: [
    { address: 'https://lake.example/a.jpg', widthPx: 3000 },
    { address: 'https://lake.example/a-480.jpg', widthPx: 480 },
  ],
}
