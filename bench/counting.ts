import { execFile } from 'node:child_process'
import { promisify } from 'node:util'
import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { once } from 'node:events'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { QueryTypes, type Sequelize } from 'sequelize'
import { openPlatform } from '@server/app/openPlatform'
import { counter } from '@server/numbers/counting/counter'
import { systemClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import { type DeliveryEntry, keepLines, packed } from '@server/platform/deliveries/lines'
import { seed } from '@server/testing/seed'
import { median } from './median'

const lines = Number(process.env.LINES || 1_000_000)
const size = { shows: 200, episodesPerShow: 50 }
/** Each counts so many of them, and loads the same: what else the machine does in the meantime is then in both. */
const rounds = 5
const linesAtOnce = 10_000
const day = Math.floor(Date.now() / 86_400_000) * 86_400_000
const agents = Array.from(
  { length: 400 },
  (_, n) => `Kelp/${n % 40}.${n % 7} (${n % 3 ? 'iPhone; iOS 17' : 'Android 14'}) build ${n}`,
)

interface Target {
  showId: string
  episodeId: string
  fileId: string
  bytes: number
}

/** A million lines of a log counted, against what MariaDB needs to load the same lines from a file into a table with one index. */
export async function benchCounting(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  const { database } = platform
  await seed(database, 'bellows-and-reeds', size)
  const targets = await database.query<Target>(
    `SELECT e.show_id AS showId, e.id AS episodeId, f.id AS fileId, f.bytes FROM episodes e
      JOIN episode_files l ON l.episode_id = e.id AND l.role = 'released' JOIN files f ON f.id = l.file_id`,
    { type: QueryTypes.SELECT },
  )
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-bench-'))
  const file = join(folder, 'lines.csv')
  await createTable(database)
  const { countAll } = counter(platform)
  const took: Record<'counted' | 'loaded', number>[] = []
  for (let round = 0; round < rounds; round++) {
    await write(database, targets, file, (lines / rounds) * round)
    took.push({ loaded: await seconds(() => load(file)), counted: await seconds(countAll) })
  }
  const [{ downloads, listeners } = { downloads: 0, listeners: 0 }] = await database.query<{
    downloads: number
    listeners: number
  }>('SELECT SUM(refusal IS NULL) AS downloads, COUNT(*) AS listeners FROM listener_days', { type: QueryTypes.SELECT })
  const ratios = took.map(({ counted, loaded }) => counted / loaded).toSorted((one, other) => one - other)
  const sum = (of: 'counted' | 'loaded'): string => took.reduce((all, each) => all + each[of], 0).toFixed(1)
  console.log(
    `${lines} lines of ${Number(listeners)} listeners (${Number(downloads)} downloads) counted, against MariaDB loading the same lines: ${median(ratios).toFixed(2)} (${ratios[0]!.toFixed(2)} to ${ratios.at(-1)!.toFixed(2)} in ${rounds} rounds; ${sum('counted')} : ${sum('loaded')} s in all)`,
  )
  await rm(folder, { recursive: true })
  await platform.deliveries.stop()
  await platform.events.stop()
  await database.close()
}

/** What each listener fetches comes within some minutes, in one to nine parts; a few episodes get most of it. */
function linesOf(targets: readonly Target[], from: number, many: number): DeliveryEntry[] {
  return Array.from({ length: many }, (_, k): DeliveryEntry => {
    const n = from + k
    const listener = Math.floor(n / 5)
    const { showId, episodeId, fileId, bytes } =
      targets[Math.floor(targets.length * ((listener * 0.618_034) % 1) ** 2)]!
    const part = n % 5
    const first = Math.floor((Number(bytes) / 5) * part)
    return {
      at: new Date(day + Math.floor((n / lines) * 86_000_000) + (n % 977)),
      kind: 'media',
      showId,
      episodeId,
      fileId,
      method: 'GET',
      status: 206,
      bytesSent: Math.floor(Number(bytes) / 5),
      range: { start: first, end: first + Math.floor(Number(bytes) / 5) - 1 },
      agent: agents[listener % agents.length]!,
      source: listener % 9 ? 'feed' : 'page',
      isPrefetch: false,
      who: ((listener * 2_654_435_761) % 2 ** 32).toString(16).padStart(16, '0'),
      place: ['SE', 'DE', 'FI', 'GB', 'US'][listener % 5]!,
      isHosted: false,
      isCoarse: false,
      times: 1,
    }
  })
}

const csv = ({
  at,
  showId,
  episodeId,
  fileId,
  status,
  bytesSent,
  range,
  agent,
  who,
  place,
  source,
}: DeliveryEntry): string =>
  `${at.toISOString().slice(0, 23).replace('T', ' ')}\t${showId}\t${episodeId}\t${fileId}\t${status}\t${bytesSent}\t${range!.start}\t${range!.end}\t${agent}\t${who}\t${place}\t${source}\n`

/** Writes the lines of a round into the log, and into a file. */
async function write(database: Sequelize, targets: readonly Target[], file: string, begin: number): Promise<void> {
  const written = createWriteStream(file)
  for (let from = begin; from < begin + lines / rounds; from += linesAtOnce) {
    const entries = linesOf(targets, from, linesAtOnce)
    for (const batch of packed(entries)) await keepLines(database, new Date(day), batch)
    if (!written.write(entries.map(csv).join(''))) await once(written, 'drain')
  }
  written.end()
  await once(written, 'finish')
}

async function createTable(database: Sequelize): Promise<void> {
  await database.query(
    `CREATE TABLE bench_lines (id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY, at DATETIME(3) NOT NULL, show_id UUID NOT NULL, episode_id UUID NOT NULL,
      file_id UUID NOT NULL, status SMALLINT NOT NULL, bytes_sent BIGINT, first BIGINT, last BIGINT, agent VARCHAR(255), who CHAR(16), place VARCHAR(80),
      source VARCHAR(8), INDEX (episode_id, at))`,
  )
}

async function load(file: string): Promise<void> {
  const { hostname, port, username, password, pathname } = new URL(process.env.DATABASE_URL!)
  await promisify(execFile)(
    'mariadb',
    [
      '--local-infile=1',
      `--host=${hostname}`,
      `--port=${port || 3306}`,
      `--user=${decodeURIComponent(username)}`,
      `--execute=LOAD DATA LOCAL INFILE '${file}' INTO TABLE bench_lines (at, show_id, episode_id, file_id, status, bytes_sent, first, last, agent, who, place, source)`,
      pathname.slice(1),
    ],
    { env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) } },
  )
}

async function seconds(act: () => Promise<unknown>): Promise<number> {
  const from = performance.now()
  await act()
  return (performance.now() - from) / 1000
}
