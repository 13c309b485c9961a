import { clampChroma, converter, formatHex, type Oklch, parse, wcagContrast } from 'culori/fn'
import { modeOklch, modeRgb, modeLrgb, modeOklab, useMode } from 'culori/fn'

useMode(modeRgb)
useMode(modeLrgb)
useMode(modeOklab)
useMode(modeOklch)
const toOklch = converter('oklch')

/** A colour as `#rrggbb`. */
export type Colour = string
export const isColour = (words: string): boolean => /^#[0-9a-f]{6}$/.test(words)

/** What text needs against its ground, and what lines of controls need (WCAG 2.2, 1.4.3 and 1.4.11). */
export const textContrast = 4.5
export const lineContrast = 3

/** The contrast ratio of two colours, from 1 to 21 (WCAG 2.2, definition of contrast ratio). */
export const contrast = (one: Colour, other: Colour): number => wcagContrast(one, other)

/** Lightness from 0 to 1, chroma from 0, hue in degrees (OKLCH). */
export interface Parts {
  l: number
  c: number
  h: number
}

export function partsOf(colour: Colour): Parts {
  const { l, c, h } = toOklch(parse(colour)) as Oklch
  return { l, c, h: h ?? 0 }
}

/** The colour of these parts, or the nearest of the same hue and lightness that screens have. */
export const colourOf = ({ l, c, h }: Parts): Colour =>
  formatHex(clampChroma({ mode: 'oklch', l: Math.min(1, Math.max(0, l)), c, h }, 'oklch'))

const step = 0.01

/**
 * A colour that has a ratio against each ground: the wanted one, or the nearest in lightness, its hue kept. Where none has it on
 * that side of the grounds, black or white.
 */
export function adjusted(wanted: Colour, grounds: readonly Colour[], ratio: number): Colour {
  const passes = (colour: Colour): boolean => grounds.every(ground => contrast(colour, ground) >= ratio)
  if (passes(wanted)) return wanted
  const parts = partsOf(wanted)
  const isOnLight = contrast('#000000', grounds[0]!) >= contrast('#ffffff', grounds[0]!)
  for (let l = parts.l; l >= 0 && l <= 1; l += isOnLight ? -step : step) {
    const colour = colourOf({ ...parts, l })
    if (passes(colour)) return colour
  }
  return isOnLight ? '#000000' : '#ffffff'
}
