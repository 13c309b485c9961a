import type { FeedModel } from './model'

/** In how many parts a feed comes: one where all its items are in it. */
export const partsOf = (items: number, perPart: number | null): number =>
  perPart === null ? 1 : Math.max(1, Math.ceil(items / perPart))

/** The address of a part of a feed in either form, by that of the feed, which is the first part. */
export const partAddress = (feedAddress: string, part: number): string =>
  part === 1 ? feedAddress : feedAddress.replace(/\/(feed\.(?:xml|json))$/, `/parts/${part}/$1`)

/**
 * A part of a feed, the newest items in the first, which is the feed itself. RFC 5005 section 3: each part is a feed and leads
 * to the others.
 */
export function partOf({ channel, items }: FeedModel, part: number, perPart: number | null): FeedModel {
  const count = partsOf(items.length, perPart)
  if (perPart === null || count === 1) return { channel, items }
  const addressOf = (number: number): string | null =>
    number >= 1 && number <= count ? partAddress(channel.feedAddress, number) : null
  return {
    channel: {
      ...channel,
      feedAddress: partAddress(channel.feedAddress, part),
      jsonAddress: channel.jsonAddress && partAddress(channel.jsonAddress, part),
      parts: {
        first: partAddress(channel.feedAddress, 1),
        last: partAddress(channel.feedAddress, count),
        previous: addressOf(part - 1),
        next: addressOf(part + 1),
        nextJson: part < count && channel.jsonAddress ? partAddress(channel.jsonAddress, part + 1) : null,
      },
    },
    items: items.slice((part - 1) * perPart, part * perPart),
  }
}
