import { withAllFacts } from '@core/feed/facts'
import { renderEpisodePage, renderShowPage } from '@site/pages'
import { goesTo, type Outlet, publicOutlet } from '../episodes/audience'
import { Episode } from '../episodes/models'
import { outgoingOf } from '../episodes/outgoing'
import { releasedEpisodes } from '../episodes/released'
import { releasedPictures } from '../episodes/pictures'
import { type Written, written } from '../media/written'
import { nosniff } from '../nosniff'
import { writtenPageHeaders } from '../pageHeaders'
import type { Platform } from '../platform'
import { Show } from '../shows/models'
import { writtenAnswers } from '../shows/writtenAnswers'
import { releasedWords } from '../transcripts/release'
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

/** The page of a show, or of one of its released episodes by the address part of that; null where there is none. */
export async function writePage(
  row: Show,
  path: string,
  lastModified: Date,
  publicUrl: string,
  siteAssets: Platform['siteAssets'],
  { audience, base, headers }: Outlet,
): Promise<{ path: string; answer: Written } | null> {
  const [show, episodes] = await Promise.all([
    publicShow(row, publicUrl, base),
    releasedEpisodes(row.id, audience, { slug: path || undefined }),
  ])
  const pictureAddress = await releasedPictures(episodes, publicUrl)
  const said = path && episodes[0] ? await releasedWords(episodes[0].id) : []
  const facts = episodes.map(episode => publicEpisode(outgoingOf(episode, pictureAddress), row, base, said))
  if (path && !facts[0]) return null
  const html = path
    ? await renderEpisodePage({ show, episode: facts[0]! }, siteAssets)
    : await renderShowPage({ show, episodes: facts }, siteAssets)
  const answer = await written('text/html; charset=utf-8', html, lastModified, headers)
  return { path: path && episodes[0]!.slug!, answer }
}
