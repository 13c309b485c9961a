import { LRUCache } from 'lru-cache'
import { type SiteLanguage, siteLanguageOf } from '@core/site/languages'
import { createMessages } from '@core/words/messages'
import ar from './messages/ar.json'
import de from './messages/de.json'
import en from './messages/en.json'
import es from './messages/es.json'
import fr from './messages/fr.json'
import he from './messages/he.json'
import it from './messages/it.json'
import ja from './messages/ja.json'
import nl from './messages/nl.json'
import pl from './messages/pl.json'
import pt from './messages/pt.json'
import sv from './messages/sv.json'

export type MessageKey = keyof typeof en

/** What the pages say, in every language: ICU MessageFormat, with tags around words that are links or stressed. */
export const messages: Readonly<Record<SiteLanguage, Readonly<Record<MessageKey, string>>>> = {
  ar,
  de,
  en,
  es,
  fr,
  he,
  it,
  ja,
  nl,
  pl,
  pt,
  sv,
}

/** The words of pages in a language, and how it writes numbers and lists. */
export type SiteMessages = ReturnType<typeof siteMessages>

/** Digits are those that times in a sound and the feed have, so that one page has one kind. */
const withLatinDigits = (language: string): string => new Intl.Locale(language, { numberingSystem: 'latn' }).toString()

function siteMessages(language: string) {
  const known = siteLanguageOf(language)
  const locale = known ? withLatinDigits(language) : 'en'
  const names = new Intl.DisplayNames(locale, { type: 'language' })
  const lists = new Intl.ListFormat(locale)
  const units = new Intl.ListFormat(locale, { type: 'unit', style: 'short' })
  const [kilobytes, megabytes, gigabytes] = (['kilobyte', 'megabyte', 'gigabyte'] as const).map(
    unit => new Intl.NumberFormat(locale, { style: 'unit', unit, maximumFractionDigits: unit === 'kilobyte' ? 0 : 1 }),
  )

  return {
    ...createMessages<MessageKey>(messages[known ?? 'en'], locale),
    /** Whether it has no words in the language, and says them in English. */
    isFallback: known === null,
    /** Several side by side as the language has it: `A, B, C`. */
    list: (items: readonly string[]): string => units.format(items),
    /** Several as a sentence names them, `A, B and C`: each as it is, with what stands between. */
    listParts<Item extends { name: string }>(items: readonly Item[]): (string | Item)[] {
      const rest = [...items]
      return lists
        .formatToParts(items.map(({ name }) => name))
        .map(({ type, value }) => (type === 'element' ? rest.shift()! : value))
    },
    /** An amount of data, in decimal units. */
    size: (bytes: number): string =>
      bytes < 999_500
        ? kilobytes!.format(bytes / 1e3)
        : bytes < 999_950_000
          ? megabytes!.format(bytes / 1e6)
          : gigabytes!.format(bytes / 1e9),
    /** The name of a language, or its tag where it has none. */
    languageName: (tag: string): string => {
      try {
        return names.of(tag) ?? tag
      } catch {
        return tag
      }
    },
  }
}

/** Languages are written by people: there may be many, and few are in use. */
const kept = new LRUCache<string, SiteMessages>({ max: 50 })

/** The words for a show’s pages, by its language tag (BCP 47); in English where there are none. */
export function messagesIn(language: string): SiteMessages {
  const found = kept.get(language) ?? siteMessages(language)
  kept.set(language, found)
  return found
}
