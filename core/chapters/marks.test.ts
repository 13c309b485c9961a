import { describe, expect, it } from 'vitest'
import { oneCut, timelineOf } from '../audio/timeline'
import type { Chapter } from '../episode/fields'
import { chaptersOf, deliveredChapters } from './chapters'
import { chapterWants } from './findings'
import { marksInNotes } from './marks'

it.each([
  [
    '<p>0:00 The kettle</p><p>5:00 the news</p><p>1:02:09 – Letters</p>',
    [
      [0, 'The kettle'],
      [300_000, 'the news'],
      [3_729_000, 'Letters'],
    ],
  ],
  [
    '<ul><li>(00:30) Wax</li><li>[12:05] Reeds</li></ul>',
    [
      [30_000, 'Wax'],
      [725_000, 'Reeds'],
    ],
  ],
  [
    '<p>0:00 One<br>75:30 Two</p>',
    [
      [0, 'One'],
      [4_530_000, 'Two'],
    ],
  ],
  ['<p>Ferry at 5:00, as always</p>', []],
  ['<p>5:00 only one</p>', []],
  ['<p>5:00 first</p><p>3:00 second</p>', []],
  ['<p>5:61 no time</p><p>6:00 one</p>', []],
  [
    '<p>0:00–4:59 One</p><p>[5:00 - 7:30] Two</p><p>7:30 to 9:00: Three</p>',
    [
      [0, 'One'],
      [300_000, 'Two'],
      [450_000, 'Three'],
    ],
  ],
  [
    '<ul><li>Wax (0:30)</li><li>Reeds – 12:05.5</li></ul>',
    [
      [30_000, 'Wax'],
      [725_500, 'Reeds'],
    ],
  ],
  [
    '<p>\u200f٠٠:٠٠ مقدمة</p><p>\u200f٠٥:٠٠ – الرسالة\u200f</p><p>\u202bהמפוח (10:00)\u202c</p>',
    [
      [0, 'مقدمة'],
      [300_000, 'الرسالة'],
      [600_000, 'המפוח'],
    ],
  ],
  ['<p>The ferry leaves at 5:00</p><p>and comes back at 6:00</p>', []],
])('times in %s are chapters', (notes, expected) => {
  expect(marksInNotes(notes).marks.map(({ fromMs, title }) => [fromMs, title])).toEqual(expected)
})

it('times that go back are no chapters, and it says so', () => {
  expect(marksInNotes('<p>5:00 first</p><p>3:00 second</p>')).toEqual({ marks: [], are: 'out of order' })
})

it('an episode’s own chapters go before the times in its notes, and those before what the file brings', () => {
  const [notes, brought] = ['<p>0:00 a</p><p>1:00 b</p>', [{ fromMs: 5000, title: 'from the file' }]]
  const own = [
    { id: 'z', fromMs: 9000, title: 'late', address: null, pictureId: null, isListed: true },
    { id: 'y', fromMs: 1000, title: 'early', address: null, pictureId: null, isListed: false },
  ]
  const of = (text: Parameters<typeof chaptersOf>[0]) => {
    const { origin, chapters } = chaptersOf(text, brought)
    return [origin, ...chapters.map(({ title }) => title)]
  }
  expect(of({ chapters: own, notes })).toEqual(['own', 'early', 'late'])
  expect(of({ chapters: [], notes })).toEqual(['own'])
  expect(of({ chapters: null, notes })).toEqual(['notes', 'a', 'b'])
  expect(of({ chapters: null, notes: '' })).toEqual(['file', 'from the file'])
})

describe('where the head is trimmed', () => {
  const chapter = (id: string, fromMs: number, isListed = true): Chapter => ({
    id,
    fromMs,
    title: id,
    isListed,
    address: null,
    pictureId: null,
  })
  const a = chapter('a', 0)
  const b = chapter('b', 1000)
  const c = chapter('c', 60_000)
  it('where more is cut out, the chapter that began there begins behind it', () => {
    const timeline = timelineOf([
      { fromMs: 0, toMs: 10_000 },
      { fromMs: 50_000, toMs: 70_000 },
      { fromMs: 100_000, toMs: 110_000 },
    ])
    const chapters = [a, chapter('x', 20_000), chapter('y', 40_000), c, chapter('z', 99_000), chapter('end', 101_000)]
    expect(deliveredChapters(chapters, timeline).map(({ id, fromMs }) => [id, fromMs])).toEqual([
      ['a', 0],
      ['y', 10_000],
      ['c', 20_000],
      ['end', 30_000],
    ])
  })
  const delivered = (chapters: Chapter[], fromMs: number, durationMs = 80_000) =>
    deliveredChapters(chapters, oneCut(fromMs, durationMs)).map(({ id, fromMs: ms }) => [id, ms])
  it.each([
    [
      'the chapter that goes on there begins the sound',
      [a, b, c, chapter('d', 90_000)],
      2000,
      [
        ['b', 0],
        ['c', 58_000],
      ],
    ],
    ['one of which hardly anything is left falls away', [a, c], 57_500, [['c', 0]]],
    [
      'one of which three seconds are left stays',
      [a, c],
      57_000,
      [
        ['a', 0],
        ['c', 3000],
      ],
    ],
    [
      'one that begins just there stays',
      [b, chapter('e', 2000)],
      1000,
      [
        ['b', 0],
        ['e', 1000],
      ],
    ],
    [
      'a hidden one does not take the place of a listed one',
      [a, chapter('h', 500, false), c],
      2000,
      [
        ['a', 0],
        ['h', 0],
        ['c', 58_000],
      ],
    ],
    [
      'what is left of one goes to the next that is listed, with what is hidden in it',
      [a, chapter('h', 58_000, false), c],
      57_500,
      [['c', 0]],
    ],
    ['the only one stays, however little of it there is', [a], 79_900, [['a', 0]]],
  ])('%s', (_what, chapters, fromMs, expected) => {
    expect(delivered(chapters, fromMs)).toEqual(expected)
  })
  it('of two at one moment the later stays, but one that is hidden beside one that is listed', () => {
    expect(delivered([a, { ...b, fromMs: 0 }, chapter('h', 0, false)], 0)).toEqual([
      ['b', 0],
      ['h', 0],
    ])
  })
  it('is told of those that do not go out, and of nothing at the beginning only where that is so', () => {
    const wants = (chapters: Chapter[], kept: { fromMs: number; toMs: number } | null, isM4a = false) =>
      chapterWants(chapters, kept, isM4a).map(({ code, id }) => [code, id])
    expect(wants([a, b, c], { fromMs: 30_000, toMs: 60_000 })).toEqual([
      ['chapter-cut-off', 'a'],
      ['chapter-behind-end', 'c'],
    ])
    expect(wants([b, c], null)).toEqual([['chapters-begin-late', 'b']])
    expect(wants([b, c], { fromMs: 1000, toMs: 90_000 })).toEqual([])
    expect(wants([a, { ...b, fromMs: 500 }], null)).toEqual([['chapters-close', 'b']])
    expect(wants([a, chapter('h', 9000, false)], null, true)).toEqual([['chapter-more-than-m4a', 'h']])
    expect(wants([a, c], null, true)).toEqual([])
  })
})
