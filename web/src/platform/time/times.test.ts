import { expect, it } from 'vitest'
import { listenerLink } from '../../show/shows/links'
import { languages } from '../../show/shows/languages'
import { longMoment, offsetWords, placeOf, shortDay, shortMoment, timeOfDay, untilThen } from './times'

const at = '2026-12-03T05:00:00.000Z'

it('a moment is shown by the clock of the zone it is asked in', () => {
  expect(timeOfDay(at, 'Europe/Zurich')).toBe('06:00')
  expect(timeOfDay(at, 'America/New_York')).toBe('00:00')
  expect(longMoment(at, 'Europe/Zurich')).toBe('Thursday 3 December 2026, 06:00')
  expect(shortMoment(at, 'Pacific/Honolulu')).toBe('Wed 2 Dec, 19:00')
  expect(shortDay(at, 'Europe/Zurich')).toBe('3 Dec 2026')
})

it.each([
  ['2026-12-03T04:59:20Z', 'in 40 seconds'],
  ['2026-12-03T04:30:00Z', 'in 30 minutes'],
  ['2026-12-02T05:00:00Z', 'in 24 hours'],
  ['2026-12-01T04:00:00Z', 'in 49 hours'],
  ['2026-11-24T05:00:00Z', 'in 9 days'],
  ['2026-12-03T05:00:00.400Z', 'just now'],
  ['2026-12-03T06:00:00Z', '1 hour ago'],
])('from %s it is %s', (now, words) => expect(untilThen(at, new Date(now))).toBe(words))

it('the listener is given the feed’s address whole, or there is no link', () => {
  expect(listenerLink('http://127.0.0.1:4311', 'http://lake.example/a b/feed.xml?x=1&y')).toBe(
    'http://127.0.0.1:4311/?feed=http%3A%2F%2Flake.example%2Fa%20b%2Ffeed.xml%3Fx%3D1%26y',
  )
  expect(listenerLink(null, 'http://lake.example/feed.xml')).toBeNull()
})

it('languages to choose from have names of their own and tags that the platform knows', () => {
  expect(new Set(languages.map(({ name }) => name)).size).toBe(languages.length)
  for (const { code, name } of languages) {
    expect(Intl.getCanonicalLocales(code)).toHaveLength(1)
    expect(name).not.toBe(code)
  }
})

it('an offset is written out, by the clock of that day', () => {
  expect(offsetWords('2026-12-03T05:00:00Z', 'Europe/Zurich')).toBe('UTC+1')
  expect(offsetWords('2026-07-03T05:00:00Z', 'Europe/Zurich')).toBe('UTC+2')
  expect(offsetWords('2026-07-03T05:00:00Z', 'America/St_Johns')).toBe('UTC−2:30')
  expect(offsetWords('2026-07-03T05:00:00Z', 'UTC')).toBe('UTC')
  expect(placeOf('America/Argentina/Buenos_Aires')).toBe('Buenos Aires')
})
