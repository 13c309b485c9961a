import type { EpisodeLine, PublicEpisode, PublicShow } from '@site/facts'
import { isWebAddress } from '@core/address/web'
import { listed } from '@core/chapters/chapters'
import { renderText } from '@core/episode/rendered'
import { withAllFacts } from '@core/feed/facts'
import { isFilmAddress } from '@core/film/address'
import { unsetText } from '@core/episode/fields'
import type { SiteTheme } from '@core/site/siteTheme'
import { plainNotes } from '@core/notes/plain'
import { cut } from '@core/words/line'
import { Op } from 'sequelize'
import { ListingRow } from '../../show/shows/listings'
import type { Outgoing } from '../../show/episodes/outgoing'
import { publicPictures } from '../../show/episodes/pictures'
import { enclosureAddress, soundbiteAddress, transcriptFiles } from '../../show/episodes/views'
import { digestOf } from '../../platform/storage/written'
import { Picture } from '../../media/pictures/models'
import { publicPictureAddress } from '../../media/pictures/names'
import type { Show } from '../../show/shows/models'
import { addressesOf, isSecret, renderContextOf } from '../../show/shows/service'
import { OwnPage, written } from '../../show/shows/ownPages'
import { publicTheme } from './siteTheme'
import type { SitePlatform } from './page'

/** A show as its pages tell it, in a look; their addresses begin with `base`. */
export async function publicShow(
  platform: SitePlatform,
  row: Show,
  base: string,
  wanted: SiteTheme | null = row.theme,
): Promise<PublicShow> {
  const { publicUrl } = platform.configuration
  const [picture, pictureAddress, listings, pages] = await Promise.all([
    Picture.findByPk(row.artworkId, { rejectOnEmpty: true }),
    publicPictures([{ ...unsetText, people: row.hosts }], publicUrl),
    ListingRow.findAll({
      where: { showId: row.id, state: 'listed', listingAddress: { [Op.not]: null } },
      attributes: ['name', 'listingAddress'],
      order: [['name', 'ASC']],
    }),
    OwnPage.findAll({
      where: { showId: row.id, ...written },
      attributes: ['title', 'slug'],
      order: [['createdAt', 'ASC']],
    }),
  ])
  const { name, description, author, language, zone } = row
  return {
    name,
    description,
    author,
    language,
    zone,
    artworkAddress: publicPictureAddress(publicUrl, picture),
    // A directory answers what it likes.
    subscribe: listings
      .map(({ name: directory, listingAddress }) => ({ name: directory, address: listingAddress! }))
      .filter(({ address }) => isWebAddress(address)),
    funding: withAllFacts(row.feedFacts).funding.map(({ words, address }) => ({ name: words, address })),
    people: row.hosts.map(person => ({ ...person, pictureAddress: pictureAddress(person.pictureId ?? null) })),
    pages: pages.map(({ title, slug }) => ({
      name: title,
      address: `${addressesOf(base, row).pageAddress}/${slug}`,
    })),
    oembedAddress: base === publicUrl ? `${publicUrl}/embed/oembed` : null,
    sharePicture: sharePictureAt(addressesOf(base, row).pageAddress, [row.name, row.author, row.artworkId, wanted]),
    takesComments: Boolean(row.takesComments) && base === publicUrl,
    theme: await publicTheme(platform, wanted, picture),
    ...addressesOf(base, row),
  }
}

/** What of an episode stands in a list, once it is released. */
export const lineOf = ({
  title,
  number,
  season,
  summary,
  artworkAddress,
  pageAddress,
  sound,
  releasedAt,
}: PublicEpisode): EpisodeLine => ({
  title,
  number,
  season,
  summary,
  artworkAddress,
  pageAddress,
  sound: sound!,
  releasedAt: releasedAt!,
})

/** An episode as its page tells it. */
export function publicEpisode(
  { id, slug, text, chapters, soundbites, transcripts, file, at, pictureAddress }: Outgoing,
  row: Show,
  base: string,
  said: PublicEpisode['said'] = [],
): PublicEpisode {
  const { pageAddress } = addressesOf(base, row)
  const { number, season, hook, tags, people, links, extras } = text
  const { title, notesHtml } = renderText(text, renderContextOf(row, base), chapters)
  return {
    title,
    // Where the pattern tells it, the line below the title need not.
    number: title === text.title.trim() ? number : null,
    season,
    hook: hook.trim(),
    notesHtml,
    summary: hook.trim() || cut(plainNotes(notesHtml).slice(0, 1200), 300),
    sharePicture: sharePictureAt(`${pageAddress}/${slug}`, [
      title,
      row.name,
      text.artworkId ?? row.artworkId,
      file,
      row.theme,
    ]),
    tags,
    people: people.map(person => ({ ...person, pictureAddress: pictureAddress(person.pictureId ?? null) })),
    chapters: listed(chapters).map(chapter => ({ ...chapter, pictureAddress: pictureAddress(chapter.pictureId) })),
    soundbites: soundbites.map(({ id: soundbite, fromMs, toMs, title: own }) => ({
      fromMs,
      toMs,
      title: own || title,
      address: file?.address === null ? soundbiteAddress(`${pageAddress}/${slug}`, soundbite) : null,
    })),
    said,
    transcriptFiles: transcriptFiles(`${pageAddress}/${slug}`, transcripts),
    artworkAddress: pictureAddress(text.artworkId),
    author: extras.author,
    // Those that the notes have already are not told twice.
    links: links
      .filter(({ address }) => !hrefsIn(notesHtml).has(address))
      .map(({ words, address }) => ({ name: words || address, address })),
    page: extras.page,
    discussion: extras.discussion,
    film: extras.film ? { address: extras.film, isShown: isFramed(extras.film, base) } : null,
    isPromotion: extras.isPromotion,
    isExplicit: extras.explicit ?? row.explicit,
    licence: extras.licence,
    place: extras.place,
    pageAddress: `${pageAddress}/${slug}`,
    sound: file && {
      address: enclosureAddress(base, id, file),
      type: file.type,
      bytes: Number(file.bytes),
      durationMs: file.durationMs,
    },
    releasedAt: at && at.toISOString(),
  }
}

/**
 * Another address for each state, because places that show such pictures keep them long. Pages for a listener of their own are not
 * shared, and have none.
 */
const sharePictureAt = (pageAddress: string, state: readonly unknown[]): string | null =>
  isSecret(pageAddress) ? null : `${pageAddress}/share.jpg?${digestOf(Buffer.from(JSON.stringify(state))).slice(0, 8)}`

/** A frame of the house's own pages could do what they can; an address that was kept before the rule became stricter is a link. */
const isFramed = (address: string, base: string): boolean =>
  isFilmAddress(address) && new URL(address).host !== new URL(base).host

const hrefsIn = (html: string): Set<string> =>
  new Set([...html.matchAll(/ href="([^"]*)"/g)].map(([, href]) => href!.replaceAll('&amp;', '&')))
