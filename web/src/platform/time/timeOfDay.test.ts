import { expect, it } from 'vitest'
import { readTimeOfDay } from './timeOfDay'

it.each([
  ['6', '06:00'],
  ['06:30', '06:30'],
  ['6.05', '06:05'],
  ['0630', '06:30'],
  [' 23h59 ', '23:59'],
  ['0', '00:00'],
])('a time typed %j is %s', (typed, time) => {
  expect(readTimeOfDay(typed)).toBe(time)
})
it.each(['', '24:00', '6:60', 'noon', '6:5', '-1'])('%j is no time', typed => expect(readTimeOfDay(typed)).toBeNull())
