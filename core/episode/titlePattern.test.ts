import { describe, expect, it } from 'vitest'
import { patternFault, patternTitle } from './titlePattern'

const episode = { title: 'A letter from a chapel', number: 37, season: 2 }

describe('a title by a show’s pattern', () => {
  it.each([
    ['{title}', 'A letter from a chapel'],
    ['{number}. {title}', '37. A letter from a chapel'],
    ['{season}x{number} {title}', '2x37 A letter from a chapel'],
    ['{show}: {title}', 'Bellows & Reeds: A letter from a chapel'],
  ])('%s: %s', (pattern, told) => expect(patternTitle(pattern, episode, 'Bellows & Reeds')).toBe(told))
  it('stands alone where the episode has no number that the pattern names', () =>
    expect(patternTitle('{number}. {title}', { ...episode, number: null }, '')).toBe(episode.title))
  it('takes what stands in a title for words, also what looks like a field', () =>
    expect(patternTitle('{number}. {title}', { ...episode, title: '{number} $& {x}' }, '')).toBe('37. {number} $& {x}'))
})

describe('a pattern', () => {
  it('must have the title in it', () => expect(patternFault('No. {number}')).toContain('{title}'))
  it('with an unknown field is refused by its name', () =>
    expect(patternFault('{titel} {title}')).toBe(
      'There is no field {titel}; there are {number}, {season}, {title} and {show}.',
    ))
  it('of known fields is fine', () => expect(patternFault('{season}x{number} {title}')).toBeNull())
})
