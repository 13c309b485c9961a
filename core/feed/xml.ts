import { isWebAddress } from '../address/web'
import { jsonChaptersType } from '../chapters/json'
import { groupOf } from '../people/roles'
import { cut } from '../words/line'
import { element, marked, Ready, textElement, Verbatim, xmlDocument, type XmlElement, xmlOf } from '../xml/write'
import { feedDate } from './dates'
import type {
  Enclosure,
  FeedChannel,
  FeedItem,
  FeedModel,
  FeedCategory,
  FeedPerson,
  FeedSoundbite,
  FeedTranscript,
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
    textElement('title', channel.title),
    textElement('link', channel.link),
    textElement('description', channel.description),
    textElement('language', channel.language),
    textElement('copyright', channel.copyright),
    textElement('managingEditor', ownerByMail),
    textElement('webMaster', channel.webmaster),
    textElement('pubDate', newest && feedDate(newest)),
    textElement('lastBuildDate', feedDate(channel.changedAt)),
    ...categories.map(each => textElement('category', each.subcategory ?? each.category)),
    textElement('generator', channel.generator),
    textElement('docs', rssSpecification),
    textElement('ttl', ttlMinutes),
    element('image', [
      textElement('url', channel.artworkAddress),
      textElement('title', channel.title),
      textElement('link', channel.link),
    ]),
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
    textElement('dc:creator', channel.author),
    textElement('itunes:author', channel.author),
    element('itunes:owner', [textElement('itunes:name', owner.name), textElement('itunes:email', owner.email)]),
    marked('itunes:image', { href: channel.artworkAddress }),
    ...categories.map(categoryElement),
    textElement('itunes:explicit', String(channel.explicit)),
    textElement('itunes:type', channel.type),
    textElement('itunes:summary', channel.description),
    textElement('itunes:keywords', keywords.join(', ')),
    channel.isBlocked ? textElement('itunes:block', 'Yes') : null,
    channel.isComplete ? textElement('itunes:complete', 'Yes') : null,
    textElement('itunes:new-feed-url', channel.movedTo),
    textElement('podcast:guid', channel.podcastGuid),
    element('podcast:locked', channel.isLocked ? 'yes' : 'no', { owner: owner.email }),
    textElement('podcast:medium', channel.medium),
    channel.artworkWidths.length > 0
      ? marked('podcast:images', {
          srcset: channel.artworkWidths.map(({ address, widthPx }) => `${address} ${widthPx}w`).join(', '),
        })
      : null,
    ...channel.people.map(personElement),
    ...channel.funding.map(({ words, address }) => element('podcast:funding', words, { url: address })),
    licenceElement(channel.licence),
    textElement('podcast:location', channel.place),
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

const categoryElement = ({ category, subcategory }: FeedCategory): XmlElement =>
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
    textElement('title', item.title),
    element('guid', item.guid, { isPermaLink: 'false' }),
    textElement('link', item.link),
    textElement('pubDate', publishedAt && feedDate(publishedAt)),
    // RSS 2.0: an enclosure has an address, its length in bytes and its type, all three required.
    enclosure && marked('enclosure', { url: enclosure.address, length: enclosure.bytes, type: enclosure.type }),
    textElement('description', item.description),
    item.notesHtml === '' ? null : element('content:encoded', new Verbatim(item.notesHtml)),
    textElement('dc:creator', author),
    ...item.tags.map(tag => textElement('category', tag)),
    textElement('comments', item.discussion),
    item.discussion && item.discussionProtocol
      ? marked('podcast:socialInteract', { uri: item.discussion, protocol: item.discussionProtocol })
      : null,
    item.from && element('source', item.from.title, { url: item.from.feedAddress }),
    textElement('itunes:title', item.bareTitle),
    textElement('itunes:subtitle', item.hook),
    textElement('itunes:summary', item.hook),
    textElement('itunes:author', author),
    textElement('itunes:keywords', item.tags.join(', ')),
    item.artworkAddress ? marked('itunes:image', { href: item.artworkAddress }) : null,
    textElement('itunes:duration', durationMs !== null ? Math.round(durationMs / 1000) : null),
    textElement('itunes:episode', item.number),
    textElement('itunes:season', item.season),
    textElement('itunes:episodeType', item.kind),
    textElement('itunes:explicit', String(item.explicit)),
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
    textElement('podcast:location', item.place),
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
const transcriptElement = ({ address, type, language, isCaptions }: FeedTranscript): XmlElement =>
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

const soundbiteElement = ({ fromMs, durationMs, title }: FeedSoundbite): XmlElement =>
  element('podcast:soundbite', cut(title, mostOfText), { startTime: fromMs / 1000, duration: durationMs / 1000 })

/** podcast namespace, person: role and group are of the published list, in any case; an address is `href`, a picture `img`. */
const personElement = ({ name, role, address, pictureAddress }: FeedPerson): XmlElement =>
  element('podcast:person', name, {
    role: role.toLowerCase(),
    group: groupOf(role).toLowerCase(),
    img: pictureAddress,
    href: address,
  })
