import { performance } from 'node:perf_hooks'
import { setTimeout as wait } from 'node:timers/promises'
import { QueryTypes, type Sequelize } from 'sequelize'
import type { Rhythm } from '@core/release/rhythm'
import { slotsAfter } from '@core/release/slots'
import { MovableClock, systemClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import { openPlatform } from '@server/app/openPlatform'
import { dueReleases } from '@server/release/releases/due'
import { seed } from '@server/testing/seed'
import { median } from './median'
import { signIn, startServer, stopServer } from './server'

/** A full house, in which so many of the episodes are due at once. */
const size = { shows: Number(process.env.SHOWS || 5_000), episodesPerShow: Number(process.env.EPISODES || 200) }
const due = Number(process.env.DUE || 10_000)
const ports = [4396, 4397]
const yearOf = { shows: Number(process.env.YEAR_SHOWS || 1_000), weeks: 52 }

/** Many releases at one moment, and a year of weekly ones; what others notice of it meanwhile. */
export async function benchReleases(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  await simulateYear()
  await benchAtOnce(platform.database)
  await platform.deliveries.stop()
  await platform.events.stop()
  await platform.database.close()
}

async function benchAtOnce(database: Sequelize): Promise<void> {
  await clear(database)
  await seed(database, 'bellows-and-reeds', size)
  const perShow = Math.max(1, Math.ceil(due / size.shows))
  await database.query(
    `CREATE TABLE due_ids AS SELECT e.id FROM episodes e JOIN shows s ON s.id = e.show_id AND s.slug LIKE 'seed-%'
      WHERE e.number <= ${perShow} ORDER BY e.number LIMIT ${due}`,
  )
  await database.query('ALTER TABLE due_ids ADD PRIMARY KEY (id)')
  const chosen = 'id IN (SELECT id FROM due_ids)'
  await database.query("DELETE u FROM episode_files u JOIN due_ids d ON d.id = u.episode_id WHERE u.role = 'released'")
  await database.query(
    `UPDATE episodes SET status = 'draft', recipe = NULL, finishing = 'none', slug = NULL, released = NULL WHERE ${chosen}`,
  )
  const plainMs = await plainUpdates(database, chosen, due)
  const servers = await Promise.all(ports.map(port => startServer(port)))
  const base = `http://127.0.0.1:${ports[0]}`
  const noticed = { feed: [] as number[], 'sign-in': [] as number[] }
  let isOver = false
  const watching = watchAll(base, noticed, () => isOver)
  const moment = new Date(Date.now() + 3_000)
  await database.query(
    `UPDATE episodes SET status = 'scheduled', release_zone = 'UTC', release_at = ? WHERE ${chosen}`,
    { replacements: [moment] },
  )
  await wait(Math.max(0, +moment - Date.now()))
  const began = performance.now()
  const left = async (): Promise<number> => {
    const [row] = await database.query<{ count: number | bigint }>(
      `SELECT COUNT(*) AS count FROM episodes WHERE status = 'scheduled' AND ${chosen}`,
      { type: QueryTypes.SELECT },
    )
    return Number(row!.count)
  }
  let firstMs: number | null = null
  for (let still = await left(); still > 0; still = await left()) {
    if (still < due) firstMs ??= performance.now() - began
    await wait(100)
  }
  firstMs ??= performance.now() - began
  const tookMs = performance.now() - began
  isOver = true
  await watching
  await Promise.all(servers.map(stopServer))
  console.log(
    `${due} episodes due at once in a house of ${size.shows} shows of ${size.episodesPerShow}, two processes: the first out after ${(firstMs / 1000).toFixed(1)} s, all out after ${(tookMs / 1000).toFixed(1)} s; against plain updates of one row each: ${(tookMs / plainMs).toFixed(1)} (${(plainMs / 1000).toFixed(1)} s)`,
  )
  for (const [what, taken] of Object.entries(noticed))
    console.log(
      `meanwhile a ${what} took ${median(taken).toFixed(0)} ms at the median, ${Math.max(...taken).toFixed(0)} ms at most (${taken.length} times)`,
    )
}

/** The reference: the same number of rows, each updated and committed by itself, over one connection. */
async function plainUpdates(database: Sequelize, which: string, total: number): Promise<number> {
  await database.query('CREATE TABLE plain_rows LIKE episodes')
  await database.query(`INSERT INTO plain_rows (id, show_id, guid, title, notes, status, release_at, created_at, updated_at)
    SELECT id, show_id, guid, title, notes, status, release_at, created_at, updated_at FROM episodes WHERE ${which} LIMIT ${total}`)
  const ids = await database.query<{ id: string }>('SELECT id FROM plain_rows', { type: QueryTypes.SELECT })
  const began = performance.now()
  for (const { id } of ids)
    await database.query("UPDATE plain_rows SET status = 'released', version = version + 1 WHERE id = ?", {
      replacements: [id],
    })
  const took = performance.now() - began
  await database.query('DROP TABLE plain_rows')
  return took
}

/** Asks for somebody's feed and signs in, some times a second. */
async function watchAll(base: string, noticed: Record<string, number[]>, isOver: () => boolean): Promise<void> {
  const timed = async (what: string, ask: () => Promise<Response>): Promise<void> => {
    const began = performance.now()
    const answer = await ask()
    await answer.arrayBuffer()
    if (!answer.ok) throw new Error(`${what} answered with ${answer.status}.`)
    noticed[what]!.push(performance.now() - began)
  }
  while (!isOver()) {
    await timed('feed', () => fetch(`${base}/bellows-and-reeds/feed.xml`))
    await timed('sign-in', () => signIn(base))
    await wait(100)
  }
}

const zones = ['Europe/Zurich', 'America/New_York', 'Pacific/Auckland', 'Asia/Kathmandu', 'America/Santiago', 'UTC']
const days = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const
const times = ['00:05', '01:00', '05:30', '06:00', '07:00', '12:00']
/** The release clock looks twice a second. */
const lookMs = 500

/** Takes away what an earlier part has made, and what would go out meanwhile. */
async function clear(database: Sequelize): Promise<void> {
  const seeded = "show_id IN (SELECT id FROM shows WHERE slug LIKE 'seed-%')"
  for (const table of ['episodes', 'memberships', 'files']) await database.query(`DELETE FROM ${table} WHERE ${seeded}`)
  await database.query('DELETE FROM notices')
  await database.query("UPDATE episodes SET status = 'draft' WHERE status = 'scheduled'")
  await database.query("DELETE FROM shows WHERE slug LIKE 'seed-%'")
}

/** A thousand shows that each go out weekly for a year: the clock stands where the next look after each moment would be. */
async function simulateYear(): Promise<void> {
  const begin = new Date('2027-01-01T00:00:00Z')
  const clock = new MovableClock(begin)
  const platform = await openPlatform(readConfiguration(process.env), clock)
  const { database } = platform
  await clear(database)
  await seed(database, 'bellows-and-reeds', { shows: yearOf.shows, episodesPerShow: yearOf.weeks })
  const rows = await database.query<{ id: string; showId: string }>(
    "SELECT e.id, e.show_id AS showId FROM episodes e JOIN shows s ON s.id = e.show_id WHERE s.slug LIKE 'seed-%' ORDER BY s.id, e.number",
    { type: QueryTypes.SELECT },
  )
  const planned = new Map<string, Date>()
  const byShow = groupedBy(rows, ({ showId }) => showId)
  let nth = 0
  for (const episodes of byShow.values()) {
    const rhythm: Rhythm = {
      unit: 'week',
      every: 1,
      days: [days[nth % days.length]!],
      nth: null,
      monthDay: null,
      time: times[Math.floor(nth / 7) % times.length]!,
      from: '2027-01-01',
      leftOut: [],
    }
    const slots = slotsAfter(rhythm, zones[nth % zones.length]!, begin, episodes.length)
    for (const [at, { id }] of episodes.entries()) planned.set(id, slots[at]!.at)
    nth++
  }
  await database.query(
    "DELETE u FROM episode_files u JOIN episodes e ON e.id = u.episode_id JOIN shows s ON s.id = e.show_id WHERE u.role = 'released' AND s.slug LIKE 'seed-%'",
  )
  const entries = [...planned]
  for (let from = 0; from < entries.length; from += 1_000) {
    const some = entries.slice(from, from + 1_000)
    const cases = some.map(() => 'WHEN ? THEN ?').join(' ')
    await database.query(
      `UPDATE episodes SET status = 'scheduled', recipe = NULL, finishing = 'none', slug = NULL, released = NULL, release_at = CASE id ${cases} END WHERE id IN (${some.map(() => '?').join(', ')})`,
      { replacements: [...some.flat(), ...some.map(([id]) => id)] },
    )
  }
  const { releaseDue } = dueReleases(platform)
  const moments = groupedBy(entries, ([, at]) => +at)
  const late: number[] = []
  let released = 0
  const began = performance.now()
  for (const moment of [...moments.keys()].sort((one, other) => one - other)) {
    const phase = Math.random() * lookMs
    clock.moveTo(new Date(moment + phase))
    const at = performance.now()
    for (let count = await releaseDue(); count > 0; count = await releaseDue()) {
      released += count
      for (let each = 0; each < count; each++) late.push(phase + performance.now() - at)
    }
  }
  const sorted = late.toSorted((one, other) => one - other)
  const share = (of: number): string => sorted[Math.ceil(sorted.length * of) - 1]!.toFixed(0)
  console.log(
    `a year of ${yearOf.shows} weekly shows, ${released} of ${entries.length} releases at ${moments.size} moments in ${((performance.now() - began) / 1000).toFixed(0)} s: late by ${share(0.5)} ms at the median, ${share(0.95)} at 95 %, ${share(0.99)} at 99 %, ${share(1)} at most`,
  )
  await platform.deliveries.stop()
  await platform.events.stop()
  await database.close()
}

function groupedBy<Key, Entry>(entries: readonly Entry[], keyOf: (entry: Entry) => Key): Map<Key, Entry[]> {
  const groups = new Map<Key, Entry[]>()
  for (const entry of entries) {
    const group = groups.get(keyOf(entry))
    if (group) group.push(entry)
    else groups.set(keyOf(entry), [entry])
  }
  return groups
}
