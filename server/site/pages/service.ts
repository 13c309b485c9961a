import { goesTo, type Outlet, publicOutlet } from '../../show/episodes/audience'
import { Episode } from '../../show/episodes/models'
import { type Written, written } from '../../platform/storage/written'
import { nosniff } from '../../platform/http/nosniff'
import { framedAnywhere, withFrameOf, writtenPageHeaders } from '../../platform/http/pageHeaders'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { writtenAnswers } from '../../show/shows/writtenAnswers'
import { htmlType, type SitePlatform } from './page'
import { pageAt } from './pages'

/** The public pages of shows and episodes, written once for each change: released episodes only, as they stand in the feed. */
export function siteService(platform: SitePlatform & Pick<Platform, 'events'>) {
  const { publicUrl } = platform.configuration
  const outlet = { ...publicOutlet(publicUrl), headers: { ...writtenPageHeaders({ publicUrl }), ...nosniff } }
  return writtenAnswers(platform, async (row, path, lastModified) =>
    // A show that is for its own listeners has no page for everybody.
    row.isPrivate ? null : writePage(platform, row, path, lastModified, outlet),
  )
}

/** Whether a show had an episode at an address part that has been taken out, page and all. */
export async function isTakenOut(show: Show, episode: string): Promise<boolean> {
  const gone = await Episode.findOne({
    where: { showId: show.id, slug: episode, status: 'retired', keepsPage: false },
    attributes: ['id', 'released'],
  })
  const isFor = gone && (await goesTo(show.id, 'everybody'))
  return gone !== null && (!isFor || isFor(gone))
}

/** What is at a path of a show, as it is sent; null where there is nothing. */
export async function writePage(
  platform: SitePlatform,
  row: Show,
  path: string,
  lastModified: Date,
  outlet: Outlet,
): Promise<{ path: string; answer: Written } | null> {
  const page = await pageAt(platform, row, path, outlet)
  if (!page) return null
  const { type = htmlType, isFramed = false, frames } = page
  const own = isFramed ? framedAnywhere(outlet.headers) : outlet.headers
  const headers = frames ? withFrameOf(frames, own) : own
  return { path: page.path, answer: await written(type, page.body, lastModified, headers) }
}
