/** Names that lead to nowhere, or to the asker's own machine (RFC 6761, RFC 6762, RFC 8375). */
const special = /(^|\.)(localhost|local|internal|invalid|onion|home\.arpa)$/

/** A host name as browsers spell it: small letters, other writings in their ASCII form; empty where it is none. */
export function hostNameFrom(words: string): string {
  const bare = words
    .trim()
    .replace(/^https?:\/\//i, '')
    .replace(/\/$/, '')
  if (bare === '' || /[\s/?#@:[\]\\]/.test(bare) || !URL.canParse(`http://${bare}`)) return ''
  return new URL(`http://${bare}`).hostname.replace(/\.$/, '')
}

/** What is wrong with a host name for a show; null where nothing is. `ours` is the house's own. */
export function hostNameFault(host: string, ours: string): string | null {
  if (host === '') return 'A host name, such as reeds.example.org, without a port or a path.'
  if (/^[\d.]+$/.test(host)) return 'A name, not an address of digits.'
  if (host.length > 253 || !/^([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z0-9][a-z0-9-]{0,61}[a-z0-9]$/.test(host))
    return 'A whole host name, such as reeds.example.org.'
  if (special.test(host)) return 'A name that leads here from everywhere.'
  return host === ours || host.endsWith(`.${ours}`) ? 'The house lives there itself.' : null
}

/** Where the word that proves a host name stands: as a DNS text record, or in a file. */
export const proofRecord = (host: string): string => `_lake-letter.${host}`
export const proofFile = (host: string): string => `http://${host}/.well-known/lake-letter.txt`
