import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { contrast, adjusted, partsOf, textContrast } from './contrast'
import { type Palette, paletteOf } from './palette'

// WCAG 2.2, definition of contrast ratio: 21 to 1 for black and white; and pairs of the W3C's techniques and understanding
// documents (from memory): #767676 is the lightest grey that text on white may have, at 4.54; #777777 fails at 4.48;
// #949494 is the lightest for lines of controls, at 3.03.
describe('the contrast of two colours', () => {
  it.each([
    ['#000000', '#ffffff', 21],
    ['#ffffff', '#ffffff', 1],
    ['#767676', '#ffffff', 4.54],
    ['#777777', '#ffffff', 4.48],
    ['#949494', '#ffffff', 3.03],
  ])('%s on %s is %f', (one, other, ratio) => {
    expect(contrast(one, other)).toBeCloseTo(ratio, 2)
    expect(contrast(other, one)).toBeCloseTo(ratio, 2)
  })

  it('is that of the formula, term by term', () => {
    const linear = (part: number): number => (part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4)
    const luminance = (colour: string): number => {
      const [r, g, b] = [1, 3, 5].map(at => linear(parseInt(colour.slice(at, at + 2), 16) / 255))
      return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!
    }
    fc.assert(
      fc.property(colours, colours, (one, other) => {
        const [dark, light] = [luminance(one), luminance(other)].toSorted((a, b) => a - b)
        expect(contrast(one, other)).toBeCloseTo((light! + 0.05) / (dark! + 0.05), 3)
      }),
    )
  })
})

const colours = fc.integer({ min: 0, max: 0xffffff }).map(value => `#${value.toString(16).padStart(6, '0')}`)

/** What stands on what. */
const texts: readonly [keyof Palette, readonly (keyof Palette)[]][] = [
  ['ink', ['paper', 'sheet', 'sheet-sunk', 'accent-wash']],
  ['ink-soft', ['paper', 'sheet', 'sheet-sunk', 'accent-wash']],
  ['accent', ['paper', 'sheet', 'sheet-sunk', 'accent-wash']],
  ['on-accent', ['accent']],
  ['on-deep', ['deep', 'deep-lit']],
  ['on-deep-soft', ['deep', 'deep-lit']],
]

it('whatever colours are chosen, everything can be read, by day and by night', () => {
  fc.assert(
    fc.property(colours, colours, fc.constantFrom('light' as const, 'dark' as const), (accent, band, scheme) => {
      const palette = paletteOf({ accent, band }, scheme)
      for (const [text, grounds] of texts)
        for (const ground of grounds)
          expect(
            contrast(palette[text], palette[ground]),
            `${text} ${palette[text]} on ${ground} ${palette[ground]}`,
          ).toBeGreaterThanOrEqual(textContrast)
      for (const ground of ['paper', 'sheet'] as const)
        expect(contrast(palette['edge-strong'], palette[ground])).toBeGreaterThanOrEqual(3)
    }),
    { numRuns: 400 },
  )
})

it('a colour that can be read stays as it was chosen, and another keeps its hue', () => {
  expect(adjusted('#12495f', ['#ffffff'], textContrast)).toBe('#12495f')
  const yellow = adjusted('#ffd400', ['#ffffff'], textContrast)
  expect(contrast(yellow, '#ffffff')).toBeGreaterThanOrEqual(textContrast)
  expect(Math.abs(partsOf(yellow).h - partsOf('#ffd400').h)).toBeLessThan(5)
})
