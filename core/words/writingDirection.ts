/** Scripts that are written right to left (Unicode Character Database, ScriptMetadata; those in use today). */
const rightToLeft: readonly string[] = ['Adlm', 'Arab', 'Aran', 'Hebr', 'Mand', 'Nkoo', 'Rohg', 'Samr', 'Syrc', 'Thaa']

/** Which way a language is written, by the script that it has or is usually written in (UTS 35, likely subtags). */
export function writingDirection(language: string): 'ltr' | 'rtl' {
  try {
    return rightToLeft.includes(new Intl.Locale(language).maximize().script ?? '') ? 'rtl' : 'ltr'
  } catch {
    return 'ltr'
  }
}
