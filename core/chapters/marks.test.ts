import { expect, it } from 'vitest'
import { chaptersOf, deliveredChapters } from './chapters'
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

it('chapters move with the head that is trimmed, and those outside fall away', () => {
  const chapters = [
    { fromMs: 0, title: 'a' },
    { fromMs: 1000, title: 'b' },
    { fromMs: 60_000, title: 'c' },
    { fromMs: 90_000, title: 'd' },
  ]
  expect(deliveredChapters(chapters, { fromMs: 2000, durationMs: 80_000 })).toEqual([
    { fromMs: 0, title: 'b' },
    { fromMs: 58_000, title: 'c' },
  ])
})
