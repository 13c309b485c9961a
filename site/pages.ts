import { renderToString } from '@vue/server-renderer'
import { type Component, createSSRApp } from 'vue'
import { writingDirection } from '@core/words/writingDirection'
import EpisodePageView from './EpisodePage.vue'
import type { EpisodePage, PublicShow, ShowPage } from './facts'
import MissingPageView from './MissingPage.vue'
import ShowPageView from './ShowPage.vue'
import { episodeData, scriptOf, seriesData } from './structured'

/** Addresses of what a page loads in the browser. */
export interface SiteAssets {
  /** Null where no script is to run. */
  script: string | null
  styles: readonly string[]
}

interface Head {
  language: string
  title: string
  description: string
  /** Of what is there; a page for nothing has none. */
  about?: {
    address: string
    /** Of the Open Graph protocol's list. */
    type: 'website' | 'article'
    site: string
    picture: string
    feed: { title: string; address: string }
    data: string
  }
}

export function renderShowPage(page: ShowPage, assets: SiteAssets): Promise<string> {
  const { name, description, language, artworkAddress, feedAddress, pageAddress } = page.show
  return render(ShowPageView, page, assets, {
    language,
    title: name,
    description,
    about: {
      address: pageAddress,
      type: 'website',
      site: name,
      picture: artworkAddress,
      feed: { title: name, address: feedAddress },
      data: scriptOf(seriesData(page.show)),
    },
  })
}

export function renderEpisodePage(page: EpisodePage, assets: SiteAssets): Promise<string> {
  const { show, episode } = page
  return render(EpisodePageView, page, assets, {
    language: show.language,
    title: `${episode.title} · ${show.name}`,
    description: episode.summary,
    about: {
      address: episode.pageAddress,
      type: 'article',
      site: show.name,
      picture: episode.artworkAddress ?? show.artworkAddress,
      feed: { title: show.name, address: show.feedAddress },
      data: scriptOf(episodeData(page)),
    },
  })
}

/** Of an address at which there is nothing; or nothing any more of a show, which it leads to. */
export function renderMissingPage(
  assets: SiteAssets,
  show: Pick<PublicShow, 'name' | 'pageAddress'> | null = null,
): Promise<string> {
  return render(MissingPageView, { show }, assets, {
    language: 'en',
    title: show ? `No longer here · ${show.name}` : 'Nothing here',
    description: show ? 'The episode was taken out by its maker.' : 'There is no page at this address.',
  })
}

/** A whole HTML document; everything in the head goes through `escaped`, the body through Vue. */
async function render(view: Component, props: object, assets: SiteAssets, head: Head): Promise<string> {
  const body = await renderToString(createSSRApp(view, { ...props }))
  return `<!doctype html>
<html lang="${escaped(head.language)}" dir="${writingDirection(head.language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(head.title)}</title>
<meta name="description" content="${escaped(head.description)}">
${head.about ? aboutElements(head, head.about) : '<meta name="robots" content="noindex">'}
<link rel="icon" href="/favicon.svg" type="image/svg+xml">
${assets.styles.map(style => `<link rel="stylesheet" href="${style}">`).join('\n')}
${assets.script ? `<script type="module" src="${assets.script}"></script>` : ''}
</head>
<body>${body}</body>
</html>`
}

/** Where it is, what it is in a few words and a picture (Open Graph protocol, basic metadata), and its feed. */
function aboutElements(
  { title, description }: Head,
  { address, type, site, picture, feed, data }: NonNullable<Head['about']>,
) {
  const graph = { title, type, url: address, image: picture, description, site_name: site }
  return [
    `<link rel="canonical" href="${escaped(address)}">`,
    ...Object.entries(graph).map(([name, value]) => `<meta property="og:${name}" content="${escaped(value)}">`),
    `<link rel="alternate" type="application/rss+xml" title="${escaped(feed.title)}" href="${escaped(feed.address)}">`,
    data,
  ].join('\n')
}

const entities: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }
const escaped = (text: string): string => text.replace(/[&<>"]/g, letter => entities[letter]!)
