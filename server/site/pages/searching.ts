import { renderSearchPage } from '@site/pages'
import { mostSearchLetters, readQuery } from '@core/search/query'
import { cut, oneLine } from '@core/words/line'
import type { Outlet } from '../../show/episodes/audience'
import { searchService } from '../../words/search/service'
import type { Show } from '../../show/shows/models'
import { catalogueOf } from './catalogue'
import { publicShow } from './facts'
import type { SitePlatform } from './page'

/** What is found by words in a show, for one who may hear what an outlet has. */
export async function writeSearch(platform: SitePlatform, row: Show, asked: string, outlet: Outlet): Promise<string> {
  const words = oneLine(asked).trim()
  const finding = async () => {
    const catalogue = await catalogueOf(row, platform.configuration.publicUrl, outlet)
    const ids = catalogue.entries.map(({ id }) => id)
    return { catalogue, found: await searchService(platform).find(row, ids, readQuery(words)) }
  }
  const [show, { catalogue, found }] = await Promise.all([publicShow(platform, row, outlet.base), finding()])
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
