import { describe, expect, it } from 'vitest'
import { readHttpDate, settledAt } from './dates'

// RFC 9110 section 5.6.7 gives these three, all for the same moment.
describe('an HTTP-date', () => {
  it.each(['Sun, 06 Nov 1994 08:49:37 GMT', 'Sunday, 06-Nov-94 08:49:37 GMT', 'Sun Nov  6 08:49:37 1994'])(
    'is read: %s',
    text => expect(readHttpDate(text)).toBe(Date.UTC(1994, 10, 6, 8, 49, 37)),
  )
  it.each([
    '1994-11-06T08:49:37Z',
    '784111777',
    '6 Nov 1994',
    'Sun, 06 Nov 1994 08:49:37 +0000',
    'Mon, 06 Nov 1994 08:49:37 GMT',
    'Sun, 31 Feb 2026 00:00:00 GMT',
    '',
    'now',
  ])('is none: %j', text => expect(readHttpDate(text)).toBeNull())
})

it('contents of one second settle on the next, so that no date stands for two of them', () => {
  expect(settledAt(new Date('2026-03-10T05:00:00.100Z')).toISOString()).toBe('2026-03-10T05:00:01.000Z')
  expect(settledAt(new Date('2026-03-10T05:00:00.000Z')).toISOString()).toBe('2026-03-10T05:00:01.000Z')
})
