/**
 * How long a WAV says that it is, in ms, told from its first bytes: the size of its `data` chunk by how large its samples are
 * and how many a second has (Multimedia Programming Interface and Data Specifications 1.0, "WAVE", from memory). Null where
 * it does not say, as writers do that do not know the end when they begin, where its samples have no size of their own, and
 * for RF64, whose sizes stand elsewhere.
 */
export function announcedWavMs(head: Uint8Array): number | null {
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength)
  const letters = (at: number): string => String.fromCharCode(...head.subarray(at, at + 4))
  if (letters(0) !== 'RIFF') return null
  let bytesPerSecond = 0
  for (let at = 12; at + 8 <= head.length;) {
    const length = view.getUint32(at + 4, true)
    if (letters(at) === 'fmt ' && at + 24 <= head.length && plainForms.has(view.getUint16(at + 8, true)))
      // The byte rate that stands beside them is wrong in many files.
      bytesPerSecond = view.getUint32(at + 12, true) * view.getUint16(at + 20, true)
    if (letters(at) === 'data')
      return bytesPerSecond > 0 && length > 0 && length < unknownBytes ? (length / bytesPerSecond) * 1000 : null
    // Chunks begin at even bytes.
    at += 8 + length + (length & 1)
  }
  return null
}

/** PCM, floating point, and what tells its form further on, which is one of the two. */
const plainForms = new Set([1, 3, 0xfffe])

/** Sizes of a stream that has not ended; ffmpeg and others leave one of them where they cannot go back. */
const unknownBytes = 0x7ffff000
