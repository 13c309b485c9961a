import type { Seeds } from '@core/site/palette'
import type { ShareFacts } from '@core/site/sharePicture'
import type { Crop } from '@core/show/artwork'

/** What the picture program can be asked to do; it decodes JPEG, PNG and WebP only. */
export type PictureTask =
  /** Looks at the head alone: how large it is, upright; and how it is written. */
  | { kind: 'size'; bytes: Uint8Array }
  /** Decodes all of it, upright, in sRGB, without anything transparent, and draws the square in each of the sizes, as JPEG. */
  | { kind: 'squares'; bytes: Uint8Array; crop: Crop; sidesPx: readonly number[] }
  /** The same for all of it, at most so large. */
  | { kind: 'inside'; bytes: Uint8Array; mostPx: number }
  /** Finds the colours to build a page on. */
  | { kind: 'seeds'; bytes: Uint8Array }
  /** Draws a picture for whoever is sent a link: artwork, title, waveform. */
  | { kind: 'share'; artwork: Uint8Array; facts: ShareFacts }
  /** The same picture, inside a square of so many px, as WebP. */
  | { kind: 'webp'; bytes: Uint8Array; mostPx: number }
  /** Draws a provisional artwork, each seed another. */
  | { kind: 'provisional'; seed: number; sidesPx: readonly number[] }

export interface Size {
  widthPx: number
  heightPx: number
}
/** How large a picture is, and as what it is written. */
export interface PictureFacts extends Size {
  format: string
  /** Of its colours: `srgb`, `cmyk` … */
  space: string
  isTransparent: boolean
}
export interface Drawn extends Size {
  bytes: Uint8Array
}

export type PictureAnswer = { size: PictureFacts } | { drawn: Drawn[] } | { seeds: Seeds } | { failure: string }
