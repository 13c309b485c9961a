import { mkdtemp, rm } from 'node:fs/promises'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import autocannon from 'autocannon'
import Fastify, { type FastifyInstance } from 'fastify'
import { start } from '@server/start'
import { readConfiguration } from '@server/configuration'

const seconds = 3
const rounds = 5

async function requestsPerSecond(url: string, headers: Record<string, string>): Promise<number> {
  const { requests } = await autocannon({ url, headers, connections: 20, duration: seconds, workers: 1 })
  return requests.average
}

/** Serving the demo's feed and a 304, in requests a second, against a bare Fastify route that sends the same bytes from memory. */
export async function benchServing(): Promise<void> {
  const media = await mkdtemp(join(tmpdir(), 'lake-letter-bench-'))
  const house = await start(readConfiguration({ ...process.env, PORT: '0', MEDIA_DIR: process.env.MEDIA_DIR ?? media, PUBLIC_URL: 'http://127.0.0.1:4310' }))
  const feed = `${house.address}/bellows-and-reeds/feed.xml`
  const answer = await fetch(feed, { headers: { 'accept-encoding': 'identity' } })
  const body = Buffer.from(await answer.arrayBuffer())
  const etag = answer.headers.get('etag')!
  const bare = await bareServer(body, answer.headers)
  const bareAddress = `http://127.0.0.1:${(bare.server.address() as AddressInfo).port}`
  for (const [name, headers, path] of [['feed', {}, '/feed'], ['304', { 'if-none-match': etag }, '/not-modified']] as const) {
    const pairs: [number, number][] = []
    await requestsPerSecond(feed, headers)
    for (let n = 0; n < rounds; n++) pairs.push([await requestsPerSecond(feed, headers), await requestsPerSecond(bareAddress + path, headers)])
    const [ours, theirs] = pairs.sort(([a, b], [c, d]) => a / b - c / d)[Math.floor(rounds / 2)]!
    console.log(`serving the ${name}, requests against a bare route: ${(ours / theirs).toFixed(2)} (${Math.round(ours)} : ${Math.round(theirs)} a second, ${body.length} bytes)`)
  }
  await bare.close()
  await house.stop()
  await rm(media, { recursive: true, force: true })
}

async function bareServer(body: Buffer, sent: Headers): Promise<FastifyInstance> {
  const app = Fastify()
  const names = ['etag', 'last-modified', 'cache-control', 'vary', 'access-control-allow-origin']
  const headers = Object.fromEntries(names.map(name => [name, sent.get(name)!]))
  app.get('/feed', (_request, reply) => { reply.headers(headers).type('application/rss+xml; charset=utf-8').send(body) })
  app.get('/not-modified', (_request, reply) => { reply.code(304).headers(headers).send() })
  await app.listen({ port: 0, host: '127.0.0.1' })
  return app
}
