import { expect, it } from 'vitest'
import { spellingsOf } from './spellings'

it('finds one tag in several spellings, the most used first', () => {
  const used = [
    { tag: 'reed', count: 1 },
    { tag: 'Bellows', count: 4 },
    { tag: 'Reeds', count: 3 },
    { tag: 'réeds', count: 2 },
    { tag: 'wax', count: 9 },
  ]
  expect(spellingsOf(used).map(group => group.map(({ tag }) => tag))).toEqual([['Reeds', 'réeds', 'reed']])
})
