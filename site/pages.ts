import { renderToString } from '@vue/server-renderer'
import { type Component, createSSRApp } from 'vue'
import { writingDirection } from '@core/words/writingDirection'
import { type EpisodeFilter, filterQuery } from '@core/site/filter'
import type { Face } from '@core/site/siteTheme'
import { paletteStyle } from '@core/site/palette'
import { plainNotes } from '@core/notes/plain'
import { cut } from '@core/words/line'
import { shareHeightPx, shareWidthPx } from '@core/site/sharePicture'
import { artworkAt } from '@core/show/artwork'
import CommentPageView from './CommentPage.vue'
import EmbedPageView from './EmbedPage.vue'
import EpisodePageView from './EpisodePage.vue'
import EpisodesPageView from './EpisodesPage.vue'
import type {
  CommentPage,
  Embed,
  EpisodePage,
  EpisodesPage,
  ListenPage,
  MissingPage,
  OwnPage,
  PeoplePage,
  PublicTheme,
  PublicShow,
  SearchPage,
  ShowPage,
} from './facts'
import ListenPageView from './ListenPage.vue'
import MissingPageView from './MissingPage.vue'
import OwnPageView from './OwnPage.vue'
import PeoplePageView from './PeoplePage.vue'
import { qrImage } from './qr'
import SearchPageView from './SearchPage.vue'
import ShowPageView from './ShowPage.vue'
import { episodeData, scriptOf, seriesData } from './structured'
import { messagesIn } from './messages'
import { messagesKey } from './useMessages'
import { filterName } from './words'

/** Addresses of what a page loads in the browser. */
export interface SiteAssets {
  script: string
  styles: readonly string[]
  /** The letters of each face that nearly every page needs. */
  fonts: Readonly<Record<Face, string>>
}

interface Head {
  language: string
  title: string
  description: string
  /** How the pages of its show look; a page of no show looks like the house. */
  theme?: PublicTheme
  /** By day or by night, whatever the device has. */
  scheme?: 'light' | 'dark' | null
  /** Of what is there; a page for nothing has none. */
  about?: {
    address: string
    /** Of the Open Graph protocol's list. */
    type: 'website' | 'article'
    site: string
    /** For whoever is sent a link; null where only those come who have one of their own. */
    picture: string | null
    feed: { title: string; address: string }
    /** The show's page and artwork. */
    show: string
    artwork: string
    data: string
    /** The pages before and behind it, of a list in pages. */
    near?: { prev?: string; next?: string }
    /** Whether it has a player that other sites can take, and its address. */
    embed?: string
    /** Whether search engines may pass it by. */
    isAside?: boolean
  }
}

/** What the heads of a show's pages have in common. */
const aboutShow = ({ name, artworkAddress, sharePicture, feedAddress, pageAddress }: PublicShow, path = '') => ({
  address: `${pageAddress}${path}`,
  type: 'website' as const,
  site: name,
  picture: sharePicture,
  feed: { title: name, address: feedAddress },
  show: pageAddress,
  artwork: artworkAddress,
  data: '',
})

const embedOf = ({ oembedAddress }: PublicShow, address: string): { embed?: string } =>
  oembedAddress === null ? {} : { embed: `${oembedAddress}?url=${encodeURIComponent(address)}` }

export function renderShowPage(page: ShowPage, assets: SiteAssets): Promise<string> {
  const { name, description, language, theme } = page.show
  return render(ShowPageView, page, assets, {
    language,
    theme,
    title: name,
    description,
    about: {
      ...aboutShow(page.show),
      ...embedOf(page.show, page.show.pageAddress),
      data: scriptOf(seriesData(page.show)),
    },
  })
}

export function renderEpisodesPage(page: EpisodesPage, assets: SiteAssets): Promise<string> {
  const { show, filter, pages, choices } = page
  const at = (change: Partial<EpisodeFilter>): string => `/episodes${filterQuery({ ...filter, ...change })}`
  const about = aboutShow(show, at({}))
  const messages = messagesIn(show.language)
  const list = filterName(filter, choices, messages)
  return render(EpisodesPageView, page, assets, {
    language: show.language,
    theme: show.theme,
    title: `${filter.page > 1 ? messages.t('listPage', { list, page: filter.page }) : list} · ${show.name}`,
    description: show.description,
    about: {
      ...about,
      near: {
        ...(filter.page > 1 && { prev: `${show.pageAddress}${at({ page: filter.page - 1 })}` }),
        ...(filter.page < pages && { next: `${show.pageAddress}${at({ page: filter.page + 1 })}` }),
      },
    },
  })
}

export function renderPeoplePage(page: PeoplePage, assets: SiteAssets): Promise<string> {
  const { show } = page
  const { t } = messagesIn(show.language)
  return render(PeoplePageView, page, assets, {
    language: show.language,
    theme: show.theme,
    title: `${t('people')} · ${show.name}`,
    description: t('peopleAbout', { show: show.name }),
    about: aboutShow(show, '/people'),
  })
}

export async function renderListenPage(page: ListenPage, assets: SiteAssets): Promise<string> {
  const { show } = page
  const about = aboutShow(show, '/listen')
  const { t } = messagesIn(show.language)
  return render(ListenPageView, { ...page, qr: await qrImage(about.address) }, assets, {
    language: show.language,
    theme: show.theme,
    title: `${t('howToListen')} · ${show.name}`,
    description: t('listenAbout', { show: show.name }),
    about,
  })
}

export function renderEpisodePage(page: EpisodePage, assets: SiteAssets): Promise<string> {
  const { show, episode } = page
  return render(EpisodePageView, page, assets, {
    language: show.language,
    theme: show.theme,
    title: `${episode.title} · ${show.name}`,
    description: episode.summary,
    about: {
      ...aboutShow(show),
      address: episode.pageAddress,
      type: 'article',
      ...(episode.sound && embedOf(show, episode.pageAddress)),
      picture: episode.sharePicture,
      data: scriptOf(episodeData(page)),
    },
  })
}

export const renderOwnPage = (page: OwnPage, assets: SiteAssets): Promise<string> =>
  render(OwnPageView, page, assets, {
    language: page.show.language,
    theme: page.show.theme,
    title: `${page.title} · ${page.show.name}`,
    description: cut(plainNotes(page.contentHtml).slice(0, 1200), 300) || page.title,
    about: aboutShow(page.show, `/${page.slug}`),
  })

export const renderCommentPage = (page: CommentPage, assets: SiteAssets): Promise<string> =>
  render(CommentPageView, page, assets, {
    language: page.show.language,
    theme: page.show.theme,
    title: `${page.title} · ${page.show.name}`,
    description: messagesIn(page.show.language).t('commentAbout', { title: page.title }),
  })

/** What is found changes with each word; search engines have no use for it. */
export function renderSearchPage(page: SearchPage, assets: SiteAssets): Promise<string> {
  const { show, words } = page
  const { t } = messagesIn(show.language)
  return render(SearchPageView, page, assets, {
    language: show.language,
    theme: show.theme,
    title: `${words ? t('searchTitle', { words }) : t('searchHeading')} · ${show.name}`,
    description: t('searchAbout', { show: show.name }),
    about: { ...aboutShow(show, '/search'), isAside: true },
  })
}

/** A player for a frame in another site's page. */
export function renderEmbed(page: Embed, assets: SiteAssets): Promise<string> {
  const { show, theme, episodes, isList } = page
  const style = theme.accent ? paletteStyle({ accent: theme.accent, band: theme.accent }) : show.theme.style
  return render(EmbedPageView, page, assets, {
    language: show.language,
    theme: { ...show.theme, style },
    scheme: theme.scheme,
    title: isList || !episodes[0] ? show.name : `${episodes[0].title} · ${show.name}`,
    description: show.description,
  })
}

/** Of an address at which there is nothing, or nothing any more; where it is that of a show, it leads there. */
export function renderMissingPage(assets: SiteAssets, show: MissingPage['show'] = null): Promise<string> {
  const language = show?.language ?? 'en'
  const { t } = messagesIn(language)
  return render(MissingPageView, { show }, assets, {
    language,
    title: [t(show?.isRemoved ? 'removed' : 'missing'), ...(show ? [show.name] : [])].join(' · '),
    description: t(show?.isRemoved ? 'removed' : 'missingWhy'),
  })
}

/** What a script would find its places by, which nothing on these pages does; words of people have no comments. */
const placeMarks = /<!--[[\]]?-->/g
/** That the pages' own words are English (vite.ownWords.ts), which is so only on those that have none in their language; words of people have no attributes but addresses. */
const ownWordsMarks = / lang="en" dir="ltr"/g

/** A whole HTML document; everything in the head goes through `escaped`, the body through Vue. */
async function render(view: Component, props: object, assets: SiteAssets, head: Head): Promise<string> {
  const messages = messagesIn(head.language)
  const app = createSSRApp(view, { ...props }).provide(messagesKey, messages)
  const marked = (await renderToString(app)).replace(placeMarks, '')
  const body = messages.isFallback ? marked : marked.replace(ownWordsMarks, '')
  const classes = head.theme ? ` class="layout-${head.theme.layout} face-${head.theme.face}"` : ''
  return `<!doctype html>
<html lang="${escaped(head.language)}" dir="${writingDirection(head.language)}"${classes}${head.scheme ? ` data-theme="${head.scheme}"` : ''}>
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(head.title)}</title>
<meta name="description" content="${escaped(head.description)}">
${head.about ? aboutElements(head, head.about) : '<meta name="robots" content="noindex">'}
${head.about ? '' : '<link rel="icon" href="/favicon.svg" type="image/svg+xml">'}
<link rel="preload" href="${assets.fonts[head.theme?.face ?? 'literata']}" as="font" type="font/woff2" crossorigin>
${assets.styles.map(style => `<link rel="stylesheet" href="${style}">`).join('\n')}
${head.theme ? `<style>${head.theme.style}</style>` : ''}
<script type="module" src="${assets.script}"></script>
</head>
<body>${body}</body>
</html>`
}

/** Where it is, what it is in a few words and a picture (Open Graph protocol, basic metadata), and its feed. */
function aboutElements(
  { title, description }: Head,
  {
    address,
    type,
    site,
    picture,
    feed,
    data,
    show,
    artwork,
    embed,
    near = {},
    isAside = false,
  }: NonNullable<Head['about']>,
) {
  const icons = { small: artworkAt(artwork, 160), large: artworkAt(artwork, 480) }
  const graph = {
    title,
    type,
    url: address,
    ...(picture !== null && {
      image: picture,
      'image:type': 'image/jpeg',
      'image:width': String(shareWidthPx),
      'image:height': String(shareHeightPx),
      'image:alt': title,
    }),
    description,
    site_name: site,
  }
  return [
    `<link rel="canonical" href="${escaped(address)}">`,
    ...Object.entries(graph).map(([name, value]) => `<meta property="og:${name}" content="${escaped(value)}">`),
    `<link rel="alternate" type="application/rss+xml" title="${escaped(feed.title)}" href="${escaped(feed.address)}">`,
    `<link rel="manifest" href="${escaped(show)}/manifest.webmanifest">`,
    `<link rel="icon" href="${escaped(icons.small)}" type="image/jpeg" sizes="160x160">`,
    `<link rel="apple-touch-icon" href="${escaped(icons.large)}">`,
    // oEmbed 1.0, section 4: discovery.
    ...(embed
      ? [
          `<link rel="alternate" type="application/json+oembed" title="${escaped(title)}" href="${escaped(embed)}&amp;format=json">`,
          `<link rel="alternate" type="text/xml+oembed" title="${escaped(title)}" href="${escaped(embed)}&amp;format=xml">`,
        ]
      : []),
    ...Object.entries(near).map(([rel, href]) => `<link rel="${rel}" href="${escaped(href)}">`),
    ...(isAside ? ['<meta name="robots" content="noindex">'] : []),
    ...(data ? [data] : []),
  ].join('\n')
}

const entities: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }
const escaped = (text: string): string => text.replace(/[&<>"]/g, letter => entities[letter]!)
