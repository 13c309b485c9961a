import slugify, { type Options as SlugifyOptions } from '@sindresorhus/slugify'

/** First parts of addresses that Lake Letter keeps for itself; a show cannot live there. */
export const reservedAddressParts: readonly string[] = [
  'studio',
  'api',
  'media',
  'assets',
  'healthz',
  'readyz',
  'robots.txt',
  'favicon.ico',
  'favicon.svg',
  'site',
  'static',
  'embed',
  'well-known',
  'admin',
  'sign-in',
  'sign-out',
  'feed',
  'feeds',
  'show',
  'shows',
]

const spelling: SlugifyOptions = {
  decamelize: false,
  customReplacements: [
    ['’', ''],
    ["'", ''],
  ],
}

/**
 * A part of a web address made from words: lower-case a to z, digits and single hyphens, at most `maxLength` characters, cut between
 * words. Words of other alphabets are spelled in Latin letters as `language` (BCP 47) has it, as far as there is a usual way to; empty
 * where there is none.
 */
export function slugFrom(
  words: string,
  { language, maxLength = 60 }: { language?: string; maxLength?: number } = {},
): string {
  const plain = slugify(words, { ...spelling, locale: language })
  if (plain.length <= maxLength) return plain
  const cut = plain.slice(0, maxLength + 1)
  const lastHyphen = cut.lastIndexOf('-')
  return lastHyphen > 0 ? cut.slice(0, lastHyphen) : plain.slice(0, maxLength)
}

/** The address part that an episode goes out under where no other one has it. */
export const wishedSlug = ({ title, number }: { title: string; number: number | null }, language: string): string =>
  slugFrom(title, { language }) || (number ? `episode-${number}` : 'episode')
