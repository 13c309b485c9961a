import { performance } from 'node:perf_hooks'
import { QueryTypes, type Sequelize } from 'sequelize'
import { dimensions } from '@core/counting/dimensions'
import { openPlatform } from '@server/app/openPlatform'
import type { Platform } from '@server/platform/platform'
import { systemClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import { keepMonths } from '@server/platform/database/months'
import { counter } from '@server/numbers/counting/counter'
import { allEpisodes, dimensionNumber } from '@server/numbers/counting/sums'
import { seed } from '@server/testing/seed'
import { cookieAt, startServer, stopServer } from './server'

const port = 4395
const base = `http://127.0.0.1:${port}`
/** The whole size is 50 million lines: 5,000 shows of 200 episodes. */
const lines = Number(process.env.LINES || 2_000_000)
const linesOfListener = 2.5
const shows = Math.ceil(lines / 10_000)
const episodesPerShow = 200
const keptDays = 92
/** An episode comes out each fourth day. */
const everyDays = 4
/** So many episodes before the newest have listeners. */
const olderOnes = 160
const sumDays = 730
const turns = 15
const mostInStatement = 200_000
const dayMs = 24 * 3600_000

/**
 * How long a page of numbers takes for the largest show of a full house, against the same page for the first show of the house
 * before it was filled. Of shows the nth has an nth of what the first has; of an episode each day brings less than the day before.
 */
export async function benchNumbers(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  const { database } = platform
  const server = await startServer(port)
  try {
    const cookie = await cookieAt(base)
    const small = await timesOf(database, cookie, 'bellows-and-reeds')
    await fill(platform)
    const large = await timesOf(database, cookie, 'seed-1')
    for (const [page, { first, median, late }] of large)
      console.log(
        `${page}, against the same in a small house: ${(median / small.get(page)!.median).toFixed(2)} (${ms(median)} : ${ms(small.get(page)!.median)}; at the first time ${ms(first)}, at most ${ms(late)})`,
      )
  } finally {
    await stopServer(server)
    await platform.deliveries.stop()
    await platform.events.stop()
    await database.close()
  }
}

const ms = (of: number): string => `${of.toFixed(0)} ms`
const iso = (at: number): string => new Date(at).toISOString().slice(0, 10)
const today = Date.now()

async function timesOf(
  database: Sequelize,
  cookie: string,
  slug: string,
): Promise<Map<string, { first: number; median: number; late: number }>> {
  const episodes = await database.query<{ id: string; showId: string }>(
    `SELECT e.id, e.show_id AS showId FROM episodes e JOIN shows s ON s.id = e.show_id
      WHERE s.slug = ? AND e.status = 'released' ORDER BY e.release_at DESC LIMIT 6`,
    { replacements: [slug], type: QueryTypes.SELECT },
  )
  const { showId, id: newest } = episodes[0]!
  const of = `/shows/${showId}/numbers`
  const days = `from=${iso(today - (keptDays - 1) * dayMs)}&to=${iso(today)}`
  const pages: Record<string, string> = {
    'the newest episode on the first page': `${of}/newest`,
    'numbers of 30 days': `${of}?from=${iso(today - 29 * dayMs)}&to=${iso(today)}`,
    [`numbers of ${keptDays} days`]: `${of}?${days}`,
    'numbers of all days': of,
    'numbers of an episode, all days': `${of}?episode=${newest}`,
    'six episodes at the same age': `${of}/ages?episodes=${episodes.map(({ id }) => id).join(',')}`,
    'the fetches behind all downloads': `${of}/listeners`,
    'the fetches behind what one app fetched': `${of}/listeners?${days}&app=Kelp`,
    'the fetches behind the source that is seldom': `${of}/listeners?${days}&source=private`,
    'the fetches of robots': `${of}/listeners?${days}&what=robot`,
    'the fetches of one episode': `${of}/listeners?${days}&episode=${newest}`,
    'the fetches of one episode by one app': `${of}/listeners?${days}&episode=${newest}&app=Kelp`,
    [`the export of ${keptDays} days`]: `${of}/export?${days}`,
  }
  const times = new Map<string, { first: number; median: number; late: number }>()
  for (const [name, path] of Object.entries(pages)) {
    const taken: number[] = []
    for (let n = 0; n < turns; n++) {
      const from = performance.now()
      const answer = await fetch(`${base}/api/v1${path}`, { headers: { cookie } })
      const text = await answer.text()
      if (!answer.ok) throw new Error(`${path} answered with ${answer.status}: ${text}`)
      taken.push(performance.now() - from)
    }
    const sorted = taken.toSorted((one, other) => one - other)
    times.set(name, { first: taken[0]!, median: sorted[Math.floor(turns / 2)]!, late: sorted.at(-1)! })
  }
  return times
}

/** Listeners of three months, and sums of two years, for all shows. */
async function fill(platform: Platform): Promise<void> {
  const { database } = platform
  const began = performance.now()
  await seed(database, 'bellows-and-reeds', { shows, episodesPerShow, hoursApart: everyDays * 24 })
  for (const at of [today - keptDays * dayMs, today])
    await keepMonths(database, 'listener_days', new Date(at), new Date(0))
  const apps = ['Kelp', 'Tern', 'Harbour Radio', ...Array.from({ length: 60 }, (_, n) => `App ${n}`)]
  const places = ['DE', 'CH', 'AT', 'GB', 'US', ...Array.from({ length: 80 }, (_, n) => `Place ${n}`)]
  for (const text of [...apps, ...places])
    await database.query('INSERT IGNORE INTO labels (text) VALUES (?)', { replacements: [text] })
  const labelled = await database.query<{ id: number; text: string }>('SELECT id, text FROM labels', {
    type: QueryTypes.SELECT,
  })
  const idOf = new Map(labelled.map(({ id, text }) => [text, id]))
  const skewed = (names: readonly string[]): string =>
    `ELT(1 + FLOOR(POW(RAND(), 3) * ${names.length}), ${names.map(name => idOf.get(name)).join(', ')})`
  const of = await database.query<{ id: string }>(
    "SELECT id FROM shows WHERE slug LIKE 'seed-%' ORDER BY CAST(SUBSTR(slug, 6) AS UNSIGNED)",
    { type: QueryTypes.SELECT },
  )
  const harmonic = of.reduce((sum, _, n) => sum + 1 / (n + 1), 0)
  let listeners = 0
  for (const [n, { id }] of of.entries()) {
    let left = Math.round(lines / linesOfListener / harmonic / (n + 1))
    listeners += left
    await database.query(
      'CREATE OR REPLACE TEMPORARY TABLE bench_episodes (number INT PRIMARY KEY, id UUID) AS SELECT number, id FROM episodes WHERE show_id = ?',
      { replacements: [id] },
    )
    for (; left > 0; left -= mostInStatement) {
      const many = Math.min(left, mostInStatement)
      await database.query(
        `INSERT INTO listener_days (show_id, day, episode_id, who, first_at, last_at, fetches, refusal, app, device, place, source, is_coarse, spans, fetches_kept)
          SELECT '${id}', l.day, e.id, UNHEX(LEFT(MD5(CONCAT(${left}, ' ', l.n)), 16)), l.day + INTERVAL l.second SECOND, l.day + INTERVAL l.second + 900 SECOND, 2,
            IF(RAND() < 0.08, FLOOR(RAND() * 8), NULL), ${skewed(apps)}, FLOOR(POW(RAND(), 3) * 6), ${skewed(places)}, IF(RAND() < 0.0002, 3, FLOOR(POW(RAND(), 6) * 3)), FALSE,
            CONCAT('{"', e.id, '":[[0,', FLOOR(RAND() * 40000000), ']]}'), '[36000000,206,0,1999999,2000000,1]\n[36002000,206,2000000,39999999,38000000,1]\n'
          FROM (SELECT CURDATE() - INTERVAL a.age DAY AS day, FLOOR(RAND() * 85000) AS second, a.n, 1 + FLOOR(a.age / ${everyDays}) + FLOOR(POW(RAND(), 4) * ${olderOnes}) AS number
            FROM (SELECT seq AS n, FLOOR(seq * ${keptDays} / ${many + 1}) AS age FROM seq_1_to_${many}) a) l JOIN bench_episodes e ON e.number = l.number`,
      )
    }
  }
  await addSums(platform, of[0]!.id)
  console.log(
    `a house of ${of.length} shows of ${episodesPerShow} episodes, ${listeners} listeners’ days (${lines} lines) and sums of two years in ${((performance.now() - began) / 1000).toFixed(0)} s`,
  )
}

/** Of the largest show sums of those months, and the same for all the time before; of the others one of each kind a day. */
async function addSums(platform: Platform, largest: string): Promise<void> {
  const { database } = platform
  const shifts = Math.ceil(sumDays / keptDays)
  const counted = `FROM listener_days WHERE show_id = '${largest}' AND refusal IS NULL`
  const refused = `FROM listener_days WHERE show_id = '${largest}' AND refusal IS NOT NULL`
  const columns = 'show_id, dimension, episode_id, day, label, downloads'
  const sum = (dimension: (typeof dimensions)[number], episode: string, label: string, from: string): string =>
    `INSERT INTO download_sums (${columns}) SELECT show_id, ${dimensionNumber(dimension)}, ${episode} AS of, day, ${label} AS labelled, COUNT(*) ${from} GROUP BY of, day, labelled`
  const all = `'${allEpisodes}'`
  /** Each episode with the one that was as new so many times three months before; all of them stay all. */
  const earlier = (n: number): string =>
    `CREATE OR REPLACE TEMPORARY TABLE bench_earlier (id UUID PRIMARY KEY, earlier UUID) AS
      SELECT e.id, o.id AS earlier FROM bench_episodes e JOIN bench_episodes o ON o.number = e.number + ${(n * keptDays) / everyDays} UNION SELECT ${all}, ${all}`
  for (const statement of [
    sum('day', 'episode_id', '0', counted),
    sum('day', all, '0', counted),
    sum('app', all, 'app', counted),
    sum('device', all, 'device', counted),
    sum('place', all, 'place', counted),
    sum('source', all, 'source', counted),
    sum('hour', all, 'HOUR(first_at)', counted),
    sum('local-hour', all, 'WEEKDAY(first_at) * 24 + HOUR(first_at)', counted),
    sum('refusal', 'episode_id', 'refusal', refused),
    sum('refusal', all, 'refusal', refused),
    sum('feed-fetchers', all, 'app', counted),
    `INSERT INTO download_traits (show_id, episode_id, day, app, device, place, source, downloads)
      SELECT show_id, episode_id, day, app, device, place, source, COUNT(*) ${counted} GROUP BY episode_id, day, app, device, place, source`,
    `INSERT INTO download_hours (show_id, episode_id, hour, downloads)
      SELECT show_id, episode_id, DATE_FORMAT(first_at, '%Y-%m-%d %H:00:00') AS h, COUNT(*) ${counted} GROUP BY episode_id, h`,
    `CREATE OR REPLACE TEMPORARY TABLE bench_episodes (number INT PRIMARY KEY, id UUID) AS SELECT number, id FROM episodes WHERE show_id = '${largest}'`,
    ...Array.from({ length: shifts - 1 }, (_, n) => n + 1).flatMap(n => [
      earlier(n),
      ...[
        ['download_sums', 'show_id, dimension', 'day, label, downloads'],
        ['download_traits', 'show_id', 'day, app, device, place, source, downloads'],
      ].map(
        ([table, before, behind]) =>
          `INSERT INTO ${table} (${before}, episode_id, ${behind})
            SELECT ${before}, b.earlier, ${behind!.replace('day', `day - INTERVAL ${n * keptDays} DAY`)} FROM bench_earlier b STRAIGHT_JOIN ${table} s
            ON s.episode_id = b.id WHERE s.show_id = '${largest}' AND s.day > CURDATE() - INTERVAL ${keptDays} DAY${table === 'download_sums' ? ` AND s.dimension BETWEEN 0 AND ${dimensions.length}` : ''}`,
      ),
    ]),
  ])
    await database.query(statement)
  const others = await database.query<{ id: string }>("SELECT id FROM shows WHERE slug LIKE 'seed-%' AND id <> ?", {
    replacements: [largest],
    type: QueryTypes.SELECT,
  })
  const perStatement = 40
  for (let n = 0; n < others.length; n += perStatement)
    await database.query(
      `INSERT INTO download_sums (${columns})
        SELECT s.id, d.dimension, '${allEpisodes}', CURDATE() - INTERVAL t.seq DAY, IF(d.dimension = 0, 0, 1), 5
        FROM shows s JOIN (SELECT seq AS dimension FROM seq_0_to_${dimensions.length - 1}) d JOIN seq_0_to_${sumDays - 1} t WHERE s.id IN (?)`,
      { replacements: [others.slice(n, n + perStatement).map(({ id }) => id)] },
    )
  // Months are summed up anew by who counts.
  await database.query('DELETE FROM download_months')
  await database.query('UPDATE counting SET months_to = NULL')
  await counter(platform).countAll()
}
