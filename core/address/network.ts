import ipaddr from 'ipaddr.js'

/** The networks that count as one asker: those of a household or a machine, and those of a place with many of them. */
export interface Networks {
  own: string
  site: string
}

/**
 * Which networks an address is in. Whoever has an address of IPv6 has at least 2^64 of them (RFC 4291, section 2.5.4), and
 * a place up to 2^80 (RFC 6177), so the first 64 and 48 bits are told apart. Of IPv4, also where it is written as IPv6 (RFC 4291,
 * section 2.5.5.2), each address is one. What is no address is itself.
 */
export function networksOf(address: string): Networks {
  const bare = address.split('%', 1)[0]!
  if (!ipaddr.isValid(bare)) return { own: address, site: address }
  const read = ipaddr.process(bare)
  if (read.kind() === 'ipv4') return { own: read.toString(), site: read.toString() }
  const [a, b, c, d] = (read as ipaddr.IPv6).parts.map(part => part.toString(16))
  return { own: `${a}:${b}:${c}:${d}::/64`, site: `${a}:${b}:${c}::/48` }
}
