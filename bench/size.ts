import { readFileSync } from 'node:fs'
import { performance } from 'node:perf_hooks'
import { systemClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import { openPlatform } from '@server/app/openPlatform'
import { seed } from '@server/testing/seed'
import { cookieAt, startServer, stopServer } from './server'

const size = { shows: Number(process.env.SHOWS || 5_000), episodesPerShow: Number(process.env.EPISODES || 200) }
const port = 4396

/** What size does: lists, feeds and memory in a house of many shows, against the same house before they came. */
export async function benchSize(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  const before = await withServer(ofFeed)
  const began = performance.now()
  await seed(platform.database, 'bellows-and-reeds', size)
  console.log(
    `seeded ${size.shows} shows of ${size.episodesPerShow} episodes in ${Math.round((performance.now() - began) / 1000)} s`,
  )
  await withServer(async house => {
    const after = await ofFeed(house)
    for (const [what, [median, late]] of Object.entries(after)) {
      const [medianBefore, lateBefore] = before[what as keyof typeof before]
      const against = (one: number, other: number): string =>
        `${(one / other).toFixed(2)} (${one.toFixed(2)} : ${other.toFixed(2)} ms)`
      console.log(
        `${what}, against the house before: median ${against(median, medianBefore)}, 99th percentile ${against(late, lateBefore)}`,
      )
    }
    const { id } = JSON.parse(await house.get('/api/v1/shows/at/seed-2500')) as { id: string }
    for (const path of [
      '/api/v1/shows',
      '/api/v1/shows?find=2500',
      '/api/v1/shows/at/seed-2500',
      `/api/v1/shows/${id}/episodes`,
      `/api/v1/shows/${id}/episodes/near`,
      `/api/v1/shows/${id}/episodes?find=150`,
      `/api/v1/shows/${id}/files`,
    ]) {
      await house.get(path)
      console.log(
        `GET ${path.replace(id, '{id}')}: ${(await taken(() => house.get(path), 40))[1].toFixed(0)} ms at the 99th percentile`,
      )
    }
    let n = 0
    const [median, late] = await taken(() => house.get(`/seed-${++n}/feed.xml`))
    console.log(
      `${n} different feeds, each asked for the first time: ${median.toFixed(0)} ms at the median, ${late.toFixed(0)} at the 99th percentile; memory then: ${house.memoryMb()} MB`,
    )
  })
  await platform.deliveries.stop()
  await platform.events.stop()
  await platform.database.close()
}

interface House {
  get(path: string, headers?: Record<string, string>): Promise<string>
  ifNoneMatch: Record<string, string>
  memoryMb(): number
}

async function withServer<T>(act: (house: House) => Promise<T>): Promise<T> {
  const server = await startServer(port)
  const base = `http://127.0.0.1:${port}`
  const cookie = await cookieAt(base)
  const get: House['get'] = async (path, headers = {}) => {
    const got = await fetch(base + path, { headers: { cookie, ...headers } })
    if (!got.ok && got.status !== 304) throw new Error(`${path} answered with ${got.status}.`)
    return got.text()
  }
  const etag = (await fetch(`${base}/bellows-and-reeds/feed.xml`)).headers.get('etag')!
  const memoryMb = (): number =>
    Math.round(Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))![1]) / 1024)
  try {
    return await act({ get, ifNoneMatch: { 'if-none-match': etag }, memoryMb })
  } finally {
    await stopServer(server)
  }
}

const ofFeed = async (house: House) => ({
  'a warm feed': await taken(() => house.get('/bellows-and-reeds/feed.xml')),
  'a 304 of it': await taken(() => house.get('/bellows-and-reeds/feed.xml', house.ifNoneMatch)),
})

/** The median and the 99th percentile of the time that something takes, in ms. */
async function taken(act: () => Promise<unknown>, times = 2_000): Promise<[median: number, late: number]> {
  const each: number[] = []
  for (let n = 0; n < times; n++) {
    const began = performance.now()
    await act()
    each.push(performance.now() - began)
  }
  each.sort((one, other) => one - other)
  return [each[times >> 1]!, each[Math.ceil(times * 0.99) - 1]!]
}
