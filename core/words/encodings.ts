/** Reads bytes as text; throws a TypeError where they are none and it is not lenient. */
export interface Decoder {
  /** Its name in the same standard. */
  encoding: string
  decode(bytes: Uint8Array): string
}

/** 0x80 to 0x9f in windows-1252 (WHATWG Encoding, index windows-1252); Node.js 20 reads them as ISO 8859-1 has them, as signs that nobody sees. */
const windows1252 =
  '\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178'
/** 0xa0 to 0xff in ISO 8859-16 (the same standard), which Node.js does not have. */
const iso885916 =
  '\u00a0\u0104\u0105\u0141\u20ac\u201e\u0160\u00a7\u0161\u00a9\u0218\u00ab\u0179\u00ad\u017a\u017b\u00b0\u00b1\u010c\u0142\u017d\u201d\u00b6\u00b7\u017e\u010d\u0219\u00bb\u0152\u0153\u0178\u017c\u00c0\u00c1\u00c2\u0102\u00c4\u0106\u00c6\u00c7\u00c8\u00c9\u00ca\u00cb\u00cc\u00cd\u00ce\u00cf\u0110\u0143\u00d2\u00d3\u00d4\u0150\u00d6\u015a\u0170\u00d9\u00da\u00db\u00dc\u0118\u021a\u00df\u00e0\u00e1\u00e2\u0103\u00e4\u0107\u00e6\u00e7\u00e8\u00e9\u00ea\u00eb\u00ec\u00ed\u00ee\u00ef\u0111\u0144\u00f2\u00f3\u00f4\u0151\u00f6\u015b\u0171\u00f9\u00fa\u00fb\u00fc\u0119\u021b\u00ff'

const asLatin1 = (bytes: Uint8Array): string => new TextDecoder('latin1').decode(bytes)

/** A decoder for a label of the WHATWG Encoding standard, its tables and not those of the program that runs us; null for one that nobody knows. */
export function decoderOf(label: string, { fatal = false } = {}): Decoder | null {
  if (/^\s*(iso-8859-16)\s*$/i.test(label))
    return {
      encoding: 'iso-8859-16',
      decode: bytes => asLatin1(bytes).replace(/[\xa0-\xff]/g, sign => iso885916[sign.charCodeAt(0) - 0xa0]!),
    }
  let decoder: TextDecoder
  try {
    decoder = new TextDecoder(label, { fatal })
  } catch {
    return null
  }
  if (decoder.encoding !== 'windows-1252') return decoder
  return {
    encoding: decoder.encoding,
    decode: bytes => decoder.decode(bytes).replace(/[\x80-\x9f]/g, sign => windows1252[sign.charCodeAt(0) - 0x80]!),
  }
}
