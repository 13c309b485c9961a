import {
  renderEmbed,
  renderEpisodePage,
  renderEpisodesPage,
  renderListenPage,
  renderOwnPage,
  renderPeoplePage,
  renderShowPage,
} from '@site/pages'
import type { ShownComment } from '@site/facts'
import { embedQuery, readEmbedTheme } from '@core/site/embed'
import type { BlockKind } from '@core/site/siteTheme'
import { filterQuery, readFilter } from '@core/site/filter'
import type { Comment } from '../comments/models'
import { newestComments, shownComments } from '../comments/service'
import type { Outlet } from '../../show/episodes/audience'
import { outgoingOf } from '../../show/episodes/outgoing'
import { releasedPictures } from '../../show/episodes/pictures'
import { releasedEpisode } from '../../show/episodes/released'
import type { Show } from '../../show/shows/models'
import { OwnPage, written } from '../../show/shows/ownPages'
import { releasedWords } from '../../words/transcripts/release'
import { type Catalogue, catalogueOf } from './catalogue'
import { manifest, robotsOf, sitemap } from './documents'
import { publicEpisode, publicShow } from './facts'
import type { Page, SitePlatform } from './page'

/** So many stand on the page of a show behind the newest, on each page of all, and in a frame in another's page. */
const onShowPage = 8
const onEachPage = 20
const inFrame = 30

/** What is at a path of a show, with what stands behind its `?`; null where there is nothing. */
export async function pageAt(platform: SitePlatform, row: Show, path: string, outlet: Outlet): Promise<Page | null> {
  const [name = '', query = ''] = path.split('?')
  const what = { platform, row, outlet, query }
  const [, framed] = /^(?:(.+)\/)?embed$/.exec(name) ?? []
  if (name === 'embed' || framed !== undefined) return embed(what, framed ?? null)
  return (await episodePage(what, name)) ?? (await otherPage(what, name))
}

interface What {
  platform: SitePlatform
  row: Show
  outlet: Outlet
  query: string
}

const tellShow = ({ platform, row, outlet }: What) =>
  Promise.all([publicShow(platform, row, outlet.base), catalogueOf(row, platform.configuration.publicUrl, outlet)])

async function episodePage(what: What, slug: string): Promise<Page | null> {
  const { platform, row, outlet } = what
  const episode = slug ? await releasedEpisode(row.id, outlet.audience, slug) : null
  if (!episode) return null
  const [[show, catalogue], pictureAddress, said] = await Promise.all([
    tellShow(what),
    releasedPictures([episode], platform.configuration.publicUrl),
    releasedWords([episode.id]),
  ])
  const told = publicEpisode(outgoingOf(episode, pictureAddress), row, outlet.base, said.get(episode.id))
  const comments = (await shownComments(episode.id)).map(each => commentOf(each))
  const page = { show, episode: told, ...catalogue.around(episode.id), comments }
  return {
    path: episode.slug,
    body: await renderEpisodePage(page, platform.siteAssets),
    frames: told.film?.isShown ? new URL(told.film.address).origin : undefined,
  }
}

async function otherPage(what: What, name: string): Promise<Page | null> {
  const { siteAssets } = what.platform
  switch (name) {
    case 'episodes':
      return episodesPage(what)
    case 'people': {
      const [show, catalogue] = await tellShow(what)
      return { path: name, body: await renderPeoplePage({ show, people: catalogue.people(show.people) }, siteAssets) }
    }
    case 'listen': {
      const [show, catalogue] = await tellShow(what)
      return {
        path: name,
        body: await renderListenPage({ show, strands: catalogue.choices().strands }, siteAssets),
      }
    }
    case 'sitemap.xml':
      return sitemap(...(await tellShow(what)), what.row)
    case 'robots.txt':
      return robotsOf((await tellShow(what))[0])
    case 'manifest.webmanifest':
      return manifest((await tellShow(what))[0])
    case '':
      return showPage(what)
    default:
      return ownPage(what, name)
  }
}

async function ownPage(what: What, slug: string): Promise<Page | null> {
  const page = await OwnPage.findOne({ where: { showId: what.row.id, slug, ...written } })
  if (!page) return null
  const show = await publicShow(what.platform, what.row, what.outlet.base)
  const { title, content } = page
  return {
    path: slug,
    body: await renderOwnPage({ show, title, contentHtml: content, slug }, what.platform.siteAssets),
  }
}

async function showPage(what: What): Promise<Page> {
  const [show, catalogue] = await tellShow(what)
  const [newest, ...others] = catalogue.entries.map(({ line }) => line)
  const trailer = catalogue.entries.find(({ kind }) => kind === 'trailer')?.line
  const page = {
    show,
    newest: newest ?? null,
    trailer: trailer && trailer !== newest ? trailer : null,
    episodes: others.slice(0, onShowPage),
    choices: catalogue.choices(),
    people: catalogue.people(show.people).slice(0, onShowPage),
    comments: await lastWritten(what.row.id, catalogue, show.theme.blocks),
  }
  return { path: '', body: await renderShowPage(page, what.platform.siteAssets) }
}

const commentOf = ({ name, words, answer, cameAt }: Pick<Comment, 'name' | 'words' | 'answer' | 'cameAt'>) => ({
  name,
  words,
  answer,
  cameAt: cameAt.toISOString(),
})

/** What was written last to episodes that are out, where the page shows it. */
async function lastWritten(
  showId: string,
  { entries }: Catalogue,
  blocks: readonly BlockKind[],
): Promise<ShownComment[]> {
  if (!blocks.includes('comments')) return []
  const lines = new Map(entries.map(({ id, line }) => [id, line]))
  return (await newestComments(showId, onShowPage)).flatMap(comment => {
    const episode = lines.get(comment.episodeId)
    return episode ? [{ ...commentOf(comment), episode }] : []
  })
}

async function episodesPage(what: What): Promise<Page | null> {
  const filter = readFilter(what.query)
  const [show, catalogue] = await tellShow(what)
  const found = catalogue.filtered(filter)
  const pages = Math.max(1, Math.ceil(found.length / onEachPage))
  const path = `episodes${filterQuery(filter)}`
  if (filter.page > pages || (found.length === 0 && path !== 'episodes')) return null
  const episodes = found.slice((filter.page - 1) * onEachPage, filter.page * onEachPage).map(({ line }) => line)
  const page = { show, filter, choices: catalogue.choices(), episodes, found: found.length, pages }
  return { path, body: await renderEpisodesPage(page, what.platform.siteAssets) }
}

/** A player in another site's page: of one episode, or of the newest. */
async function embed(what: What, slug: string | null): Promise<Page | null> {
  const theme = readEmbedTheme(what.query)
  const [show, { entries }] = await tellShow(what)
  const chosen = slug === null ? entries.slice(0, inFrame) : entries.filter(entry => entry.slug === slug)
  if (slug !== null && chosen.length === 0) return null
  const isList = slug === null
  const page = {
    show,
    episodes: chosen.map(({ line }) => line),
    isList,
    chapters: isList ? [] : chosen[0]!.chapters,
    theme,
  }
  return {
    path: `${slug === null ? '' : `${slug}/`}embed${embedQuery(theme)}`,
    body: await renderEmbed(page, what.platform.siteAssets),
    isFramed: true,
  }
}
