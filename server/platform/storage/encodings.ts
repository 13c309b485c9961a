import { LRUCache } from 'lru-cache'
import Negotiator from 'negotiator'

export type Encoding = 'identity' | 'gzip' | 'br'

const offered: readonly Encoding[] = ['br', 'gzip', 'identity']

/** The library's own types are of an earlier version. */
const negotiator = (headers: Record<string, string>) =>
  new Negotiator({ headers }) as unknown as {
    encodings(available: readonly Encoding[], options: { preferred: readonly Encoding[] }): Encoding[]
  }

/** What headers of before came to; there are few different ones. */
const known = new LRUCache<string, Encoding | 'none'>({ max: 200 })

/** The best encoding that a request takes, by its weights (RFC 9110 section 12.5.3); null where it takes none of ours. */
export function acceptedEncoding(header: string | undefined): Encoding | null {
  if (header === undefined) return 'identity'
  let found = known.get(header)
  if (!found) {
    found = negotiator({ 'accept-encoding': header }).encodings(offered, { preferred: offered })[0] ?? 'none'
    known.set(header, found)
  }
  return found === 'none' ? null : found
}
