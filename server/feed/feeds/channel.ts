import { safeInBothReadings } from '@core/feed/description'
import { withAllFacts } from '@core/feed/facts'
import type { FeedChannel } from '@core/feed/model'
import { podcastGuid } from '@core/feed/podcastGuid'
import { rhythmWords } from '@core/release/rhythm'
import { ruleOf } from '@core/release/slots'
import { artworkAt } from '@core/show/artwork'
import { Picture } from '../../media/pictures/models'
import { publicPictureAddress } from '../../media/pictures/names'
import type { Show } from '../../show/shows/models'
import { hasMovedHere } from '../../show/shows/addresses'
import { addressesOf } from '../../show/shows/service'

export const generator = 'Lake Letter'

/** What the feed of a show says of the show; its addresses begin with `base`, those of pictures do not. */
export async function channelOf(
  show: Show,
  publicUrl: string,
  hubUrl: string | null = null,
  base = publicUrl,
): Promise<FeedChannel> {
  const facts = withAllFacts(show.feedFacts)
  const portraits = show.hosts.flatMap(({ pictureId }) => pictureId ?? [])
  const pictures = new Map(
    (await Picture.findAll({ where: { id: [show.artworkId, ...portraits], isPublic: true } })).map(picture => [
      picture.id,
      picture,
    ]),
  )
  const isAtNewAddress = show.hostName !== null || (await hasMovedHere(show.id))
  const artwork = pictures.get(show.artworkId)!
  const { pageAddress, feedAddress, jsonAddress } = addressesOf(base, show)
  const addressOf = (id: string | null | undefined): string | null => {
    const picture = pictures.get(id ?? '')
    return picture ? publicPictureAddress(publicUrl, picture) : null
  }
  return {
    title: show.name,
    link: facts.site ?? pageAddress,
    pageAddress,
    feedAddress,
    jsonAddress,
    hubs: hubUrl ? [hubUrl] : [],
    parts: null,
    description: safeInBothReadings(show.description),
    language: show.language,
    author: show.author,
    owner: { name: facts.ownerName ?? show.author, email: show.ownerEmail },
    webmaster: facts.webmaster,
    copyright: facts.copyright,
    artworkAddress: publicPictureAddress(publicUrl, artwork),
    artworkWidths: widthsOf(artwork, publicPictureAddress(publicUrl, artwork)),
    categories: [
      { category: show.category, subcategory: show.subcategory },
      ...(facts.secondCategory ? [facts.secondCategory] : []),
    ],
    keywords: facts.keywords,
    explicit: show.explicit,
    type: show.type,
    medium: facts.medium,
    podcastGuid: show.podcastGuid,
    isLocked: facts.isLocked,
    isBlocked: facts.isBlocked,
    isComplete: facts.isComplete,
    // A show that has come from another address tells apps that this is where it is to be asked for.
    movedTo: facts.movedTo ?? (isAtNewAddress ? feedAddress : null),
    people: show.hosts.map(host => ({ ...host, pictureAddress: addressOf(host.pictureId) })),
    funding: facts.funding,
    licence: facts.licence,
    place: facts.place,
    statements: facts.statements,
    recommends: facts.recommends.map(({ title, feedAddress: address }) => ({
      title,
      feedAddress: address,
      guid: podcastGuid(address),
    })),
    rhythm: show.rhythm && { words: rhythmWords(show.rhythm), rule: ruleOf(show.rhythm) },
    changedAt: show.feedChangedAt,
    generator,
  }
}

/** A picture with its smaller sizes, the widest first. */
export const widthsOf = ({ widthPx, smaller }: Picture, address: string) =>
  [
    { address, widthPx },
    ...Object.keys(smaller ?? {}).map(side => ({
      address: artworkAt(address, Number(side) as Parameters<typeof artworkAt>[1]),
      widthPx: Number(side),
    })),
  ].sort((one, other) => other.widthPx - one.widthPx)
