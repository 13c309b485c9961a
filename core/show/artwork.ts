/** Artwork as directories take it: square, 1400 to 3000 px (itunes namespace, from memory). */
export const artworkRule = { minPx: 1400, maxPx: 3000 } as const

/** Smaller sizes that are kept beside the whole, for places that show it small. */
export const artworkSidesPx = [480, 160] as const

/** The address of a smaller size of a picture, by the address of the whole. */
export const artworkAt = (address: string, sidePx: (typeof artworkSidesPx)[number]): string =>
  address.replace(/(?=\.[a-z]+$)/, `-${sidePx}`)

export interface Crop {
  left: number
  top: number
  sidePx: number
}

export type ArtworkVerdict =
  | { kind: 'fits' }
  /** Fits once this square is cut from it, and scaled down where it is over the largest size. */
  | { kind: 'crop'; crop: Crop; why: string }
  | { kind: 'refused'; why: string }

/** Judges a picture by its size in pixels, and offers the middle square where a cut would mend it. */
export function judgeArtwork({ widthPx, heightPx }: { widthPx: number; heightPx: number }): ArtworkVerdict {
  const { minPx, maxPx } = artworkRule
  const size = `${widthPx} × ${heightPx} px`
  const sidePx = Math.min(widthPx, heightPx)
  if (sidePx < minPx)
    return { kind: 'refused', why: `The picture is ${size}. Artwork is square, at least ${minPx} × ${minPx} px.` }
  const crop = { left: Math.floor((widthPx - sidePx) / 2), top: Math.floor((heightPx - sidePx) / 2), sidePx }
  if (widthPx !== heightPx) return { kind: 'crop', crop, why: `The picture is ${size}. Artwork is square.` }
  if (sidePx > maxPx)
    return { kind: 'crop', crop, why: `The picture is ${size}. Artwork is at most ${maxPx} × ${maxPx} px.` }
  return { kind: 'fits' }
}
