import { randomBytes } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, beforeEach, describe, expect, it, onTestFinished, vi } from 'vitest'
import { QueryTypes } from 'sequelize'
import type { Dimension } from '@core/counting/dimensions'
import { gzipSync } from 'node:zlib'
import { keepMonths } from '../../platform/database/months'
import { type DeliveryEntry, keepLines, packed } from '../../platform/deliveries/lines'
import { retention } from '../../app/retention/retention'
import { type House, openHouse } from '../../testing/house'
import { counter } from './counter'
import { labels } from './labels'
import { mostFetchesKept } from './listenerDays'
import { allEpisodes, dimensionNumber } from './sums'

const dayMs = 24 * 3600_000
let house: House
let showId: string
let episodes: { id: string; fileId: string; bytes: number }[]

beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
  episodes = []
  for (const title of ['The reed that would not speak', 'A drawer full of reeds']) {
    const { id } = await house.makeReleased(showId, title)
    const { source } = (await house.get(id)).sound
    episodes.push({ id, fileId: source!.id, bytes: source!.bytes })
  }
})
afterAll(() => house.close())
beforeEach(async () => {
  for (const table of [
    'delivery_log',
    'listener_days',
    'feed_days',
    'download_sums',
    'download_months',
    'heard_sums',
    'download_traits',
    'download_hours',
  ])
    await house.platform.database.query(`DELETE FROM ${table}`)
  await house.platform.database.query('UPDATE counting SET months_to = NULL')
})

const select = <Row extends object>(statement: string, replacements: unknown[] = []): Promise<Row[]> =>
  house.platform.database.query<Row>(statement, { replacements, type: QueryTypes.SELECT })
const countAll = (): Promise<void> => counter(house.platform).countAll()

function entry(rest: Partial<DeliveryEntry> = {}): DeliveryEntry {
  const [episode] = episodes
  return {
    at: house.clock.now(),
    kind: 'media',
    showId,
    episodeId: episode!.id,
    fileId: episode!.fileId,
    method: 'GET',
    status: 200,
    bytesSent: episode!.bytes,
    range: null,
    agent: 'Kelp/3.1 (iPhone; iOS 17.1)',
    source: 'feed',
    isPrefetch: false,
    who: '0000000000000001',
    place: 'SE',
    isHosted: false,
    isCoarse: false,
    times: 1,
    ...rest,
  }
}
async function log(...entries: DeliveryEntry[]): Promise<void> {
  for (const batch of packed(entries)) await keepLines(house.platform.database, house.clock.now(), batch)
}

/** The next statement that begins so fails. */
function refuseOnce(begin: string): void {
  const { database } = house.platform
  const query = database.query.bind(database) as (...given: unknown[]) => Promise<unknown>
  let refused = 0
  const spy = vi
    .spyOn(database, 'query')
    .mockImplementation(((statement: string, ...rest: unknown[]) =>
      refused === 0 && statement.startsWith(begin) && ++refused
        ? Promise.reject(new Error('away'))
        : query(statement, ...rest)) as never)
  onTestFinished(() => spy.mockRestore())
}

async function sums(dimension: Dimension, of = allEpisodes): Promise<number[]> {
  const rows = await select<{ downloads: number }>(
    'SELECT downloads FROM download_sums WHERE show_id = ? AND dimension = ? AND episode_id = ? AND downloads <> 0 ORDER BY day, downloads DESC',
    [showId, dimensionNumber(dimension), of],
  )
  return rows.map(({ downloads }) => downloads)
}

describe('counting', () => {
  it('takes what went out once for each listener, episode and day, into all its sums', async () => {
    await log(
      entry(),
      entry(),
      entry({ who: '0000000000000002', place: 'DE' }),
      entry({ who: '0000000000000003', agent: 'Lakespider/1.0' }),
    )
    await countAll()
    expect(await sums('day')).toEqual([2])
    expect(await sums('day', episodes[0]!.id)).toEqual([2])
    expect(await sums('app')).toEqual([2])
    expect(await sums('place')).toEqual([1, 1])
    expect(await sums('refusal')).toEqual([1])
    await log(entry({ who: '0000000000000004', agent: 'Tern/2 (Android 14)', source: 'page' }))
    await countAll()
    await countAll()
    expect(await sums('day')).toEqual([3])
    expect(await sums('app')).toEqual([2, 1])
    expect(await sums('source')).toEqual([2, 1])
    const hours = await select<{ downloads: number }>('SELECT downloads FROM download_hours')
    expect(hours).toEqual([{ downloads: 3 }])
  })

  it('begins a day with a key of its own, under which one listener is another, and which is gone two days later', async () => {
    const { askers, database } = house.platform
    const who = async (at: Date): Promise<string> => {
      const { who: told } = await askers.told({ ...entry({ at }), address: '192.0.2.7' })
      return told
    }
    const today = house.clock.now()
    expect(await who(today)).toBe(await who(today))
    expect(await who(new Date(+today + dayMs))).not.toBe(await who(today))
    const keys = () => select<{ day: string }>('SELECT day FROM day_keys')
    expect(await keys()).toHaveLength(2)
    const before = await who(today)
    house.clock.moveTo(new Date(+today + 2 * dayMs + 1))
    await retention(house.platform).job.run()
    expect(await keys()).toEqual([])
    expect(await who(today)).not.toBe(before)
    house.clock.moveTo(today)
    await database.query('DELETE FROM day_keys')
  })

  it('knows who it was on either day where the clock is set back by more than one, and put right', async () => {
    const who = async (): Promise<string> => {
      const { who: told } = await house.platform.askers.told({
        ...entry({ at: house.clock.now() }),
        address: '192.0.2.7',
      })
      return told
    }
    const start = house.clock.now()
    const today = new Date(+start + 10 * dayMs)
    house.clock.moveTo(today)
    const before = await who()
    await log(entry({ who: before }))
    house.clock.moveTo(new Date(+today - 1.2 * dayMs))
    const earlier = await who()
    expect(earlier).not.toBe(before)
    await log(entry({ who: earlier, at: house.clock.now() }))
    await countAll()
    await retention(house.platform).job.run()
    expect(await who()).toBe(earlier)
    house.clock.moveTo(today)
    expect(await who()).toBe(before)
    expect(await select('SELECT day FROM day_keys')).toHaveLength(2)
    expect(await sums('day')).toEqual([1, 1])
    house.clock.moveTo(start)
    await house.platform.database.query('DELETE FROM day_keys')
  })

  it('tells an address of a household apart from its neighbours, by IPv6 as by IPv4', async () => {
    const { askers } = house.platform
    const who = async (address: string, agent = 'Kelp/3'): Promise<string> =>
      (await askers.told({ ...entry({ agent }), address })).who
    expect(await who('192.0.2.7')).not.toBe(await who('192.0.2.8'))
    expect(await who('::ffff:192.0.2.7')).toBe(await who('192.0.2.7'))
    expect(await who('2001:db8:1:2::7')).toBe(await who('2001:db8:1:2:a:b:c:d'))
    expect(await who('2001:db8:1:2::7')).not.toBe(await who('2001:db8:1:3::7'))
    expect(await who('192.0.2.7', 'Tern/1')).not.toBe(await who('192.0.2.7'))
  })

  it('counts lines from before the day keys by the neighbourhood, and says until when', async () => {
    const at = +house.clock.now()
    const old = [at, 'media', showId, episodes[0]!.id, 200, episodes[0]!.bytes, null, 'Kelp/3', '192.0.2.0']
    const packedLines = gzipSync(`${JSON.stringify(old)}\n${JSON.stringify([...old, 3])}\n`)
    await house.platform.database.query('INSERT INTO delivery_log (at, entries, packed) VALUES (?, 2, ?)', {
      replacements: [house.clock.now(), packedLines],
    })
    await countAll()
    expect(await sums('day')).toEqual([1])
    const [state] = await select<{ day: string }>('SELECT CAST(coarse_until AS CHAR) AS day FROM counting')
    expect(state!.day).toBe('2026-03-10')
    expect(await select('SELECT fetches FROM listener_days')).toEqual([{ fetches: 4 }])
  })

  it('of ten thousand fetches of one listener keeps some, and how many there were', async () => {
    await log(
      ...Array.from({ length: 10_000 }, (_, n) => entry({ status: 206, range: { start: n, end: n }, bytesSent: 1 })),
    )
    await countAll()
    await log(entry({ status: 206, range: { start: 0, end: 0 }, bytesSent: 1 }))
    await countAll()
    const [row] = await select<{ fetches: number; kept: Buffer }>(
      'SELECT fetches, fetches_kept AS kept FROM listener_days',
    )
    expect(row!.fetches).toBe(10_001)
    expect(row!.kept.toString().trimEnd().split('\n')).toHaveLength(mostFetchesKept)
  })

  it('reads programs in every encoding, and names that nobody else has', async () => {
    const agents = ['Пар ом/1', '帆/2', '\u0000\u001f', '"quoted" \\', `${'x'.repeat(10_000)}/1`, '%F0%9F%8E%99/1', '']
    await log(...agents.map((agent, n) => entry({ agent, who: n.toString(16).padStart(16, '0') })))
    await countAll()
    expect(await sums('day')).toEqual([agents.length])
    const names = await select<{ text: string }>(
      'SELECT DISTINCT l.text FROM labels l JOIN listener_days d ON d.app = l.id',
    )
    expect(names.map(({ text }) => text).toSorted()).toEqual(
      ['Пар ом', '帆', 'Unnamed', '"quoted" \\', 'x'.repeat(40), '🎙'].toSorted(),
    )
  })

  it('moves a download to the place of its first fetch, also where that line comes late to a process that has just begun', async () => {
    const earlier = new Date(+house.clock.now() - 3600_000)
    await log(entry({ place: 'FI' }))
    await countAll()
    await log(entry({ place: 'NO', at: earlier }))
    await countAll()
    expect(await sums('day')).toEqual([1])
    expect(await sums('place')).toEqual([1])
    const traits = await select<{ place: string }>(
      'SELECT l.text AS place FROM download_traits t JOIN labels l ON l.id = t.place WHERE t.downloads <> 0',
    )
    expect(traits).toEqual([{ place: 'NO' }])
  })

  it('goes on with a batch that could not be read once', async () => {
    await log(entry())
    refuseOnce('SELECT packed')
    const own = counter(house.platform)
    await expect(own.countAll()).rejects.toThrow('away')
    await own.countAll()
    expect(await sums('day')).toEqual([1])
  })

  it('sums up months when they are over, into which lines that come late go as well', async () => {
    const { clock } = house
    const today = clock.now()
    const months = () =>
      select<{ month: string; downloads: number | bigint }>(
        'SELECT CAST(month AS CHAR) AS month, downloads FROM download_months WHERE dimension = ? AND downloads <> 0 ORDER BY month',
        [dimensionNumber('app')],
      )
    onTestFinished(() => clock.moveTo(today))
    await log(entry({ at: new Date('2026-03-01T00:00:00Z') }), entry({ at: new Date('2026-02-28T23:59:59Z') }))
    await countAll()
    expect(await months()).toEqual([{ month: '2026-02-01', downloads: 1 }])
    clock.moveTo(new Date('2026-05-01T00:00:00Z'))
    await countAll()
    expect(await months()).toEqual([
      { month: '2026-02-01', downloads: 1 },
      { month: '2026-03-01', downloads: 1 },
    ])
    await log(
      entry({ at: new Date('2026-03-31T23:00:00Z'), who: '0000000000000002' }),
      entry({ at: new Date('2026-05-01T00:00:00Z'), who: '0000000000000002' }),
    )
    await countAll()
    await countAll()
    expect(await months()).toEqual([
      { month: '2026-02-01', downloads: 1 },
      { month: '2026-03-01', downloads: 2 },
    ])
  })

  it('says of a batch that is broken that it is, keeps it, and counts the others', async () => {
    await log(entry())
    await house.platform.database.query('INSERT INTO delivery_log (at, entries, packed) VALUES (?, 7, ?)', {
      replacements: [house.clock.now(), Buffer.from('no gzip')],
    })
    await log(entry({ who: '0000000000000002' }))
    const said: unknown[] = []
    const own = counter(house.platform, error => said.push(error))
    await own.countAll()
    await own.countAll()
    expect(await sums('day')).toEqual([2])
    expect(said.map(String)).toEqual([expect.stringMatching(/Batch \d+ of the delivery log cannot be read/)])
    expect(await select('SELECT entries FROM delivery_log WHERE NOT is_counted')).toEqual([{ entries: 7 }])
  })

  it('tells what has yet another name together, once there are too many', async () => {
    const { database } = house.platform
    const [known] = await select<{ many: number | bigint }>('SELECT COUNT(*) AS many FROM labels')
    const most = Number(known!.many) + 2
    const told = async (...names: string[]) => {
      const labelOf = await labels(database, most)(names)
      return names.map(labelOf)
    }
    const [first, other] = await told('Gull/first', 'Other')
    expect(first).not.toBe(other)
    for (let n = 0; n < 5; n++) await told(`Gull/${n}`)
    expect(await told('Gull/4', 'Gull/first')).toEqual([other, first])
    const [now] = await select<{ many: number | bigint }>('SELECT COUNT(*) AS many FROM labels')
    expect(Number(now!.many)).toBeLessThanOrEqual(most)
  })

  it('counts each once also where the same process was stopped amid a stretch with new names in it', async () => {
    refuseOnce('UPDATE delivery_log')
    const own = counter(house.platform)
    await log(entry({ agent: 'Never heard of/1', place: 'AX' }))
    await expect(own.countAll()).rejects.toThrow('away')
    await own.countAll()
    await log(entry({ agent: 'Never heard of/1', place: 'AX' }))
    await own.countAll()
    expect(await sums('day')).toEqual([1])
    const named = await select<{ app: string; place: string }>(
      'SELECT a.text AS app, p.text AS place FROM listener_days d JOIN labels a ON a.id = d.app JOIN labels p ON p.id = d.place',
    )
    expect(named).toEqual([{ app: 'Never heard of', place: 'AX' }])
  })

  it('leaves out what is of a file that is not known', async () => {
    await log(entry({ fileId: null }), entry({ fileId: '00000000-0000-4000-8000-000000000000' }))
    await countAll()
    expect(await sums('day')).toEqual([])
    expect(await sums('refusal')).toEqual([1])
  })

  it('counts who fetches the feed, and for how many a program says that it does', async () => {
    const feed = (agent: string, who: string, status = 304) =>
      entry({ kind: 'feed', episodeId: null, fileId: null, agent, status, bytesSent: 0, who })
    await log(
      feed('Kelp/3', 'a'.repeat(16)),
      feed('Kelp/3', 'a'.repeat(16)),
      feed('Kelp/3', 'b'.repeat(16)),
      feed('Lakespider/1.0', 'c'.repeat(16)),
      feed('Kelp/3', 'd'.repeat(16), 404),
      feed('Reed Reader/2 (140 subscribers)', 'e'.repeat(16)),
      feed('Reed Reader/2 (138 subscribers)', 'f'.repeat(16)),
    )
    await countAll()
    await log(feed('Kelp/3', 'a'.repeat(16)))
    await countAll()
    expect(await sums('feed-fetchers')).toEqual([2])
    expect(await sums('feed-readers')).toEqual([140])
  })

  it('drops the months that are over after their time, with what single listeners fetched, and keeps the sums', async () => {
    const { database, clock } = house.platform
    await keepMonths(database, 'listener_days', clock.now(), new Date(0))
    await log(entry(), entry({ at: new Date(+clock.now() + 40 * dayMs) }))
    await countAll()
    const rows = () => select('SELECT day FROM listener_days')
    expect(await rows()).toHaveLength(2)
    await keepMonths(database, 'listener_days', clock.now(), new Date('2026-03-31T23:59:59Z'))
    expect(await rows()).toHaveLength(2)
    await keepMonths(database, 'listener_days', clock.now(), new Date('2026-04-01T00:00:00Z'))
    expect(await rows()).toHaveLength(1)
    expect(await sums('day')).toEqual([1, 1])
  })
})

describe('a log of three thousand lines', () => {
  /** Ranges on a grid, of some listeners, over four days, in no order. */
  function lines(): DeliveryEntry[] {
    let state = 7
    const random = (most: number): number => {
      state = (state * 1_103_515_245 + 12_345) % 2 ** 31
      return Math.floor((state / 2 ** 31) * most)
    }
    return Array.from({ length: 3_000 }, () => {
      const { id, fileId, bytes } = episodes[random(2)]!
      const start = Math.floor((random(10) / 10) * bytes)
      const bytesSent = Math.floor(((1 + random(5)) / 10) * bytes)
      return entry({
        at: new Date(+house.clock.now() + random(4 * dayMs)),
        episodeId: id,
        fileId,
        status: random(20) === 0 ? 304 : 206,
        method: random(20) === 0 ? 'HEAD' : 'GET',
        range: { start, end: Math.min(bytes, start + bytesSent) - 1 },
        bytesSent,
        who: random(60).toString(16).padStart(16, '0'),
        isHosted: random(30) === 0,
      })
    })
  }

  /** The same rule by windows of SQL: of each listener, day and file the bytes that no piece before has covered. */
  async function secondWay(entries: readonly DeliveryEntry[]): Promise<number> {
    const rows = entries
      .filter(({ method, status, isHosted }) => method === 'GET' && status === 206 && !isHosted)
      .map(({ at, episodeId, fileId, who, range, bytesSent }) => [
        `${at.toISOString().slice(0, 10)} ${episodeId} ${who}`,
        fileId,
        range!.start,
        Math.min(range!.end, range!.start + bytesSent! - 1),
      ])
    const [row] = await select<{ downloads: number | bigint }>(
      `WITH fetched AS (
          SELECT * FROM JSON_TABLE(?, '$[*]' COLUMNS (k VARCHAR(80) PATH '$[0]', f CHAR(36) PATH '$[1]', s BIGINT PATH '$[2]', e BIGINT PATH '$[3]')) t
        ), clipped AS (
          SELECT k, f, GREATEST(s, sound_from_bytes) AS s, LEAST(e, sound_to_bytes - 1) AS e,
            CEILING((sound_to_bytes - sound_from_bytes) * 60000 / duration_ms) AS minute, sound_to_bytes - sound_from_bytes AS whole
            FROM fetched JOIN files ON files.id = fetched.f
        ), fresh AS (
          SELECT k, f, minute, whole, e - GREATEST(s, COALESCE(MAX(e) OVER (PARTITION BY k, f ORDER BY s, e ROWS BETWEEN UNBOUNDED PRECEDING AND 1 PRECEDING) + 1, s)) + 1 AS bytes
            FROM clipped WHERE e >= s
        ), covered AS (
          SELECT k, SUM(GREATEST(0, bytes)) >= LEAST(MAX(minute), MAX(whole)) AS enough FROM fresh GROUP BY k, f
        ) SELECT COUNT(DISTINCT IF(enough, k, NULL)) AS downloads FROM covered`,
      [JSON.stringify(rows)],
    )
    return Number(row!.downloads)
  }

  const total = async (): Promise<number> => (await sums('day')).reduce((sum, each) => sum + each, 0)

  it('comes to the same by SQL', async () => {
    const all = lines()
    await log(...all)
    await countAll()
    const wanted = await secondWay(all)
    expect(wanted).toBeGreaterThan(50)
    expect(await total()).toBe(wanted)
    for (const dimension of ['app', 'device', 'place', 'source', 'hour', 'local-hour'] as const)
      expect((await sums(dimension)).reduce((sum, each) => sum + each, 0)).toBe(wanted)
    const [traits] = await select<{ all: string }>('SELECT SUM(downloads) AS `all` FROM download_traits')
    expect(Number(traits!.all)).toBe(wanted)
  })

  it('comes to the same where whoever counts is killed twenty times, and several count at once', async () => {
    // The library says of each transaction that its connection is gone.
    vi.spyOn(console, 'error').mockImplementation(() => undefined)
    vi.spyOn(console, 'warn').mockImplementation(() => undefined)
    onTestFinished(() => void vi.restoreAllMocks())
    const all = lines()
    for (let from = 0; from < all.length; from += 25) await log(...all.slice(from, from + 25))
    let kills = 0
    const counting = async (): Promise<void> => {
      for (let isLeft = true; isLeft;) {
        try {
          await countAll()
          const [left] = await select<{ many: number | bigint }>(
            'SELECT COUNT(*) AS many FROM delivery_log WHERE NOT is_counted',
          )
          isLeft = Number(left!.many) > 0
        } catch {
          kills++
        }
      }
    }
    let isOver = false
    const killing = async (): Promise<void> => {
      while (!isOver) {
        await wait(8)
        const others = await select<{ id: number | bigint }>(
          "SELECT ID AS id FROM information_schema.PROCESSLIST WHERE DB = DATABASE() AND ID <> CONNECTION_ID() AND COMMAND <> 'Sleep'",
        ).catch(() => [])
        for (const { id } of others) await house.platform.database.query(`KILL CONNECTION ${id}`).catch(() => undefined)
      }
    }
    const killed = killing()
    await Promise.all([counting(), counting()])
    // Where it was counted sooner than it was killed so often, it is killed on the way through more of it.
    while (kills < 20) {
      const more = Array.from({ length: 200 }, () => entry({ method: 'HEAD', who: randomBytes(8).toString('hex') }))
      await log(...more).catch(() => undefined)
      await counting()
    }
    isOver = true
    await killed
    // Connections that were killed when they had just been given back go with the next question.
    for (let n = 0; n < 3; n++)
      await Promise.all(Array.from({ length: 10 }, () => select('SELECT 1').catch(() => undefined)))
    await countAll()
    expect(kills).toBeGreaterThanOrEqual(20)
    expect(await total()).toBe(await secondWay(all))
  })
})
