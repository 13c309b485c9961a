import { expect, it } from 'vitest'
import { letters } from './line'
import { cutForList } from './listCut'

it.each([
  ['fits', 'The wet reed', 40, 'The wet reed'],
  [
    'is cut with a sign',
    'Wax, or the smell of a good morning in the workshop',
    40,
    'Wax, or the smell of a good morning in…',
  ],
  ['of emoji is cut between them', '👩‍🔧'.repeat(50), 40, `${'👩‍🔧'.repeat(39)}…`],
])('a title that %s', (_name, title, most, shown) => {
  expect(cutForList(title, most)).toBe(shown)
  expect(letters(cutForList(title, most))).toBeLessThanOrEqual(most)
})
