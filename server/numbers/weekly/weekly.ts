import { DateTime } from 'luxon'
import { QueryTypes, type Transaction } from 'sequelize'
import { isComplete } from '@core/counting/count'
import { weekMail } from '@core/counting/weekMail'
import { transact } from '../../platform/database/transact'
import type { Platform } from '../../platform/platform'
import { repeat, type Repeated } from '../../platform/repeat'
import { tellWeek } from '../../release/mail/tell'
import { allEpisodes, dimensionNumber } from '../counting/sums'
import { ageNumbers } from '../figures/ages'

const everyMs = 60_000
/** By the clock of the show, on Monday. */
const hourOfMail = 7
const mostListed = 3

interface Due {
  id: string
  name: string
  slug: string
}

/** Writes what the week before came to, on Monday morning, once: of shows that had downloads in it, when it is complete. */
export function weeklyNumbers(platform: Pick<Platform, 'database' | 'clock' | 'configuration' | 'jobs'>) {
  const { database, clock, configuration } = platform

  /** The week of which everybody was told, so that it is not asked again. */
  let toldOf: string | null = null

  /** Whether it is time in a zone. */
  const isTime = (zone: string, monday: DateTime): boolean =>
    DateTime.fromISO(monday.toISODate()!, { zone }).set({ hour: hourOfMail }).toJSDate() <= clock.now()

  async function tell({ id, name, slug }: Due, monday: DateTime, transaction: Transaction): Promise<void> {
    if (!(await claim(id, monday, transaction))) return
    const [from, to] = [monday.minus({ weeks: 1 }), monday.minus({ days: 1 })]
    const [downloads, before, episodes, newest] = await Promise.all([
      total(id, from, to),
      total(id, from.minus({ weeks: 1 }), to.minus({ weeks: 1 })),
      mostFetched(id, from, to),
      ageNumbers(platform, id, null),
    ])
    if (downloads === 0) return
    const address = `${configuration.publicUrl}/studio/${slug}/numbers`
    const mail = weekMail({
      name,
      from: from.toJSDate(),
      to: to.toJSDate(),
      downloads,
      before,
      episodes,
      newest,
      address,
    })
    await tellWeek(platform, { showId: id, mail }, transaction)
  }

  /** Whether it is told now; not where another process has done so meanwhile. */
  async function claim(showId: string, monday: DateTime, transaction: Transaction): Promise<boolean> {
    const replacements = { showId, week: monday.toISODate() }
    await database.query("INSERT IGNORE INTO weekly_told (show_id, week) VALUES (:showId, '1970-01-01')", {
      replacements,
      transaction,
    })
    const [open] = await database.query(
      'SELECT show_id FROM weekly_told WHERE show_id = :showId AND week < :week FOR UPDATE',
      { replacements, type: QueryTypes.SELECT, transaction },
    )
    if (!open) return false
    await database.query('UPDATE weekly_told SET week = :week WHERE show_id = :showId', { replacements, transaction })
    return true
  }

  async function total(showId: string, from: DateTime, to: DateTime): Promise<number> {
    const [row] = await database.query<{ total: string | number | null }>(
      `SELECT SUM(downloads) AS total FROM download_sums WHERE show_id = :showId AND dimension = :number
        AND episode_id = '${allEpisodes}' AND day BETWEEN :from AND :to`,
      {
        replacements: { showId, number: dimensionNumber('day'), from: from.toISODate(), to: to.toISODate() },
        type: QueryTypes.SELECT,
      },
    )
    return Number(row?.total ?? 0)
  }

  async function mostFetched(
    showId: string,
    from: DateTime,
    to: DateTime,
  ): Promise<{ title: string; downloads: number }[]> {
    const rows = await database.query<{ title: string; downloads: string | number }>(
      `SELECT e.title, SUM(s.downloads) AS downloads FROM episodes e JOIN download_sums s ON s.show_id = e.show_id
          AND s.dimension = :number AND s.episode_id = e.id AND s.day BETWEEN :from AND :to
        WHERE e.show_id = :showId AND e.release_at IS NOT NULL GROUP BY e.id HAVING downloads > 0
        ORDER BY downloads DESC, e.id LIMIT ${mostListed}`,
      {
        replacements: { showId, number: dimensionNumber('day'), from: from.toISODate(), to: to.toISODate() },
        type: QueryTypes.SELECT,
      },
    )
    return rows.map(({ title, downloads }) => ({ title, downloads: Number(downloads) }))
  }

  return {
    async tellAll(goesOn: () => boolean = () => true): Promise<void> {
      if (!configuration.smtpUrl) return
      const monday = DateTime.fromJSDate(clock.now(), { zone: 'utc' }).startOf('week')
      const week = monday.toISODate()!
      if (toldOf === week) return
      const [counting] = await database.query<{ countedAt: Date | null }>(
        'SELECT counted_at AS countedAt FROM counting WHERE id = 1',
        { type: QueryTypes.SELECT },
      )
      if (!counting?.countedAt || !isComplete(monday.minus({ days: 1 }).toISODate()!, counting.countedAt)) return
      const zones = await database.query<{ zone: string }>('SELECT DISTINCT zone FROM shows', {
        type: QueryTypes.SELECT,
      })
      const now = zones.map(({ zone }) => zone).filter(zone => isTime(zone, monday))
      if (now.length === 0) return
      const due = await database.query<Due>(
        `SELECT s.id, s.name, s.slug FROM shows s LEFT JOIN weekly_told w ON w.show_id = s.id
          WHERE s.zone IN (:now) AND (w.week IS NULL OR w.week < :week)`,
        { replacements: { now, week }, type: QueryTypes.SELECT },
      )
      const failures: unknown[] = []
      for (const show of due) {
        if (!goesOn()) return
        await transact(database, transaction => tell(show, monday, transaction)).catch(error => failures.push(error))
      }
      // One that cannot be told holds up no other.
      if (failures.length > 0) throw failures[0]
      if (now.length === zones.length) toldOf = week
    },
  }
}

/** Looks each minute whether it is time. */
export function startWeekly(platform: Platform, report: (error: unknown) => void): Repeated {
  const { tellAll } = weeklyNumbers(platform)
  return repeat(everyMs, tellAll, report)
}
