import { decoderOf } from '../words/encodings'

/** The words of a text file, whichever of the usual encodings it is in; a mark of byte order goes, line ends become one sign. */
export function wordsOf(bytes: Uint8Array): string {
  return decoded(bytes).replace(/\r\n?/g, '\n')
}

function decoded(bytes: Uint8Array): string {
  const [first, second] = bytes
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes)
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes)
  const wide = wideOrder(bytes)
  if (wide) return new TextDecoder(wide).decode(bytes)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    // What is no UTF-8 is what older programs write (WHATWG Encoding, windows-1252 for Latin-1).
    return decoderOf('windows-1252')!.decode(bytes)
  }
}

/** Half of the bytes of Latin text in UTF-16 are zero, and no other text has any. */
function wideOrder(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  const looked = Math.min(bytes.length & ~1, 4096)
  const zeros = [0, 0]
  for (let at = 0; at < looked; at++) if (bytes[at] === 0) zeros[at & 1]!++
  if (looked === 0 || zeros[0]! + zeros[1]! < looked / 8) return null
  return zeros[1]! > zeros[0]! ? 'utf-16le' : 'utf-16be'
}
