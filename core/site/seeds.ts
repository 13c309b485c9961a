import { colourOf, partsOf } from './contrast'
import { houseSeeds, type Seeds } from './palette'

/** So large a picture is looked at. */
export const seedsSidePx = 48

/** Colours of a hue that lie this near to each other count as one. */
const hues = 24
/** Less colour than this is grey to the eye. */
const leastChroma = 0.04
/** A colour stands out where it takes so much of the picture. */
const leastShare = 0.01
/** What is darker than this can be the ground of a band. */
const darkest = 0.5

interface Heap {
  pixels: number
  l: number
  c: number
  x: number
  y: number
}

/**
 * The colours to build a page on: the most colourful one of a picture, and the one that takes most of its dark parts. `pixels` are
 * red, green and blue in turn, 0 to 255. Where nothing has a colour, those of the house.
 */
export function seedsOf(pixels: Uint8Array): Seeds {
  const heaps = Array.from({ length: hues }, (): Heap => ({ pixels: 0, l: 0, c: 0, x: 0, y: 0 }))
  const dark = heaps.map(heap => ({ ...heap }))
  const count = Math.floor(pixels.length / 3)
  for (let at = 0; at < count * 3; at += 3) {
    const parts = partsOf(hexOf(pixels[at]!, pixels[at + 1]!, pixels[at + 2]!))
    if (parts.c < leastChroma) continue
    const place = Math.floor(parts.h / (360 / hues)) % hues
    for (const heap of parts.l < darkest ? [heaps[place]!, dark[place]!] : [heaps[place]!]) {
      const angle = (parts.h * Math.PI) / 180
      heap.pixels++
      heap.l += parts.l
      heap.c += parts.c
      heap.x += Math.cos(angle)
      heap.y += Math.sin(angle)
    }
  }
  const outstanding = best(heaps, count, ({ c }) => c)
  if (!outstanding) return houseSeeds
  return { accent: outstanding, band: best(dark, count, heap => heap.pixels) ?? outstanding }
}

function best(heaps: readonly Heap[], count: number, weight: (heap: Heap) => number): string | null {
  const large = heaps.filter(heap => heap.pixels >= count * leastShare)
  const heap = large.toSorted((a, b) => weight(b) - weight(a))[0]
  if (!heap) return null
  const { pixels, l, c, x, y } = heap
  return colourOf({ l: l / pixels, c: c / pixels, h: ((Math.atan2(y, x) * 180) / Math.PI + 360) % 360 })
}

const hexOf = (...parts: number[]): string => `#${parts.map(part => part.toString(16).padStart(2, '0')).join('')}`
