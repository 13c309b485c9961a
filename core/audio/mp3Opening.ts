import { headerAt, mp3Header } from './mp3Frame'
import { findMp3Frames } from './sniff'

/** What the opening of an MP3 tells without the rest of it. */
export interface Mp3Opening {
  /** Where the first frame begins. */
  fromBytes: number
  /** As a Xing, Info or VBRI header announces it, exact if it is true; null where there is none. */
  durationMs: number | null
  /** From the first frame to the end of the last, as the same header announces it; null where it does not. */
  soundBytes: number | null
  sampleRateHz: number
  channels: 1 | 2
  /** Of the first frame. */
  bitRateBps: number
}

/** Reads the first bytes of an MP3, behind its ID3v2 tag; null where no frames are found in them. */
export function mp3Opening(bytes: Uint8Array): Mp3Opening | null {
  const at = findMp3Frames(bytes)
  const frame = at === null ? null : headerAt(bytes, at)
  if (at === null || !frame) return null
  const header = mp3Header(bytes, at, frame)
  return {
    fromBytes: at,
    durationMs: header?.frames
      ? ((header.frames * frame.samples - header.delaySamples - header.paddingSamples) * 1000) / frame.sampleRateHz
      : null,
    soundBytes: header?.bytes || null,
    sampleRateHz: frame.sampleRateHz,
    channels: frame.channels,
    bitRateBps: frame.bitRateBps,
  }
}

/** Whether all frames in a piece from somewhere within an MP3 have one bit rate; false where there are none. */
export function hasBitRate(piece: Uint8Array, bitRateBps: number): boolean {
  const first = findMp3Frames(piece)
  if (first === null) return false
  for (let at = first; ;) {
    const frame = headerAt(piece, at)
    if (!frame) return at + 4 > piece.length
    if (frame.bitRateBps !== bitRateBps) return false
    at += frame.lengthBytes
  }
}
