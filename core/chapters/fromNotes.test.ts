import { expect, it } from 'vitest'
import { chaptersFromNotes, movedChapters } from './fromNotes'

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
])('times in %s are chapters', (notes, expected) => {
  expect(chaptersFromNotes(notes).map(({ fromMs, title }) => [fromMs, title])).toEqual(expected)
})

it('chapters move with the head that is trimmed, and those outside fall away', () => {
  const chapters = [
    { fromMs: 0, title: 'a' },
    { fromMs: 1000, title: 'b' },
    { fromMs: 60_000, title: 'c' },
    { fromMs: 90_000, title: 'd' },
  ]
  expect(movedChapters(chapters, 2000, 80_000)).toEqual([
    { fromMs: 0, title: 'b' },
    { fromMs: 58_000, title: 'c' },
  ])
})
