import { siteLanguageOf } from '@core/site/languages'
import { t } from './messages'

const codes = [
  'ar',
  'bg',
  'bn',
  'ca',
  'cs',
  'cy',
  'da',
  'de',
  'de-at',
  'de-ch',
  'el',
  'en',
  'en-au',
  'en-gb',
  'en-us',
  'es',
  'es-mx',
  'et',
  'eu',
  'fa',
  'fi',
  'fr',
  'fr-ca',
  'ga',
  'gl',
  'he',
  'hi',
  'hr',
  'hu',
  'id',
  'is',
  'it',
  'ja',
  'ko',
  'lt',
  'lv',
  'mk',
  'ms',
  'nl',
  'nb',
  'nn',
  'pl',
  'pt',
  'pt-br',
  'ro',
  'ru',
  'sk',
  'sl',
  'sq',
  'sr',
  'sv',
  'sw',
  'ta',
  'th',
  'tl',
  'tr',
  'uk',
  'ur',
  'vi',
  'zh',
  'zh-tw',
]
const names = new Intl.DisplayNames('en', { type: 'language' })

/** Languages to choose from, each with the name a person reads, in the order of the names. */
export const languages = codes
  .map(code => ({ code, name: names.of(code) ?? code }))
  .sort((a, b) => a.name.localeCompare(b.name))

/** In which language the public pages of a show in a language say what is on their buttons and labels. */
export function siteLanguageHint(language: string): string {
  const own = siteLanguageOf(language)
  if (own) return t('siteLanguageKnown', { language: names.of(own) ?? own })
  return t('siteLanguageUnknown', { language: names.of(language) ?? language })
}
