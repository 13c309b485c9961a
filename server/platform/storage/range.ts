/**
 * Reads a Range header with one byte range against a length in bytes, both ends included (RFC 9110 section 14.1.2).
 * Null where it is to be ignored: another unit, several ranges, or one that is not valid.
 */
export function readRange(
  header: string,
  lengthBytes: number,
): { start: number; end: number } | 'unsatisfiable' | null {
  const found = /^bytes=\s*(\d*)-(\d*)\s*$/i.exec(header)
  if (!found || (found[1] === '' && found[2] === '')) return null
  const [first, last] = [found[1], found[2]].map(digits => (digits === '' ? null : Number(digits)))
  if (first === null) {
    // "If the selected representation is shorter than the specified suffix-length, the entire representation is used."
    return last === 0 ? 'unsatisfiable' : { start: Math.max(0, lengthBytes - last!), end: lengthBytes - 1 }
  }
  // "An int-range is invalid if the last-pos value is present and less than first-pos."
  if (last !== null && last! < first!) return null
  return first! >= lengthBytes ? 'unsatisfiable' : { start: first!, end: Math.min(last ?? Infinity, lengthBytes - 1) }
}
