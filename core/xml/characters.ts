// XML 1.0 section 2.2: Char ::= #x9 | #xA | #xD | [#x20-#xD7FF] | [#xE000-#xFFFD] | [#x10000-#x10FFFF].
// With the u flag a paired surrogate is one character, so \p{Cs} finds lone ones only.
const notAllowed = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\p{Cs}/gu

const notHeld = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/

/** The text without the characters that an XML 1.0 document cannot hold. */
export function xmlSafe(text: string): string {
  // Nearly every text is whole, which is told far faster than it is made so.
  return text.isWellFormed() && !notHeld.test(text) ? text : text.replace(notAllowed, '')
}
