import { headerAt, id3v2Length } from './mp3Frame'

/** What a file is, told from its first bytes and never from its name; `m4a` is any MP4, `unknown` may be sound all the same. */
export type SoundFormat = 'mp3' | 'm4a' | 'wav' | 'flac' | 'ogg' | 'text' | 'empty' | 'unknown'

/** How many bytes from a file's start `sniff` wants to see. */
export const sniffBytes = 4 * 1024 * 1024

const ascii = (bytes: Uint8Array, from: number, to: number): string => String.fromCharCode(...bytes.subarray(from, to))

/** Tells the format of a file from its first `sniffBytes` bytes (or all of it, where it is shorter). */
export function sniff(bytes: Uint8Array): SoundFormat {
  if (bytes.length === 0) return 'empty'
  if (ascii(bytes, 4, 8) === 'ftyp') return 'm4a'
  if (/^(RIFF|RF64|BW64)$/.test(ascii(bytes, 0, 4)) && ascii(bytes, 8, 12) === 'WAVE') return 'wav'
  if (ascii(bytes, 0, 4) === 'fLaC') return 'flac'
  if (ascii(bytes, 0, 4) === 'OggS') return 'ogg'
  if (findMp3Frames(bytes) !== null) return 'mp3'
  return looksLikeText(bytes.subarray(0, 4096)) ? 'text' : 'unknown'
}

/**
 * Offset of the first of at least three MPEG layer III frames that follow one another, behind ID3v2 tags
 * and whatever else stands before them; null where there are none.
 */
export function findMp3Frames(bytes: Uint8Array): number | null {
  let start = 0
  for (let tag = id3v2Length(bytes, 0); tag > 0; tag = id3v2Length(bytes, start)) start += tag
  for (let at = start; at + 4 <= bytes.length; at++) {
    if (bytes[at] === 0xff && chainLength(bytes, at) >= 3) return at
  }
  return null
}

/** How many frames, at most three, follow one another from an offset; a run that the bytes' end cuts counts if it has one. */
function chainLength(bytes: Uint8Array, from: number): number {
  let at = from
  for (let frames = 0; frames < 3; frames++) {
    const header = headerAt(bytes, at)
    if (!header) return frames > 0 && at >= bytes.length ? 3 : frames
    at += header.lengthBytes
  }
  return 3
}

function looksLikeText(bytes: Uint8Array): boolean {
  return bytes.every(byte => byte >= 0x20 || byte === 9 || byte === 10 || byte === 13)
}
