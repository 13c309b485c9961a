import { type Seeds, paletteOf } from './palette'

/** A picture for whoever is sent a link, as large as places that show one want it (Open Graph pictures are 1.91 to 1; common practice, no source). */
export const shareWidthPx = 1200
export const shareHeightPx = 630

const edge = 70
const artworkPx = 360
const textLeft = edge + artworkPx + 60
const textWidth = shareWidthPx - textLeft - edge
const waveTop = 480
const wavePx = 110
export const shareBars = 120

/** Draws words: their outlines at a place, and how wide they are. */
export interface Lettering {
  widthOf(words: string, sizePx: number): number
  outline(words: string, x: number, y: number, sizePx: number): string
  /** Whether it has every letter of them. */
  has(words: string): boolean
}

export interface ShareFacts {
  title: string
  show: string
  seeds: Seeds
  /** How loud each of `shareBars` stretches is, 0 to 1; empty where nobody has measured it. */
  loudness: readonly number[]
}

/** The picture as SVG, without the artwork, which stands at `artworkPlace`. Words that the letters do not have are left out. */
export function sharePicture({ title, show, seeds, loudness }: ShareFacts, letters: Lettering): string {
  const { deep, 'deep-lit': lit, 'on-deep': light, 'on-deep-soft': soft } = paletteOf(seeds, 'light')
  const paths: string[] = []
  const say = (words: string, y: number, sizePx: number, colour: string): void => {
    paths.push(`<path fill="${colour}" d="${letters.outline(words, textLeft, y, sizePx)}"/>`)
  }
  if (letters.has(show)) say(fitted(show, 30, letters), edge + 30, 30, soft)
  if (letters.has(title)) {
    const { lines, sizePx } = wrapped(title, letters)
    for (const [at, line] of lines.entries()) say(line, edge + 50 + sizePx * (1 + at * 1.2), sizePx, light)
  }
  const step = (shareWidthPx - 2 * edge) / shareBars
  for (const [at, value] of levelled(loudness).entries()) {
    const height = Math.max(4, value * wavePx)
    paths.push(
      `<rect x="${round(edge + at * step)}" y="${round(waveTop + (wavePx - height) / 2)}" width="${round(step * 0.6)}" height="${round(height)}" rx="2" fill="${soft}"/>`,
    )
  }
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${shareWidthPx}" height="${shareHeightPx}"><rect width="100%" height="100%" fill="${deep}"/><path fill="${lit}" d="M0 ${waveTop - 20}q150 -24 300 0t300 0 300 0 300 0V${shareHeightPx}H0z"/>${paths.join('')}</svg>`
}
export const artworkPlace = { left: edge, top: edge, sidePx: artworkPx } as const

const round = (px: number): number => Math.round(px * 10) / 10

/** The loudest reaches to the top. */
function levelled(loudness: readonly number[]): number[] {
  const most = Math.max(...loudness, 0.05)
  return loudness.map(value => value / most)
}

const sizesPx = [76, 64, 54, 46, 38]
const roomForTitle = waveTop - 40 - (edge + 50)

/** The largest letters in which a title fits in its place; one that fits in none is cut. */
function wrapped(title: string, letters: Lettering): { lines: string[]; sizePx: number } {
  for (const sizePx of sizesPx) {
    const lines = linesOf(title, sizePx, letters)
    const isFit = lines.every(line => letters.widthOf(line, sizePx) <= textWidth)
    if (isFit && lines.length * sizePx * 1.2 <= roomForTitle) return { lines, sizePx }
  }
  const sizePx = sizesPx.at(-1)!
  const most = Math.floor(roomForTitle / (sizePx * 1.2))
  const lines = linesOf(title, sizePx, letters).map(line => fitted(line, sizePx, letters))
  return {
    lines: lines.length > most ? [...lines.slice(0, most - 1), fitted(`${lines[most - 1]} …`, sizePx, letters)] : lines,
    sizePx,
  }
}

function linesOf(words: string, sizePx: number, letters: Lettering): string[] {
  const lines: string[] = []
  for (const word of words.split(/\s+/)) {
    const open = lines.at(-1)
    const longer = open === undefined ? word : `${open} ${word}`
    if (open !== undefined && letters.widthOf(longer, sizePx) <= textWidth) lines[lines.length - 1] = longer
    else lines.push(word)
  }
  return lines
}

/** Words that are cut where they are too wide. */
function fitted(words: string, sizePx: number, letters: Lettering): string {
  if (letters.widthOf(words, sizePx) <= textWidth) return words
  let kept = [...words]
  while (kept.length > 1 && letters.widthOf(`${kept.join('')}…`, sizePx) > textWidth) kept = kept.slice(0, -1)
  return `${kept.join('')}…`
}
