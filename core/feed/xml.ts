import XMLBuilder from 'fast-xml-builder'
import { jsonChaptersType } from '../chapters/json'
import { groupOf } from '../people/roles'
import type { FeedChannel, FeedItem, FeedModel, ToldPerson, ToldTranscript } from './model'
import { feedDate } from './dates'
import { xmlSafe } from './characters'

const namespaces = {
  '@xmlns:itunes': 'http://www.itunes.com/dtds/podcast-1.0.dtd',
  '@xmlns:podcast': 'https://podcastindex.org/namespace/1.0',
  '@xmlns:atom': 'http://www.w3.org/2005/Atom',
  '@xmlns:content': 'http://purl.org/rss/1.0/modules/content/',
}

const builder = new XMLBuilder({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  suppressEmptyNode: true,
  suppressBooleanAttributes: false,
  format: true,
  indentBy: ' ',
})

/**
 * Writes a feed: RSS 2.0 with the itunes, podcast, atom and content namespaces, UTF-8.
 * Characters that XML 1.0 (section 2.2) has no place for are left out.
 */
export function feedXml({ channel, items }: FeedModel): string {
  return xmlSafe(
    builder.build({
      '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
      rss: {
        '@version': '2.0',
        ...namespaces,
        channel: { ...channelElements(channel), item: items.map(itemElements) },
      },
    }),
  )
}

/** One item as it stands in a feed, without what declares its namespaces. */
export const itemXml = (item: FeedItem): string => xmlSafe(builder.build({ item: itemElements(item) })).trim()

function channelElements(channel: FeedChannel) {
  return {
    title: channel.title,
    link: channel.link,
    description: channel.description,
    language: channel.language,
    lastBuildDate: feedDate(channel.changedAt),
    generator: channel.generator,
    image: { url: channel.artworkAddress, title: channel.title, link: channel.link },
    // RSS Advisory Board profile: a feed names its own address in an atom:link.
    'atom:link': { '@href': channel.feedAddress, '@rel': 'self', '@type': 'application/rss+xml' },
    'itunes:author': channel.author,
    'itunes:owner': { 'itunes:name': channel.owner.name, 'itunes:email': channel.owner.email },
    'itunes:image': { '@href': channel.artworkAddress },
    'itunes:category': categoryElement(channel),
    'itunes:explicit': channel.explicit,
    'itunes:type': channel.type,
    'podcast:guid': channel.podcastGuid,
  }
}

function categoryElement({ category, subcategory }: FeedChannel) {
  return subcategory ? { '@text': category, 'itunes:category': { '@text': subcategory } } : { '@text': category }
}

function itemElements(item: FeedItem) {
  return {
    title: item.title,
    guid: { '#text': item.guid, '@isPermaLink': 'false' },
    link: item.link,
    ...(item.publishedAt && { pubDate: feedDate(item.publishedAt) }),
    // RSS 2.0: an enclosure has an address, its length in bytes and its type, all three required.
    ...(item.enclosure && {
      enclosure: { '@url': item.enclosure.address, '@length': item.enclosure.bytes, '@type': item.enclosure.type },
    }),
    description: item.description,
    'content:encoded': item.notesHtml,
    ...(item.tags.length > 0 && { category: item.tags }),
    ...(item.discussion && { comments: item.discussion }),
    'itunes:title': item.bareTitle,
    ...(item.hook && { 'itunes:subtitle': item.hook }),
    ...(item.author && { 'itunes:author': item.author }),
    ...(item.artworkAddress && { 'itunes:image': { '@href': item.artworkAddress } }),
    ...(item.durationMs !== null && { 'itunes:duration': Math.round(item.durationMs / 1000) }),
    ...(item.number !== null && { 'itunes:episode': item.number }),
    ...(item.season !== null && { 'itunes:season': item.season }),
    'itunes:episodeType': item.kind,
    'itunes:explicit': item.explicit,
    ...(item.people.length > 0 && { 'podcast:person': item.people.map(personElement) }),
    // podcast namespace, chapters: a file of its own, with its type.
    ...(item.chaptersAddress && {
      'podcast:chapters': { '@url': item.chaptersAddress, '@type': jsonChaptersType },
    }),
    ...(item.transcripts.length > 0 && { 'podcast:transcript': item.transcripts.map(transcriptElement) }),
    ...(item.licence && { 'podcast:license': item.licence }),
    ...(item.place && { 'podcast:location': item.place }),
  }
}

/** podcast namespace, transcript: type and language of each; `captions` is said of those that can be shown as such. */
const transcriptElement = ({ address, type, language, isCaptions }: ToldTranscript) => ({
  '@url': address,
  '@type': type,
  '@language': language,
  ...(isCaptions && { '@rel': 'captions' }),
})

/** podcast namespace, person: role and group are of the published list, in any case; an address is `href`, a picture `img`. */
const personElement = ({ name, role, address, pictureAddress }: ToldPerson) => ({
  '#text': name,
  '@role': role.toLowerCase(),
  '@group': groupOf(role).toLowerCase(),
  ...(pictureAddress && { '@img': pictureAddress }),
  ...(address && { '@href': address }),
})
