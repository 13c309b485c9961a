import { DateTime } from 'luxon'
import { Op } from 'sequelize'
import type { Calendar, CalendarQuery } from '@contract/calendar'
import { openSlots } from '@core/release/slots'
import { Membership } from '../../people/access/models'
import type { Clock } from '../../platform/clock'
import { Episode } from '../../show/episodes/models'
import { withFiles } from '../../show/episodes/roles'
import { arrivingTo } from '../../show/episodes/lists'
import { summaryOf } from '../../show/episodes/views'
import { Show } from '../../show/shows/models'

const mostEpisodes = 2_000
const mostSlots = 100
/** Days are days of each show's own zone, which can be almost a day from UTC. */
const zoneMs = 24 * 3600_000

/** What goes out and went out in some of an account's shows over some days; shows that it may not see are left out. */
export async function calendarOf(accountId: string, query: CalendarQuery, clock: Clock): Promise<Calendar> {
  const members = await Membership.findAll({ where: { accountId, showId: query.shows }, attributes: ['showId'] })
  const shows = await Show.findAll({
    where: { id: members.map(({ showId }) => showId) },
    attributes: ['id', 'slug', 'name', 'zone', 'rhythm'],
    order: [['name', 'ASC']],
  })
  const [from, to] = [+new Date(query.from), +new Date(query.to) + zoneMs]
  const rows = await Episode.findAll({
    where: {
      showId: shows.map(({ id }) => id),
      deletedAt: null,
      status: ['scheduled', 'released'],
      releaseAt: { [Op.between]: [new Date(from - zoneMs), new Date(to + zoneMs)] },
    },
    include: withFiles('durationMs', 'type', 'reachable'),
    order: [['releaseAt', 'ASC']],
  })
  const next = shows.length > 0 ? await nextAfter(query.to, shows) : null
  const arriving = await arrivingTo(next ? [...rows, next] : rows)
  const told = (row: Episode) => ({ ...summaryOf(row, arriving.get(row.id) ?? null), showId: row.showId })
  const within = (at: Date, zone: string): boolean => {
    const day = DateTime.fromJSDate(at, { zone }).toISODate()!
    return day >= query.from && day <= query.to
  }
  const zones = new Map(shows.map(({ id, zone }) => [id, zone]))
  const episodes = rows.filter(({ showId, releaseAt }) => within(releaseAt!, zones.get(showId)!)).slice(0, mostEpisodes)
  const now = clock.now()
  const slots = shows.flatMap(({ id, rhythm, zone }) => {
    if (!rhythm) return []
    const taken = rows.filter(({ showId }) => showId === id).map(({ releaseAt }) => releaseAt!)
    const after = new Date(Math.max(+now, from - zoneMs))
    return openSlots(rhythm, zone, taken, after, mostSlots)
      .filter(({ at }) => within(at, zone))
      .map(({ at, local }) => ({ showId: id, at: at.toISOString(), local }))
  })
  return {
    shows: shows.map(({ id, slug, name, zone }) => ({ id, slug, name, zone })),
    episodes: episodes.map(told),
    slots,
    next: next && told(next),
  }
}

/** What goes out first after a day, which is one of each show's own zone. */
const nextAfter = (day: string, shows: readonly Show[]): Promise<Episode | null> =>
  Episode.findOne({
    where: {
      deletedAt: null,
      status: 'scheduled',
      [Op.or]: shows.map(({ id, zone }) => ({
        showId: id,
        releaseAt: { [Op.gte]: DateTime.fromISO(day, { zone }).plus({ days: 1 }).toJSDate() },
      })),
    },
    include: withFiles('durationMs', 'type', 'reachable'),
    order: [['releaseAt', 'ASC']],
  })
