import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { readFileSync } from 'node:fs'
import { performance } from 'node:perf_hooks'
import { demoAccount } from '../demo/scenario'
import { systemClock } from '@server/clock'
import { readConfiguration } from '@server/configuration'
import { openPlatform } from '@server/openPlatform'
import { seed } from './seed'

const size = { shows: Number(process.env.SHOWS || 5_000), episodesPerShow: Number(process.env.EPISODES || 200) }
const port = 4396

/** What size does: lists, feeds and memory in a house of many shows, against the same house before they came. */
export async function benchSize(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  const before = await withServer(async house => ({
    feed: await slowest(() => house.get('/bellows-and-reeds/feed.xml')),
    notModified: await slowest(() => house.get('/bellows-and-reeds/feed.xml', house.ifNoneMatch)),
  }))
  const began = performance.now()
  await seed(platform.database, 'bellows-and-reeds', size)
  console.log(
    `seeded ${size.shows} shows of ${size.episodesPerShow} episodes in ${Math.round((performance.now() - began) / 1000)} s`,
  )
  await withServer(async house => {
    const after = {
      feed: await slowest(() => house.get('/bellows-and-reeds/feed.xml')),
      notModified: await slowest(() => house.get('/bellows-and-reeds/feed.xml', house.ifNoneMatch)),
    }
    console.log(
      `a warm feed, 99th percentile against the house before: ${(after.feed / before.feed).toFixed(2)} (${after.feed.toFixed(2)} : ${before.feed.toFixed(2)} ms)`,
    )
    console.log(
      `a 304 of it: ${(after.notModified / before.notModified).toFixed(2)} (${after.notModified.toFixed(2)} : ${before.notModified.toFixed(2)} ms)`,
    )
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
        `GET ${path.replace(id, '{id}')}: ${(await slowest(() => house.get(path), 40)).toFixed(0)} ms at the 99th percentile`,
      )
    }
    for (let n = 1; n <= 2_000; n++) await house.get(`/seed-${n}/feed.xml`)
    console.log(`memory after 2,000 different feeds: ${house.memoryMb()} MB`)
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
  const server = spawn(process.execPath, ['dist/server/main.js'], {
    env: { ...process.env, PORT: String(port), PUBLIC_URL: `http://127.0.0.1:${port}` },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  })
  await once(server, 'message')
  const base = `http://127.0.0.1:${port}`
  const answer = await fetch(`${base}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(demoAccount),
  })
  const cookie = answer.headers.getSetCookie()[0]!.split(';')[0]!
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
    server.kill('SIGTERM')
    await once(server, 'close')
  }
}

/** The 99th percentile of the time that something takes, in ms. */
async function slowest(act: () => Promise<unknown>, times = 2_000): Promise<number> {
  const taken: number[] = []
  for (let n = 0; n < times; n++) {
    const began = performance.now()
    await act()
    taken.push(performance.now() - began)
  }
  return taken.sort((one, other) => one - other)[Math.ceil(times * 0.99) - 1]!
}
