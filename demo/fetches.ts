import { QueryTypes } from 'sequelize'
import { v5 as uuidV5 } from 'uuid'
import type { Source, Step, Traits } from '@core/counting/count'
import type { Device } from '@core/counting/programs'
import { counter } from '@server/numbers/counting/counter'
import { labels } from '@server/numbers/counting/labels'
import { addedBy, addToSums } from '@server/numbers/counting/sums'
import { addMark } from '@server/numbers/figures/marks'
import { houseScope } from '@server/people/access/scope'
import { transact } from '@server/platform/database/transact'
import { type DeliveryEntry, keepLines, packed } from '@server/platform/deliveries/lines'
import type { Platform } from '@server/platform/platform'

const [minuteMs, hourMs, dayMs] = [60_000, 3600_000, 24 * 3600_000]
/** So far back the made-up fetches go; of the last days, in which the episodes of the demo went out, line by line. */
const daysBack = 548
/** So far back the feed was fetched, line by line. */
const feedDays = 60
const seed = 20_260

interface Released {
  id: string
  showId: string
  fileId: string
  bytes: number
  releasedAt: Date
}

interface Listener {
  agent: string
  app: string
  device: Device
  place: string
}

/** Numbers from 0 to 1 that are the same each time (mulberry32). */
function numbersFrom(start: number): () => number {
  let state = start
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32
  }
}

/** Which is taken how often. */
const programs: readonly (readonly [share: number, agent: string, app: string, device: Device])[] = [
  [0.34, 'Kelp/3.1 (iPhone; iOS 17.1)', 'Kelp', 'phone'],
  [0.2, 'Tern/12.4 (Linux;Android 14)', 'Tern', 'phone'],
  [0.14, 'AppleCoreMedia/1.0.0.21B91 (iPhone; U; CPU OS 17_1 like Mac OS X; en_gb)', 'Built-in player', 'phone'],
  [0.12, 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0', 'Web browser', 'computer'],
  [0.08, 'Harbour Radio/2.0 (smart speaker)', 'Harbour Radio', 'speaker'],
  [0.06, 'Kelp/3.1 (iPad; iPadOS 17.1)', 'Kelp', 'tablet'],
  [0.04, 'Punt/0.9 (macOS 14.1)', 'Punt', 'computer'],
  [0.02, 'Tern/12.4 (Android Auto)', 'Tern', 'car'],
]
const places = [
  [0.31, 'CH'],
  [0.24, 'DE'],
  [0.12, 'AT'],
  [0.1, 'GB'],
  [0.08, 'US'],
  [0.05, 'IT'],
  [0.04, 'FI'],
  [0.03, 'SE'],
  [0.02, 'NL'],
  [0.009, 'NZ'],
  [0.001, 'IS'],
] as const

/** Eighteen months of made-up fetches of a show, with a story in them, the same each time. */
export async function fillFetches(platform: Platform, showId: string, today: Date): Promise<void> {
  const { database } = platform
  const random = numbersFrom(seed)
  const episodes = await database.query<Released>(
    `SELECT e.id, e.show_id AS showId, f.id AS fileId, f.bytes, e.release_at AS releasedAt FROM episodes e
      JOIN episode_files l ON l.episode_id = e.id AND l.role = 'released' JOIN files f ON f.id = l.file_id
      WHERE e.show_id = ? AND e.status = 'released' ORDER BY e.release_at`,
    { replacements: [showId], type: QueryTypes.SELECT },
  )
  const first = episodes[0]!
  const isLarge = episodes.length > 2
  const audience = isLarge ? 420 : 90
  const everyDays = isLarge ? 14 : 28
  const older = Math.floor((+first.releasedAt - +today + daysBack * dayMs) / (everyDays * dayMs))
  const startsAt = +first.releasedAt - older * everyDays * dayMs
  /** The day on which a paper wrote about the show, and the evening of it. */
  const paperAt = +today - 200 * dayMs

  await addOlder()
  await addLines([...feedFetches(audience)])
  await addLines(episodes.flatMap((episode, n) => [...fetchesOf(episode, audience * (0.94 + 0.03 * n))]))
  await counter(platform).countAll()
  if (isLarge) {
    const scope = houseScope({ id: showId, showId })
    await addMark(database, scope, { day: dayIn(paperAt), words: 'In the lake district’s paper' })
    await addMark(database, scope, { day: dayIn(startsAt), words: 'First episode' })
  }

  function chosen<Row extends readonly [number, ...unknown[]]>(rows: readonly Row[]): Row {
    let left = random()
    return rows.find(([share]) => (left -= share) < 0) ?? rows.at(-1)!
  }

  function someone(): Listener {
    const [, agent, app, device] = chosen(programs)
    return { agent, app, device, place: chosen(places)[1] }
  }

  /** Half of it comes on the day of the release, a fifth within the days after it, and the rest in a long tail; most when people are up. */
  function momentAfter(releasedAt: number): number {
    const share = random()
    const day =
      share < 0.5 ? 0 : share < 0.72 ? 1 + random() * 2 : share < 0.9 ? 3 + random() * 11 : 14 + random() ** 2 * 70
    const hour = chosen([
      [0.28, 6.5],
      [0.22, 9],
      [0.16, 12.5],
      [0.22, 17.5],
      [0.12, 21],
    ])[1]
    const within = day < 1 ? Math.max(0, hour - 6 + (random() - 0.5) * 3) : hour - 6 + (random() - 0.5) * 3
    return releasedAt + Math.floor(day) * dayMs + within * hourMs
  }

  /** What the show had before the episodes of the demo: episodes that are gone from here, of which only the sums are left. */
  async function addOlder(): Promise<void> {
    const steps: Step[] = []
    for (let n = 0; n < older; n++) {
      const releasedAt = startsAt + n * everyDays * dayMs
      const episodeId = uuidV5(`episode ${n}`, showId)
      // It began small.
      const listeners = Math.round(audience * (0.25 + (0.6 * n) / older) * (0.9 + 0.2 * random()))
      const heardOf = isLarge && Math.abs(releasedAt - paperAt) < everyDays * dayMs ? 330 : 0
      for (let k = 0; k < listeners + heardOf; k++) {
        const at = k < listeners ? momentAfter(releasedAt) : paperAt + random() ** 2 * 3 * dayMs + 7 * hourMs
        if (at > +first.releasedAt) continue
        const { app, device, place } = someone()
        const source: Source = app === 'Web browser' ? 'page' : 'feed'
        steps.push({
          showId,
          episodeId,
          hour: hourOf(at),
          traits: { app, device, place, source },
          refusal: null,
          by: 1,
        })
      }
    }
    const labelsOf = labels(database)
    await transact(database, async transaction => {
      const labelOf = await labelsOf(namesIn(steps.map(({ traits }) => traits)))
      await addToSums(
        addedBy(steps, labelOf, () => null, null),
        transaction,
      )
    })
  }

  async function addLines(entries: DeliveryEntry[]): Promise<void> {
    const past = entries.filter(({ at }) => at < today).toSorted((one, other) => +one.at - +other.at)
    for (const batch of packed(past)) await keepLines(database, today, batch)
  }

  function* fetchesOf(episode: Released, listeners: number): Generator<DeliveryEntry> {
    const releasedAt = +episode.releasedAt
    for (let k = 0; k < listeners; k++) yield* oneListens(episode, momentAfter(releasedAt), someone())
    // A robot looks into everything each night.
    const robot = { agent: 'Lakespider/1.0 (+https://lakespider.example)', place: 'US', who: whoIs() }
    for (let at = releasedAt; at < +today; at += dayMs) yield line(episode, at + 20 * hourMs, robot)
    // A program that only asks whether there is something new.
    for (let n = 0; n < 30; n++) {
      const asking = { ...someone(), who: whoIs() }
      const at = releasedAt + random() * 10 * dayMs
      yield line(episode, at, { ...asking, ...(n % 2 ? { method: 'HEAD' } : { status: 304, bytesSent: 0 }) })
    }
    // A watch fetches what the telephone beside it has fetched.
    const pair = { place: 'CH', who: whoIs() }
    yield line(episode, releasedAt + hourMs, {
      ...pair,
      agent: 'AppleCoreMedia/1.0.0.21B91 (iPhone; U; CPU OS 17_1 like Mac OS X; en_gb)',
    })
    yield line(episode, releasedAt + hourMs + 3 * minuteMs, {
      ...pair,
      agent: 'atc/1.0 watchOS/10.1 model/Watch7,1 hwp/t8310 build/21S71 (6; dt:300)',
    })
    // A classroom: behind one address all that use the same program are one.
    const [browsers, tablets] = [whoIs(), whoIs()]
    for (let n = 0; n < 24; n++)
      yield line(episode, releasedAt + 3 * dayMs + 3 * hourMs + n * 4_000, {
        agent:
          n % 3 ? 'Kelp/3.1 (iPad; iPadOS 17.1)' : 'Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:128.0) Gecko/20100101',
        who: n % 3 ? tablets : browsers,
        place: 'AT',
        ...(n % 3 ? {} : { source: 'page' as const }),
      })
  }

  /** What one listener's program fetches: the whole, parts of it one after the other, or as much as was listened to. */
  function* oneListens(episode: Released, at: number, { agent, app, place }: Listener): Generator<DeliveryEntry> {
    const who = whoIs()
    const source: Source = app === 'Web browser' ? (random() < 0.75 ? 'page' : 'frame') : 'feed'
    const size = Number(episode.bytes)
    const part = (start: number, end: number, after: number): DeliveryEntry =>
      line(episode, at + after, {
        agent,
        who,
        place,
        source,
        status: 206,
        range: { start: Math.floor(start), end: Math.floor(end) - 1 },
        bytesSent: Math.floor(end) - Math.floor(start),
      })
    if (app === 'Web browser') {
      // Whoever presses play on the page hears some of it, and fetches no more than that.
      const heard = Math.min(1, 0.15 + 1.1 * random())
      for (let from = 0; from < heard; from += 0.2)
        yield part(from * size, Math.min(heard, from + 0.2) * size, from * 80_000)
    } else if (app === 'Tern') {
      // A network that splits what it carries.
      for (let n = 0; n < 8; n++) yield part((n / 8) * size, ((n + 1) / 8) * size, n * 300)
    } else {
      yield line(episode, at, { agent, who, place, source })
      if (random() < 0.15) yield line(episode, at + 40 * minuteMs, { agent, who, place, source })
    }
  }

  /** Apps that fetch the feed by themselves, each day most of them; and a service that fetches it once for many. */
  function* feedFetches(followers: number): Generator<DeliveryEntry> {
    for (let n = 0; n < feedDays; n++) {
      const day = Math.floor(+today / dayMs - n) * dayMs
      const ofFeed = (at: number, given: Partial<DeliveryEntry>): DeliveryEntry => ({
        ...line(first, at, { status: 304, bytesSent: 0, ...given }),
        kind: 'feed',
        episodeId: null,
        fileId: null,
      })
      for (let k = 0; k < followers * (0.42 + 0.1 * random() - 0.001 * n); k++)
        yield ofFeed(day + random() * dayMs, { ...someone(), source: 'feed', who: whoIs() })
      const readers = Math.round(followers * 0.2 - 0.3 * n)
      yield ofFeed(day + 4 * hourMs, { agent: `Reed Reader/2.1 (${readers} subscribers)`, who: whoIs(), place: 'DE' })
    }
  }

  function line(episode: Released, at: number, given: Partial<DeliveryEntry>): DeliveryEntry {
    return {
      at: new Date(Math.floor(at)),
      kind: 'media',
      showId,
      episodeId: episode.id,
      fileId: episode.fileId,
      method: 'GET',
      status: 200,
      bytesSent: given.method === 'HEAD' ? 0 : Number(episode.bytes),
      range: null,
      agent: '',
      who: '',
      place: null,
      source: 'feed',
      isHosted: false,
      isPrefetch: false,
      isCoarse: false,
      times: 1,
      ...given,
    }
  }

  function whoIs(): string {
    const half = (): string =>
      Math.floor(random() * 2 ** 32)
        .toString(16)
        .padStart(8, '0')
    return half() + half()
  }
}

const hourOf = (at: number): Date => new Date(Math.floor(at / hourMs) * hourMs)
const dayIn = (at: number): string => new Date(at).toISOString().slice(0, 10)
const namesIn = (traits: readonly Traits[]): Set<string> => new Set(traits.flatMap(({ app, place }) => [app, place!]))
