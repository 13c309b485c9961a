import ipaddr from 'ipaddr.js'
import { LRUCache } from 'lru-cache'

const known = new LRUCache<string, string>({ max: 5_000 })

/** An address without what tells one household from another: the first 24 bits of IPv4, the first 48 of IPv6. */
export function shortenedAddress(address: string): string {
  const before = known.get(address)
  if (before !== undefined) return before
  const short = shorten(address)
  known.set(address, short)
  return short
}

function shorten(address: string): string {
  if (!ipaddr.isValid(address)) return ''
  const read = ipaddr.process(address)
  const [bytes, kept] = [read.toByteArray(), read.kind() === 'ipv4' ? 3 : 6]
  return ipaddr.fromByteArray(bytes.map((byte, n) => (n < kept ? byte : 0))).toString()
}
