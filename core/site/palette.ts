import { type Colour, colourOf, contrast, lineContrast, adjusted, type Parts, partsOf, textContrast } from './contrast'

/** The two colours that a show's pages are built on: of what can be pressed, and of the band at the top. */
export interface Seeds {
  accent: Colour
  band: Colour
}

/** Those of the house. */
export const houseSeeds: Seeds = { accent: '#12495f', band: '#103747' }

/** Every colour of a page, by the names of theme/tokens.css. */
export interface Palette {
  paper: Colour
  sheet: Colour
  'sheet-sunk': Colour
  edge: Colour
  'edge-strong': Colour
  ink: Colour
  'ink-soft': Colour
  accent: Colour
  'accent-strong': Colour
  'accent-wash': Colour
  'on-accent': Colour
  deep: Colour
  'deep-lit': Colour
  'on-deep': Colour
  'on-deep-soft': Colour
}

/** Lightnesses of the grounds and of what stands on them, by day and by night. */
const scales = {
  light: { paper: 0.955, sheet: 0.985, sunk: 0.925, wash: 0.915, edge: 0.86, strong: 0.62, ink: 0.25, soft: 0.45 },
  dark: { paper: 0.2, sheet: 0.25, sunk: 0.17, wash: 0.31, edge: 0.37, strong: 0.6, ink: 0.93, soft: 0.77 },
} as const
/** Grounds have a breath of the colour, and no more. */
const mostOfPaper = 0.006
const mostOfBand = 0.09

/** A whole palette out of two colours, in which everything can be read: what is wanted is kept where it can be, and mended where not. */
export function paletteOf({ accent, band }: Seeds, scheme: 'light' | 'dark'): Palette {
  const scale = scales[scheme]
  const seed = partsOf(accent)
  const tinted = (l: number, most = mostOfPaper): Colour => colourOf({ l, c: Math.min(seed.c, most), h: seed.h })
  const grounds = { paper: tinted(scale.paper), sheet: tinted(scale.sheet), 'sheet-sunk': tinted(scale.sunk) }
  const wash = tinted(scale.wash, 0.024)
  const all = [grounds.paper, grounds.sheet, grounds['sheet-sunk'], wash]
  const own = adjusted(accent, all, textContrast)
  const deep = bandOf(partsOf(band), scheme)
  const lit = colourOf({ ...partsOf(deep), l: partsOf(deep).l + 0.06 })
  return {
    ...grounds,
    edge: tinted(scale.edge, 0.02),
    'edge-strong': adjusted(tinted(scale.strong, 0.02), all, lineContrast),
    ink: adjusted(tinted(scale.ink, 0.02), all, textContrast),
    'ink-soft': adjusted(tinted(scale.soft, 0.02), all, textContrast),
    accent: own,
    'accent-strong': adjusted(colourOf({ ...partsOf(own), l: partsOf(own).l - 0.1 }), all, textContrast),
    'accent-wash': wash,
    'on-accent': readableOn(own),
    deep,
    'deep-lit': lit,
    'on-deep': adjusted(colourOf({ ...partsOf(deep), l: 0.96, c: 0.01 }), [deep, lit], textContrast),
    'on-deep-soft': adjusted(colourOf({ ...partsOf(deep), l: 0.84, c: 0.03 }), [deep, lit], textContrast),
  }
}

/** The band stays dark by day and by night, so that what is light stands on it. */
function bandOf({ l, c, h }: Parts, scheme: 'light' | 'dark'): Colour {
  const most = scheme === 'light' ? 0.4 : 0.3
  return adjusted(colourOf({ l: Math.min(l, most), c: Math.min(c, mostOfBand), h }), ['#ffffff'], 8)
}

const readableOn = (ground: Colour): Colour =>
  contrast('#ffffff', ground) >= textContrast
    ? '#ffffff'
    : adjusted(colourOf({ ...partsOf(ground), l: 0.2 }), [ground], textContrast)

/** Custom properties of a palette by day and by night, as a style sheet for a root element. */
export function paletteStyle(seeds: Seeds, selector = ':root'): string {
  const [light, dark] = [paletteOf(seeds, 'light'), paletteOf(seeds, 'dark')]
  const lines = (Object.keys(light) as (keyof Palette)[]).map(
    name => `--${name}:light-dark(${light[name]},${dark[name]})`,
  )
  return `${selector}{${lines.join(';')}}`
}
