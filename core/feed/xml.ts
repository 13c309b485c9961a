import { isWebAddress } from '../address/web'
import { jsonChaptersType } from '../chapters/json'
import { groupOf } from '../people/roles'
import { cut } from '../words/line'
import { element, marked, Ready, told, Verbatim, xmlDocument, type XmlElement, xmlOf } from '../xml/write'
import { feedDate } from './dates'
import type {
  Enclosure,
  FeedChannel,
  FeedItem,
  FeedModel,
  ToldCategory,
  ToldPerson,
  ToldSoundbite,
  ToldTranscript,
} from './model'

/** The namespaces of a feed, by the prefix that each usually has. */
export const namespaces = {
  itunes: 'http://www.itunes.com/dtds/podcast-1.0.dtd',
  podcast: 'https://podcastindex.org/namespace/1.0',
  atom: 'http://www.w3.org/2005/Atom',
  content: 'http://purl.org/rss/1.0/modules/content/',
  dc: 'http://purl.org/dc/elements/1.1/',
} as const

export const rssSpecification = 'https://www.rssboard.org/rss-specification'
/** Grows with whatever makes another feed of the same facts, so that feeds that were written before are written anew. */
export const feedEdition = 4
/** How long, in minutes, a reader may keep the feed before it asks again (RSS 2.0, ttl). */
const ttlMinutes = 60

/** Writes a feed: RSS 2.0 with the itunes, podcast, atom, content and dc namespaces, UTF-8. */
export const feedXml = ({ channel, items }: FeedModel): string =>
  xmlDocument(
    element('rss', [element('channel', [...channelElements(channel, items), ...items.map(readyItem)])], {
      version: '2.0',
      ...Object.fromEntries(Object.entries(namespaces).map(([prefix, uri]) => [`xmlns:${prefix}`, uri])),
    }),
  )

/** An item is written once: while the episode does not change, neither does what the feed says of it. */
const ready = new WeakMap<FeedItem, Ready>()
function readyItem(item: FeedItem): Ready {
  const known = ready.get(item)
  if (known) return known
  const made = new Ready(itemElement(item), 2)
  ready.set(item, made)
  return made
}

/** One item as it stands in a feed, without what declares its namespaces. */
export const itemXml = (item: FeedItem): string => xmlOf(itemElement(item))

function channelElements(channel: FeedChannel, items: FeedModel['items']): (XmlElement | null)[] {
  const { owner, categories, keywords, parts } = channel
  const newest = items.reduce<Date | null>(
    (newest, { publishedAt }) => (publishedAt && (!newest || publishedAt > newest) ? publishedAt : newest),
    null,
  )
  const ownerByMail = `${owner.email} (${owner.name})`
  return [
    told('title', channel.title),
    told('link', channel.link),
    told('description', channel.description),
    told('language', channel.language),
    told('copyright', channel.copyright),
    told('managingEditor', ownerByMail),
    told('webMaster', channel.webmaster),
    told('pubDate', newest && feedDate(newest)),
    told('lastBuildDate', feedDate(channel.changedAt)),
    ...categories.map(each => told('category', each.subcategory ?? each.category)),
    told('generator', channel.generator),
    told('docs', rssSpecification),
    told('ttl', ttlMinutes),
    element('image', [told('url', channel.artworkAddress), told('title', channel.title), told('link', channel.link)]),
    // RSS Advisory Board profile: a feed names its own address in an atom:link.
    linkTo('self', channel.feedAddress, 'application/rss+xml'),
    channel.jsonAddress === null ? null : linkTo('alternate', channel.jsonAddress, 'application/feed+json'),
    channel.pageAddress === channel.link ? null : linkTo('alternate', channel.pageAddress, 'text/html'),
    ...channel.hubs.map(hub => linkTo('hub', hub)),
    // RFC 5005 section 3: parts of a feed lead to the first, the last, and those beside them.
    ...(['first', 'previous', 'next', 'last'] as const).map(rel => {
      const part = parts?.[rel]
      return part ? linkTo(rel, part, 'application/rss+xml') : null
    }),
    told('dc:creator', channel.author),
    told('itunes:author', channel.author),
    element('itunes:owner', [told('itunes:name', owner.name), told('itunes:email', owner.email)]),
    marked('itunes:image', { href: channel.artworkAddress }),
    ...categories.map(categoryElement),
    told('itunes:explicit', String(channel.explicit)),
    told('itunes:type', channel.type),
    told('itunes:summary', channel.description),
    told('itunes:keywords', keywords.join(', ')),
    channel.isBlocked ? told('itunes:block', 'Yes') : null,
    channel.isComplete ? told('itunes:complete', 'Yes') : null,
    told('itunes:new-feed-url', channel.movedTo),
    told('podcast:guid', channel.podcastGuid),
    element('podcast:locked', channel.isLocked ? 'yes' : 'no', { owner: owner.email }),
    told('podcast:medium', channel.medium),
    channel.artworkWidths.length > 0
      ? marked('podcast:images', {
          srcset: channel.artworkWidths.map(({ address, widthPx }) => `${address} ${widthPx}w`).join(', '),
        })
      : null,
    ...channel.people.map(personElement),
    ...channel.funding.map(({ words, address }) => element('podcast:funding', words, { url: address })),
    licenceElement(channel.licence),
    told('podcast:location', channel.place),
    ...channel.statements.map(({ purpose, words }) => element('podcast:txt', words, { purpose: purpose || null })),
    channel.recommends.length > 0
      ? element(
          'podcast:podroll',
          channel.recommends.map(({ guid, feedAddress, title }) =>
            marked('podcast:remoteItem', { feedGuid: guid, feedUrl: feedAddress, title }),
          ),
        )
      : null,
    channel.rhythm &&
      element('podcast:updateFrequency', channel.rhythm.words, {
        rrule: channel.rhythm.rule,
        complete: channel.isComplete ? 'true' : null,
      }),
    ...items.filter(({ kind }) => kind === 'trailer').map(trailerElement),
  ]
}

const linkTo = (rel: string, href: string, type: string | null = null): XmlElement =>
  marked('atom:link', { rel, href, type })

const categoryElement = ({ category, subcategory }: ToldCategory): XmlElement =>
  element('itunes:category', subcategory ? [marked('itunes:category', { text: subcategory })] : undefined, {
    text: category,
  })

/** podcast namespace, trailer and soundbite (from memory): a text of at most 128 characters. */
const mostOfText = 128

/** podcast namespace, trailer: one for the show and one for each season, with what an item tells of it. */
function trailerElement({ bareTitle, publishedAt, enclosure, season }: FeedItem): XmlElement | null {
  if (!publishedAt || !enclosure) return null
  return element('podcast:trailer', cut(bareTitle, mostOfText), {
    pubdate: feedDate(publishedAt),
    url: enclosure.address,
    length: enclosure.bytes,
    type: enclosure.type,
    season,
  })
}

function itemElement(item: FeedItem): XmlElement {
  const { enclosure, publishedAt, durationMs, author } = item
  return element('item', [
    told('title', item.title),
    element('guid', item.guid, { isPermaLink: 'false' }),
    told('link', item.link),
    told('pubDate', publishedAt && feedDate(publishedAt)),
    // RSS 2.0: an enclosure has an address, its length in bytes and its type, all three required.
    enclosure && marked('enclosure', { url: enclosure.address, length: enclosure.bytes, type: enclosure.type }),
    told('description', item.description),
    item.notesHtml === '' ? null : element('content:encoded', new Verbatim(item.notesHtml)),
    told('dc:creator', author),
    ...item.tags.map(tag => told('category', tag)),
    told('comments', item.discussion),
    item.discussion && item.discussionProtocol
      ? marked('podcast:socialInteract', { uri: item.discussion, protocol: item.discussionProtocol })
      : null,
    item.from && element('source', item.from.title, { url: item.from.feedAddress }),
    told('itunes:title', item.bareTitle),
    told('itunes:subtitle', item.hook),
    told('itunes:summary', item.hook),
    told('itunes:author', author),
    told('itunes:keywords', item.tags.join(', ')),
    item.artworkAddress ? marked('itunes:image', { href: item.artworkAddress }) : null,
    told('itunes:duration', durationMs !== null ? Math.round(durationMs / 1000) : null),
    told('itunes:episode', item.number),
    told('itunes:season', item.season),
    told('itunes:episodeType', item.kind),
    told('itunes:explicit', String(item.explicit)),
    item.season !== null && item.seasonName
      ? element('podcast:season', String(item.season), { name: item.seasonName })
      : null,
    item.number === null ? null : element('podcast:episode', String(item.number), { display: item.numberShown }),
    ...item.people.map(personElement),
    // podcast namespace, chapters: a file of its own, with its type.
    item.chaptersAddress ? marked('podcast:chapters', { url: item.chaptersAddress, type: jsonChaptersType }) : null,
    ...item.transcripts.map(transcriptElement),
    ...item.soundbites.map(soundbiteElement),
    licenceElement(item.licence),
    told('podcast:location', item.place),
    enclosure?.integrity ? wholeEnclosure(enclosure) : null,
  ])
}

/** podcast namespace, alternateEnclosure: the same file once more, with the digest by which a reader knows that it has it whole. */
const wholeEnclosure = ({ address, bytes, type, integrity }: Enclosure): XmlElement =>
  element(
    'podcast:alternateEnclosure',
    [marked('podcast:source', { uri: address }), marked('podcast:integrity', { type: 'sri', value: integrity })],
    { type, length: bytes, default: 'true' },
  )

/** podcast namespace, transcript: type and language of each; `captions` is said of those that can be shown as such. */
const transcriptElement = ({ address, type, language, isCaptions }: ToldTranscript): XmlElement =>
  marked('podcast:transcript', { url: address, type, language, rel: isCaptions ? 'captions' : null })

/** podcast namespace, soundbite: both times in seconds; the text is its title. */
/** A licence that is on no list has an address, written behind its name (podcast namespace, license: `url`, “required for custom licenses”, from memory). */
function licenceElement(licence: string | null): XmlElement | null {
  if (!licence) return null
  const words = licence.split(' ')
  const url = words.at(-1)!
  if (!isWebAddress(url)) return element('podcast:license', licence)
  return element('podcast:license', words.slice(0, -1).join(' ').trim() || url, { url })
}

const soundbiteElement = ({ fromMs, durationMs, title }: ToldSoundbite): XmlElement =>
  element('podcast:soundbite', cut(title, mostOfText), { startTime: fromMs / 1000, duration: durationMs / 1000 })

/** podcast namespace, person: role and group are of the published list, in any case; an address is `href`, a picture `img`. */
const personElement = ({ name, role, address, pictureAddress }: ToldPerson): XmlElement =>
  element('podcast:person', name, {
    role: role.toLowerCase(),
    group: groupOf(role).toLowerCase(),
    img: pictureAddress,
    href: address,
  })
