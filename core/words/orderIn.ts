/** How words are sorted in a language (BCP 47), by the Unicode Collation Algorithm with what CLDR has for it. */
export function orderIn(language: string): Intl.Collator['compare'] {
  try {
    return new Intl.Collator(language).compare
  } catch {
    return new Intl.Collator('en').compare
  }
}
