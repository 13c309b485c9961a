import { parseHtml } from '../xml/html'

/** The longest code that is looked through for an address. */
export const mostFilmCharacters = 20_000

/**
 * The address of a film out of what a person pasted: the address itself, or code for a page, of which nothing is kept but where its
 * first frame leads. Empty where code has none.
 */
export function filmAddress(pasted: string): string {
  const words = pasted.trim()
  if (!words.startsWith('<')) return words
  let found: string | undefined
  parseHtml(words, {
    onopentag(name, { src }) {
      if (name === 'iframe') found ??= (src ?? '').trim()
    },
  })
  return (found ?? '').replace(/^\/\//, 'https://')
}

/** What a host name has (RFC 1123 section 2.1): a policy that names it ends at a semicolon or a comma (CSP 3 section 2.2). */
const plainHost = /^[a-z0-9-]+(\.[a-z0-9-]+)+$/i

/** Whether a frame may lead there: another site, by HTTPS, without a name and a password in its address. */
export function isFilmAddress(words: string): boolean {
  if (!/^https:\/\/[^\s/?#@]+([/?#]|$)/i.test(words) || /\s/.test(words) || !URL.canParse(words)) return false
  const { username, hostname } = new URL(words)
  return username === '' && plainHost.test(hostname)
}
export const filmRule = 'The https address of a film, or the code for a page that has a frame with one.'
