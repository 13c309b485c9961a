import { describe, expect, it } from 'vitest'
import { slugFrom } from './slug'

describe('an address part made from a name', () => {
  it.each([
    ['Bellows & Reeds', 'bellows-and-reeds'],
    ['Die große Überfahrt', 'die-grosse-ueberfahrt'],
    ['Паром в тумане', 'parom-v-tumane'],
    ['Żółta łódź', 'zolta-lodz'],
    ['العبّارة', 'alebart'],
    ['LakeLetter’s 3rd', 'lakeletters-3rd'],
    ['L’été à l’eau', 'lete-a-leau'],
    ['  --Ærø: 12!  ', 'aero-12'],
    ['שלום', ''],
    ['🪗🪗', ''],
  ])('%s becomes "%s"', (name, slug) => expect(slugFrom(name)).toBe(slug))

  it.each([
    ['de', 'faehre'],
    ['sv', 'fahre'],
    ['sv-SE', 'fahre'],
    ['en-GB', 'faehre'],
  ])('is spelled as %s spells it', (language, slug) => expect(slugFrom('Fähre', { language })).toBe(slug))

  it('is cut between words, and within one that is too long by itself', () => {
    expect(slugFrom('one two three', { maxLength: 8 })).toBe('one-two')
    expect(slugFrom('incomprehensibilities', { maxLength: 8 })).toBe('incompre')
  })
})
