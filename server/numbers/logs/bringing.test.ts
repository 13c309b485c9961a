import { appendFileSync, copyFileSync, mkdtempSync, renameSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { type House, openHouse } from '../../testing/house'
import { counter } from '../counting/counter'
import { allEpisodes, dimensionNumber } from '../counting/sums'
import { logBringer } from './bringing'
import { bringFiles } from './files'
import { logFolder } from './folder'

let house: House
let path: string
let bytes: number
let folder: string
beforeAll(async () => {
  house = await openHouse()
  const { id: showId } = await house.makeShow('bellows-and-reeds')
  const released = await house.makeReleased(showId, 'The reed that would not speak')
  const { enclosureAddress, sound } = await house.get(released.id)
  path = new URL(enclosureAddress!).pathname
  bytes = sound.source!.bytes
})
afterAll(() => house.close())
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'lake-letter-logs-'))
  for (const table of ['brought_logs', 'delivery_log', 'listener_days', 'download_sums', 'download_traits'])
    await house.platform.database.query(`DELETE FROM ${table}`)
  return () => rmSync(folder, { recursive: true })
})

/** A line of each listener, as web servers write them, an hour ahead of UTC. */
const combined = (from: number, many: number): string =>
  Array.from(
    { length: many },
    (_, n) =>
      `192.0.2.${from + n} - - [10/Mar/2026:00:30:${String(n).padStart(2, '0')} +0100] "GET ${path} HTTP/1.1" 200 ${bytes} "-" "Kelp/3"\n`,
  ).join('')
const bring = (name: string) => logBringer(house.platform).bring(join(folder, name))
const write = (name: string, content: string | Buffer): void => writeFileSync(join(folder, name), content)

async function days(): Promise<Record<string, number>> {
  await counter(house.platform).countAll()
  const rows = await house.platform.database.query<{ day: string; downloads: number }>(
    'SELECT CAST(day AS CHAR) AS day, downloads FROM download_sums WHERE dimension = ? AND episode_id = ?',
    { replacements: [dimensionNumber('day'), allEpisodes], type: QueryTypes.SELECT },
  )
  return Object.fromEntries(rows.map(({ day, downloads }) => [day, downloads]))
}

it('a log is brought in once, however often, under whatever name, compressed or not, and as it grows', async () => {
  write('access.log', combined(1, 10))
  expect(await bring('access.log')).toEqual({ lines: 10, deliveries: 10 })
  expect(await bring('access.log')).toEqual({ lines: 0, deliveries: 0 })
  copyFileSync(join(folder, 'access.log'), join(folder, 'copy.log'))
  expect(await bring('copy.log')).toEqual({ lines: 0, deliveries: 0 })
  write('access.log.gz', gzipSync(combined(1, 10)))
  expect(await bring('access.log.gz')).toEqual({ lines: 0, deliveries: 0 })
  appendFileSync(join(folder, 'access.log'), combined(11, 5))
  renameSync(join(folder, 'access.log'), join(folder, 'access.log.1'))
  expect(await bring('access.log.1')).toEqual({ lines: 5, deliveries: 5 })
  // In the zone of the log it is the tenth already.
  expect(await days()).toEqual({ '2026-03-09': 15 })
})

it('half a line waits for its rest, and what is no line of a log stops nothing', async () => {
  const text = `nonsense\n\n${combined(1, 2)}`
  write('half.log', text.slice(0, -40))
  expect(await bring('half.log')).toEqual({ lines: 3, deliveries: 1 })
  write('half.log', text + combined(3, 1))
  expect(await bring('half.log')).toEqual({ lines: 2, deliveries: 2 })
  expect(await days()).toEqual({ '2026-03-09': 3 })
})

it('the W3C form keeps its columns where it is read on', async () => {
  const head =
    '#Version: 1.0\n#Fields: date time c-ip cs-method cs-uri-stem cs-uri-query sc-status sc-bytes cs(User-Agent)\n'
  const line = (n: number, query: string): string =>
    `2026-03-10 0${n}:00:00 192.0.2.${n} GET ${path} ${query} 200 ${bytes} Kelp/3\n`
  write('edge.log', head + line(1, '-'))
  expect(await bring('edge.log')).toEqual({ lines: 3, deliveries: 1 })
  appendFileSync(join(folder, 'edge.log'), line(2, 'from=page'))
  expect(await bring('edge.log')).toEqual({ lines: 1, deliveries: 1 })
  expect(await days()).toEqual({ '2026-03-10': 2 })
})

it('a log of thirty thousand lines is taken in in parts, and three processes at once bring it in once', async () => {
  const foreign = combined(1, 1).replace(path, '/elsewhere')
  write('big.log', foreign.repeat(28_000) + combined(1, 20) + foreign.repeat(2_000))
  const outcomes = await Promise.allSettled(Array.from({ length: 3 }, () => bring('big.log')))
  expect(outcomes.some(({ status }) => status === 'fulfilled')).toBe(true)
  await bring('big.log')
  expect(await days()).toEqual({ '2026-03-09': 20 })
  const brought = await house.platform.database.query('SELECT line_count AS `lines` FROM brought_logs', {
    type: QueryTypes.SELECT,
  })
  expect(brought).toEqual([{ lines: 30_020 }])
})

it('what another process brought in after it was looked how far a log was read is not brought in again', async () => {
  write('big.log', combined(1, 100).repeat(200))
  const { database } = house.platform
  let others = 1
  const late = Object.create(database) as typeof database
  // The look has seen nothing of the log; before anything comes of that, the other one has brought in all of it.
  late.query = (async (...question: Parameters<typeof database.query>) => {
    const answer = await database.query(...question)
    if (others-- > 0) await bring('big.log')
    return answer
  }) as typeof database.query
  await expect(logBringer({ ...house.platform, database: late }).bring(join(folder, 'big.log'))).rejects.toThrow(
    'Another process is bringing in logs',
  )
  const brought = await database.query('SELECT line_count AS `lines` FROM brought_logs', { type: QueryTypes.SELECT })
  expect(brought).toEqual([{ lines: 20_000 }])
})

it('a folder is watched: what is broken is said by its name, and holds no other up', async () => {
  write('a-broken.gz', gzipSync(combined(1, 50)).subarray(0, 60))
  write('b-endless.log', 'x'.repeat(9_000_000))
  write('c-good.log', combined(1, 4))
  const before = new Date(Date.now() - 60_000)
  for (const name of ['a-broken.gz', 'b-endless.log', 'c-good.log']) utimesSync(join(folder, name), before, before)
  write('d-growing.log', combined(5, 4))
  utimesSync(join(folder, 'd-growing.log'), new Date(), new Date())
  const said: string[] = []
  const logs = logFolder(house.platform, folder, error => said.push(String(error)))
  await logs.look()
  await logs.look()
  expect(await days()).toEqual({ '2026-03-09': 4 })
  expect(said.filter(each => each.includes('a-broken.gz')).length).toBeGreaterThan(0)
  expect(said.filter(each => each.includes('b-endless.log has no lines')).length).toBeGreaterThan(0)
  expect(said.filter(each => /c-good|d-growing/.test(each))).toEqual([])
})

it('logs that are named are brought in, and it is said what came of each', async () => {
  write(
    'access.log',
    combined(1, 3) + '192.0.2.9 - - [10/Mar/2026:00:30:09 +0100] "GET /elsewhere HTTP/1.1" 200 5 "-" "-"\n',
  )
  const said: string[] = []
  const files = ['access.log', 'missing.log', 'access.log'].map(name => join(folder, name))
  expect(await bringFiles(house.platform, files, words => said.push(words))).toBe(false)
  expect(said).toEqual([
    'access.log: 4 new lines, 3 of them about audio of this house. They are counted within a minute.',
    expect.stringMatching(/missing\.log: could not be brought in\. ENOENT/),
    'access.log: nothing new in it.',
  ])
  expect(await days()).toEqual({ '2026-03-09': 3 })
})
