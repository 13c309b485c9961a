import { renderToString } from '@vue/server-renderer'
import { type Component, createSSRApp } from 'vue'
import type { Chapter } from '@core/episode/fields'
import type { ToldPerson } from '@core/feed/model'
import { writingDirection } from '@core/words/writingDirection'
import EpisodePageView from './EpisodePage.vue'
import MissingPageView from './MissingPage.vue'
import ShowPageView from './ShowPage.vue'

/** Addresses of what a page loads in the browser. */
export interface SiteAssets {
  /** Null where no script is to run. */
  script: string | null
  styles: readonly string[]
}

export interface PublicShow {
  name: string
  description: string
  author: string
  language: string
  zone: string
  artworkAddress: string
  pageAddress: string
  feedAddress: string
  /** Where else it is listed. */
  subscribe: readonly { name: string; address: string }[]
}

export interface PublicEpisode {
  title: string
  number: number | null
  /** One line; empty where there is none. */
  hook: string
  /** Clean HTML. */
  notesHtml: string
  /** The hook, or the beginning of the notes as plain text. */
  summary: string
  tags: readonly string[]
  people: readonly ToldPerson[]
  /** Those that are listed, by the clock of its sound. */
  chapters: readonly (Pick<Chapter, 'fromMs' | 'title' | 'address'> & { pictureAddress: string | null })[]
  /** Stretches to be heard before and passed on, by the clock of its sound; each as a file of its own, where there is one. */
  soundbites: readonly { fromMs: number; toMs: number; title: string; address: string | null }[]
  /** A picture of its own; null where the show's is used, as for author. */
  /** What is said, in the language that is spoken, by the clock of its sound. */
  said: readonly SaidCue[]
  /** In which languages else, and as which files it is there. */
  transcriptFiles: readonly { address: string; language: string; format: string }[]
  artworkAddress: string | null
  author: string | null
  /** A page about it elsewhere, and where it is talked about. */
  page: string | null
  discussion: string | null
  isPromotion: boolean
  isExplicit: boolean
  licence: string | null
  place: string | null
  pageAddress: string
  /** Null in a look before the release, where there is none yet; as for the moment. */
  sound: { address: string; type: string; bytes: number; durationMs: number } | null
  /** ISO 8601, UTC. */
  releasedAt: string | null
}

export interface SaidCue {
  fromMs: number | null
  speaker: string | null
  text: string
}

export interface ShowPage {
  show: PublicShow
  episodes: readonly PublicEpisode[]
}
export interface EpisodePage {
  show: PublicShow
  episode: PublicEpisode
}

interface Head {
  language: string
  title: string
  description: string
  picture?: string
  feed?: { title: string; address: string }
}

export function renderShowPage(page: ShowPage, assets: SiteAssets): Promise<string> {
  const { name, description, language, artworkAddress, feedAddress } = page.show
  return render(ShowPageView, page, assets, {
    language,
    title: name,
    description,
    picture: artworkAddress,
    feed: { title: name, address: feedAddress },
  })
}

export function renderEpisodePage(page: EpisodePage, assets: SiteAssets): Promise<string> {
  const { show, episode } = page
  return render(EpisodePageView, page, assets, {
    language: show.language,
    title: `${episode.title} · ${show.name}`,
    description: episode.summary,
    picture: episode.artworkAddress ?? show.artworkAddress,
    feed: { title: show.name, address: show.feedAddress },
  })
}

export function renderMissingPage(assets: SiteAssets): Promise<string> {
  return render(MissingPageView, {}, assets, {
    language: 'en',
    title: 'Nothing here',
    description: 'There is no page at this address.',
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
<meta property="og:title" content="${escaped(head.title)}">
<meta property="og:description" content="${escaped(head.description)}">
${head.picture ? `<meta property="og:image" content="${escaped(head.picture)}">` : ''}
${head.feed ? `<link rel="alternate" type="application/rss+xml" title="${escaped(head.feed.title)}" href="${escaped(head.feed.address)}">` : ''}
<link rel="icon" href="/favicon.svg" type="image/svg+xml">
${assets.styles.map(style => `<link rel="stylesheet" href="${style}">`).join('\n')}
${assets.script ? `<script type="module" src="${assets.script}"></script>` : ''}
</head>
<body>${body}</body>
</html>`
}

const entities: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }
const escaped = (text: string): string => text.replace(/[&<>"]/g, letter => entities[letter]!)
