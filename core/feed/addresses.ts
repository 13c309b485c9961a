import { isWebAddress } from '../address/web'
import { attributeIn, type ReadFeed } from './read'

/** Something that a feed names by its address, and what is expected there. */
export interface NamedAddress {
  address: string
  as: 'artwork' | 'audio' | 'transcript' | 'chapters'
}

/** Of so many of the newest items everything is asked for, up to so many addresses in all, and of one host. */
const askedItems = 10
const mostAsked = 120
const mostOfHost = 80

/** Addresses in a feed that are asked, and how many there are that would be. */
export interface AskedAddresses {
  asked: NamedAddress[]
  named: number
}

/** The addresses in a feed that are worth asking: the artwork, and what the newest items name. */
export function addressesIn({ channel, items }: ReadFeed): AskedAddresses {
  if (!channel) return { asked: [], named: 0 }
  const named = new Map<string, NamedAddress['as']>([[attributeIn(channel, 'itunes:image', 'href'), 'artwork']])
  const kinds = { enclosure: 'audio', 'podcast:transcript': 'transcript', 'podcast:chapters': 'chapters' } as const
  for (const { children } of items.slice(0, askedItems))
    for (const { name, attributes } of children)
      if (name in kinds) named.set(attributes.url?.trim() ?? '', kinds[name as keyof typeof kinds])
  const worth = [...named].flatMap(([address, as]) => (isWebAddress(address) ? [{ address, as }] : []))
  const ofHost = new Map<string, number>()
  const asked = worth.filter(({ address }) => {
    const { host } = new URL(address)
    ofHost.set(host, (ofHost.get(host) ?? 0) + 1)
    return ofHost.get(host)! <= mostOfHost
  })
  return { asked: asked.slice(0, mostAsked), named: worth.length }
}
