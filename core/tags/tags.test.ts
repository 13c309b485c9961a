import { describe, expect, it } from 'vitest'
import { readTags, tagKey } from './tags'

describe('one tag', () => {
  it.each([
    ['Reeds', 'reed'],
    ['réed', 'Reed'],
    ['#reed', 'reed'],
    ['Stories', 'story'],
    ['boxes', 'box'],
    ['Straße', 'straße'],
    ['two  words', 'Two words'],
  ])('%s and %s', (one, other) => expect(tagKey(one)).toBe(tagKey(other)))
  it.each([
    ['glass', 'glas'],
    ['bus', 'bu'],
    ['organ', 'organist'],
  ])('but not %s and %s', (one, other) => expect(tagKey(one)).not.toBe(tagKey(other)))
})

it('tags are read separated by commas, semicolons and lines, each once, in the spelling that is used already', () =>
  expect(readTags('reed, Organs;\n harmonium , Reeds,,', ['Reeds'])).toEqual(['Reeds', 'Organs', 'harmonium']))
