import type { FeedItem, FeedModel } from './model'

/** The media type of JSON Feed 1.1. */
export const jsonFeedType = 'application/feed+json'

/** Writes a feed as JSON Feed 1.1 (jsonfeed.org, version 1.1), with what that has a place for. */
export function feedJson({ channel, items }: FeedModel): string {
  return `${JSON.stringify(
    {
      version: 'https://jsonfeed.org/version/1.1',
      title: channel.title,
      home_page_url: channel.link,
      feed_url: channel.jsonAddress ?? channel.feedAddress,
      ...(channel.parts?.nextJson && { next_url: channel.parts.nextJson }),
      description: channel.description,
      icon: channel.artworkAddress,
      authors: [{ name: channel.author }],
      language: channel.language,
      // "expired (optional, boolean) says whether or not the feed is finished": only when it is.
      ...(channel.isComplete && { expired: true }),
      ...(channel.hubs.length > 0 && { hubs: channel.hubs.map(url => ({ type: 'WebSub', url })) }),
      items: items.map(itemOf),
    },
    null,
    1,
  )}\n`
}

function itemOf(item: FeedItem) {
  const { enclosure, durationMs, publishedAt } = item
  return {
    id: item.guid,
    url: item.link,
    title: item.title,
    // "An item must have at least one of content_html and content_text."
    content_html: item.notesHtml,
    content_text: item.description,
    ...(item.hook && { summary: item.hook }),
    ...(item.artworkAddress && { image: item.artworkAddress }),
    // RFC 3339, as JSON Feed asks.
    ...(publishedAt && { date_published: publishedAt.toISOString() }),
    ...(item.author && { authors: [{ name: item.author }] }),
    ...(item.tags.length > 0 && { tags: item.tags }),
    ...(enclosure && {
      attachments: [
        {
          url: enclosure.address,
          mime_type: enclosure.type,
          size_in_bytes: enclosure.bytes,
          ...(durationMs !== null && { duration_in_seconds: Math.round(durationMs / 1000) }),
        },
      ],
    }),
  }
}
