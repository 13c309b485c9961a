import { isWebAddress } from '../address/web'
import { attributeIn, type ReadFeed } from './read'

/** Something that a feed names by its address, and what is expected there. */
export interface NamedAddress {
  address: string
  as: 'artwork' | 'audio' | 'transcript' | 'chapters'
}

/** Of so many of the newest items everything is asked for. */
const askedItems = 10

/** The addresses in a feed that are worth asking: the artwork, and what the newest items name. */
export function addressesIn({ channel, items }: ReadFeed): NamedAddress[] {
  if (!channel) return []
  const named = new Map<string, NamedAddress['as']>([[attributeIn(channel, 'itunes:image', 'href'), 'artwork']])
  const kinds = { enclosure: 'audio', 'podcast:transcript': 'transcript', 'podcast:chapters': 'chapters' } as const
  for (const { children } of items.slice(0, askedItems))
    for (const { name, attributes } of children)
      if (name in kinds) named.set(attributes.url?.trim() ?? '', kinds[name as keyof typeof kinds])
  return [...named].flatMap(([address, as]) => (isWebAddress(address) ? [{ address, as }] : []))
}
