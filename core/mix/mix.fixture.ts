import type { Bed, MixDocument, Piece } from './document'
import { mixVersion } from './document'

const idOf = (kind: number, n: number): string => `00000000-0000-4000-8${kind}00-${String(n).padStart(12, '0')}`
/** The file of the nth sound. */
export const fileOf = (n: number): string => idOf(1, n)
export const pieceId = (n: number): string => idOf(2, n)

/** A piece of the file with the same number, of which so much is kept. */
export const pieceOf = (
  n: number,
  kept: readonly [fromMs: number, toMs: number][],
  more: Partial<Piece> = {},
): Piece => ({
  id: pieceId(n),
  fileId: fileOf(n),
  kept: kept.map(([fromMs, toMs]) => ({ fromMs, toMs })),
  gainDb: 0,
  overlapMs: 0,
  fadeInMs: 0,
  fadeOutMs: 0,
  shape: 'linear',
  ...more,
})
export const bedOf = (n: number, under: number, durationMs: number, more: Partial<Bed> = {}): Bed => ({
  id: idOf(3, n),
  fileId: fileOf(n),
  under: pieceId(under),
  offsetFrom: 'beginning',
  offsetMs: 0,
  durationMs,
  startMs: 0,
  gainDb: 0,
  ducking: null,
  points: [],
  fadeInMs: 0,
  fadeOutMs: 0,
  shape: 'linear',
  ...more,
})
export const mixOf = (pieces: Piece[], beds: Bed[] = []): MixDocument => ({ version: mixVersion, pieces, beds })
