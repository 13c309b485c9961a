import { expect, it } from 'vitest'
import { firstDayOf } from './week'

// Unicode CLDR, supplemental data, weekData/firstDay (the values from memory).
it.each([
  ['en', 1],
  ['en-GB', 1],
  ['en-US', 0],
  ['de', 1],
  ['pt-BR', 0],
  ['he', 0],
  ['ar-EG', 6],
  ['no such language', 1],
])('a week of %s begins with day %i', (language, day) => {
  expect(firstDayOf(language)).toBe(day)
})
