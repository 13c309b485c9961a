import { expect, it } from 'vitest'
import { deliverableTypes, endingOf, isDeliverable } from './delivery'

it('what is delivered has an ending of its own, and nothing else has one', () => {
  // RFC 3003 (audio/mpeg) names .mp3 among its endings; .m4a is common practice, no source.
  expect(deliverableTypes.map(endingOf)).toEqual(['mp3', 'm4a'])
  for (const other of ['audio/flac', 'audio/wav', 'toString', '']) {
    expect(isDeliverable(other)).toBe(false)
    expect(() => endingOf(other)).toThrow(`type ${other} is not delivered`)
  }
})
