/** Kinds of pictures that are taken in. */
export type PictureFormat = 'jpeg' | 'png' | 'webp'

/** Tells a picture's format from its first bytes and never from its name; null for everything else, SVG too. */
export function pictureFormat(bytes: Uint8Array): PictureFormat | null {
  const starts = (mark: readonly number[], at = 0): boolean => mark.every((byte, index) => bytes[at + index] === byte)
  // JPEG: ITU-T T.81 annex B, the SOI marker and the next one. PNG: W3C PNG section 5.2. WebP: RFC 9649 section 2.4.
  if (starts([0xff, 0xd8, 0xff])) return 'jpeg'
  if (starts([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])) return 'png'
  return starts([0x52, 0x49, 0x46, 0x46]) && starts([0x57, 0x45, 0x42, 0x50], 8) ? 'webp' : null
}
