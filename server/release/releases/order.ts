import type { OrderFindings } from '@contract/order'
import { orderFindings } from '@core/release/order'
import type { Scope } from '../../people/access/scope'
import { Episode } from '../../show/episodes/models'

const mostFindings = 20
const mostNamed = 6

/** What stands out of order among a show's episodes that are out or to come. */
export async function orderOf({ showId }: Scope): Promise<OrderFindings> {
  const rows = await Episode.findAll({
    where: { showId, deletedAt: null, status: ['scheduled', 'released'] },
    attributes: ['id', 'title', 'number', 'season', 'kind', 'releaseAt'],
    raw: true,
  })
  const { total, findings } = orderFindings(
    rows.map(({ id, title, number, season, kind, releaseAt }) => ({ id, title, number, season, kind, at: releaseAt! })),
    mostFindings,
  )
  return {
    total,
    findings: findings.map(({ kind, episodes, fix }) => ({
      kind,
      episodes: episodes
        .slice(0, mostNamed)
        .map(({ id, title, number, at }) => ({ id, title, number, at: at.toISOString() })),
      count: episodes.length,
      fix: fix.map(({ id }) => id),
    })),
  }
}
