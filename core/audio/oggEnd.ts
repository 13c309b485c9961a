/**
 * Whether an Ogg stream breaks off, told from the file's last 66,000 bytes: its last page is not whole, or is not marked as
 * the end of its stream (RFC 3533 section 6: header_type flag 0x04).
 */
export function isOggCutShort(tail: Uint8Array): boolean {
  for (let at = tail.length - 27; at >= 0; at--) {
    if (
      tail[at] !== 0x4f ||
      tail[at + 1] !== 0x67 ||
      tail[at + 2] !== 0x67 ||
      tail[at + 3] !== 0x53 ||
      tail[at + 4] !== 0
    )
      continue
    const segments = tail[at + 26]!
    const bodyBytes = tail.subarray(at + 27, at + 27 + segments).reduce((sum, length) => sum + length, 0)
    return at + 27 + segments + bodyBytes > tail.length || (tail[at + 5]! & 0x04) === 0
  }
  return true
}
