/** The languages that the public pages’ own words are written in, as ISO 639-1 codes. */
export const siteLanguages = ['ar', 'de', 'en', 'es', 'fr', 'he', 'it', 'ja', 'nl', 'pl', 'pt', 'sv'] as const
export type SiteLanguage = (typeof siteLanguages)[number]

const isSiteLanguage = (code: string): code is SiteLanguage => (siteLanguages as readonly string[]).includes(code)

/**
 * In which of them a show’s pages speak, by the primary subtag of its language tag (BCP 47); null where they have none for it, and
 * speak English.
 */
export function siteLanguageOf(language: string): SiteLanguage | null {
  try {
    // Older codes are put right: `iw` is `he` (UTS 35, canonicalization).
    const { language: code } = new Intl.Locale(language)
    return isSiteLanguage(code) ? code : null
  } catch {
    return null
  }
}
