import type { EpisodePage, PublicShow } from './facts'

/** What a page tells programs that look for things rather than pages: schema.org, PodcastSeries and PodcastEpisode. */
type Data = Readonly<Record<string, unknown>>

const context = 'https://schema.org'

const seriesOf = ({ name, pageAddress, feedAddress }: PublicShow): Data => ({
  '@type': 'PodcastSeries',
  name,
  url: pageAddress,
  webFeed: feedAddress,
})

export const seriesData = (show: PublicShow): Data => ({
  '@context': context,
  ...seriesOf(show),
  description: show.description,
  image: show.artworkAddress,
  inLanguage: show.language,
  author: { '@type': 'Person', name: show.author },
})

export function episodeData({ show, episode }: Pick<EpisodePage, 'show' | 'episode'>): Data {
  const { sound, pageAddress, number, releasedAt } = episode
  const people = episode.people.map(({ name, address }) => ({
    '@type': 'Person',
    name,
    ...(address && { url: address }),
  }))
  return {
    '@context': context,
    '@type': 'PodcastEpisode',
    name: episode.title,
    description: episode.summary,
    url: pageAddress,
    image: episode.artworkAddress ?? show.artworkAddress,
    inLanguage: show.language,
    partOfSeries: seriesOf(show),
    ...(number !== null && { episodeNumber: number }),
    ...(releasedAt && { datePublished: releasedAt }),
    ...(people.length > 0 && { actor: people }),
    ...(episode.tags.length > 0 && { keywords: episode.tags.join(', ') }),
    ...(sound && {
      timeRequired: duration(sound.durationMs),
      associatedMedia: {
        '@type': 'AudioObject',
        contentUrl: sound.address,
        encodingFormat: sound.type,
        contentSize: String(sound.bytes),
        duration: duration(sound.durationMs),
        ...(episode.transcriptFiles.length > 0 && {
          caption: episode.transcriptFiles.map(({ address, language }) => ({
            '@type': 'MediaObject',
            contentUrl: address,
            inLanguage: language,
          })),
        }),
      },
      ...(episode.chapters.length > 0 && { hasPart: clipsOf(episode.chapters, sound.durationMs, pageAddress) }),
    }),
  }
}

/** A chapter lasts until the next one begins, the last until the end. */
function clipsOf(chapters: EpisodePage['episode']['chapters'], endMs: number, pageAddress: string): Data[] {
  return chapters.map(({ title, fromMs }, at) => ({
    '@type': 'Clip',
    name: title,
    startOffset: fromMs / 1000,
    endOffset: (chapters[at + 1]?.fromMs ?? endMs) / 1000,
    url: `${pageAddress}#t=${fromMs / 1000}`,
  }))
}

/** ISO 8601 in whole seconds. */
const duration = (ms: number): string => `PT${Math.round(ms / 1000)}S`

/** As it stands in a page: nothing in it can end the element that it stands in (HTML Standard section 4.12.1.3). */
export const scriptOf = (data: Data): string =>
  `<script type="application/ld+json">${JSON.stringify(data).replaceAll('<', '\\u003c')}</script>`
