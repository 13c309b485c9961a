// XML 1.0 section 2.2: Char ::= #x9 | #xA | #xD | [#x20-#xD7FF] | [#xE000-#xFFFD] | [#x10000-#x10FFFF].
// With the u flag a paired surrogate is one character, so \p{Cs} finds lone ones only.
const notAllowed = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\p{Cs}/gu

/** The text without the characters that an XML 1.0 document cannot hold. */
export function xmlSafe(text: string): string {
  return text.replace(notAllowed, '')
}
