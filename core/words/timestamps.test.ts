import fc from 'fast-check'
import { expect, it } from 'vitest'
import { timestampText, readTimestamp } from './timestamps'

it.each([
  ['5:00', 300_000],
  ['1:02:09.4', 3_729_400],
  ['75', 75_000],
  ['5,5', 5500],
  [' 0:07.25 ', 7250],
  ['120:00', 7_200_000],
  ['100:00:00', 360_000_000],
  ['', null],
  ['five', null],
  ['1:75', null],
  ['1:60:00', null],
  ['-1', null],
  ['1:2:3:4', null],
] as const)('“%s” is %s ms', (text, ms) => expect(readTimestamp(text)).toBe(ms))

it('what is written to the tenth is read as it was', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 3_600_000 }), tenths => {
      expect(readTimestamp(timestampText(tenths * 100))).toBe(tenths * 100)
    }),
  )
})
