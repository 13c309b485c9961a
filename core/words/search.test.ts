import { expect, it } from 'vitest'
import { readSearch } from './search'

it.each([
  ['reed organs', ['reed', 'organs'], []],
  ['The reed', ['reed'], ['the']],
  ['+bellows -leak* "now"', ['bellows', 'leak', 'now'], []],
  ['湖の手紙', [], ['湖の手紙']],
  ['Öl on G3', [], ['öl', 'on', 'g3']],
  ['  ', [], []],
  ['100 %', ['100'], []],
  ['% &', [], ['%', '&']],
  ['A_', [], ['a_']],
])('%s', (asked, beginnings, pieces) => {
  expect(readSearch(asked)).toEqual({ beginnings, pieces })
})
