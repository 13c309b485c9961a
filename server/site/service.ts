import { withAllFacts } from '@core/feed/facts'
import { filterQuery, readFilter } from '@core/site/filter'
import { mostSearchLetters, readQuery } from '@core/search/query'
import { isSitePlace } from '@core/site/places'
import { cut, oneLine } from '@core/words/line'
import {
  renderEpisodePage,
  renderEpisodesPage,
  renderListenPage,
  renderPeoplePage,
  renderSearchPage,
  renderShowPage,
} from '@site/pages'
import { goesTo, type Outlet, publicOutlet } from '../episodes/audience'
import { Episode } from '../episodes/models'
import { outgoingOf } from '../episodes/outgoing'
import { releasedEpisode } from '../episodes/released'
import { releasedPictures } from '../episodes/pictures'
import { type Written, written } from '../media/written'
import { nosniff } from '../nosniff'
import { writtenPageHeaders } from '../pageHeaders'
import type { Platform } from '../platform'
import { searchService } from '../search/service'
import { Show } from '../shows/models'
import { writtenAnswers } from '../shows/writtenAnswers'
import { releasedWords } from '../transcripts/release'
import { catalogueOf } from './catalogue'
import { publicEpisode, publicShow } from './facts'

/** The public pages of shows and episodes, written once for each change: released episodes only, as they stand in the feed. */
export function siteService(platform: Pick<Platform, 'configuration' | 'events' | 'siteAssets'>) {
  const {
    configuration: { publicUrl },
    siteAssets,
  } = platform

  const outlet = { ...publicOutlet(publicUrl), headers: { ...writtenPageHeaders({ publicUrl }), ...nosniff } }
  return writtenAnswers(platform, async (row, path, lastModified) =>
    // A show that is for its own listeners has no page for everybody.
    withAllFacts(row.feedFacts).isPrivate ? null : writePage(row, path, lastModified, publicUrl, siteAssets, outlet),
  )
}

/** The show of which there was an episode at an address part that has been taken out, page and all; null where there is none such. */
export async function takenOutOf(slug: string, episode: string): Promise<Show | null> {
  const show = await Show.findOne({ where: { slug } })
  if (!show || !episode || withAllFacts(show.feedFacts).isPrivate) return null
  const gone = await Episode.findOne({
    where: { showId: show.id, slug: episode, standing: 'retired', keepsPage: false },
    attributes: ['id', 'released'],
  })
  const isFor = gone && (await goesTo(show.id, 'everybody'))
  return gone && (!isFor || isFor(gone)) ? show : null
}

/** So many stand on the page of a show behind the newest, and on each page of all. */
const onShowPage = 8
const onEachPage = 20

/**
 * What is at a path of a show, with what stands behind its `?`: the show, one of the pages that every show has, or one of its
 * released episodes. Null where there is none.
 */
export async function writePage(
  row: Show,
  path: string,
  lastModified: Date,
  publicUrl: string,
  siteAssets: Platform['siteAssets'],
  outlet: Outlet,
): Promise<{ path: string; answer: Written } | null> {
  const [name = '', query = ''] = path.split('?')
  const what = { row, publicUrl, siteAssets, outlet }
  const page = (await episodePage(what, name)) ?? (await otherPage(what, name, query))
  if (!page) return null
  return {
    path: page.path,
    answer: await written('text/html; charset=utf-8', page.html, lastModified, outlet.headers),
  }
}

interface What {
  row: Show
  publicUrl: string
  siteAssets: Platform['siteAssets']
  outlet: Outlet
}
type Page = { path: string; html: string } | null

/** What is found by words in a show, for one who may hear what an outlet has. */
export async function writeSearch(
  platform: Pick<Platform, 'configuration' | 'database' | 'siteAssets'>,
  row: Show,
  asked: string,
  outlet: Outlet,
): Promise<string> {
  const { publicUrl } = platform.configuration
  const words = oneLine(asked).trim()
  const [show, catalogue, found] = await Promise.all([
    publicShow(row, publicUrl, outlet.base),
    catalogueOf(row, publicUrl, outlet),
    searchService(platform).find(row, readQuery(words)),
  ])
  const lines = new Map(catalogue.entries.map(({ id, line }) => [id, line]))
  const episodes = found.episodes.flatMap(({ id, places }) => {
    const episode = lines.get(id)
    return episode ? [{ episode, places: places.filter(({ kind }) => kind !== 'title') }] : []
  })
  return renderSearchPage(
    {
      show,
      words: cut(words, mostSearchLetters),
      found: episodes,
      hasAllWords: found.hasAllWords,
      isCut: found.isCut,
      isTooLong: words.length > mostSearchLetters,
    },
    platform.siteAssets,
  )
}

async function episodePage({ row, publicUrl, siteAssets, outlet }: What, slug: string): Promise<Page> {
  const episode = slug ? await releasedEpisode(row.id, outlet.audience, slug) : null
  if (!episode) return null
  const [show, catalogue, pictureAddress, said] = await Promise.all([
    publicShow(row, publicUrl, outlet.base),
    catalogueOf(row, publicUrl, outlet),
    releasedPictures([episode], publicUrl),
    releasedWords(episode.id),
  ])
  const told = publicEpisode(outgoingOf(episode, pictureAddress), row, outlet.base, said)
  return {
    path: episode.slug,
    html: await renderEpisodePage({ show, episode: told, ...catalogue.around(episode.id) }, siteAssets),
  }
}

async function otherPage({ row, publicUrl, siteAssets, outlet }: What, name: string, query: string): Promise<Page> {
  if (name !== '' && !isSitePlace(name)) return null
  const [show, catalogue] = await Promise.all([
    publicShow(row, publicUrl, outlet.base),
    catalogueOf(row, publicUrl, outlet),
  ])
  const choices = catalogue.choices()
  switch (name) {
    case 'episodes': {
      const filter = readFilter(query)
      const found = catalogue.filtered(filter)
      const pages = Math.max(1, Math.ceil(found.length / onEachPage))
      if (filter.page > pages || (found.length === 0 && query)) return null
      const episodes = found.slice((filter.page - 1) * onEachPage, filter.page * onEachPage).map(({ line }) => line)
      const html = await renderEpisodesPage({ show, filter, choices, episodes, found: found.length, pages }, siteAssets)
      return { path: `episodes${filterQuery(filter)}`, html }
    }
    case 'people':
      return { path: name, html: await renderPeoplePage({ show, people: catalogue.people(show.people) }, siteAssets) }
    case 'listen':
      return { path: name, html: await renderListenPage({ show, strands: choices.strands }, siteAssets) }
    case 'search':
      return null
    default: {
      const [newest, ...others] = catalogue.entries.map(({ line }) => line)
      const trailer = catalogue.entries.find(({ kind }) => kind === 'trailer')?.line
      const page = {
        show,
        newest: newest ?? null,
        trailer: trailer && trailer !== newest ? trailer : null,
        episodes: others.slice(0, onShowPage),
        choices,
      }
      return { path: '', html: await renderShowPage(page, siteAssets) }
    }
  }
}
