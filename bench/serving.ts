import { mkdtemp, rm } from 'node:fs/promises'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { compare } from './load'
import { benchProxy } from './proxy'
import Fastify, { type FastifyInstance } from 'fastify'
import { start } from '@server/app/start'
import { readConfiguration } from '@server/platform/configuration'

const partBytes = 64 * 1024

interface Row {
  name: string
  path: string
  /** The bare route that stands beside it. */
  bare: string
  headers?: Record<string, string>
  method?: 'HEAD'
}

/**
 * Serving the demo's feed, its pages and its audio, in requests a second, against bare Fastify routes that send the same bytes
 * from memory.
 */
export async function benchServing(): Promise<void> {
  const media = await mkdtemp(join(tmpdir(), 'lake-letter-bench-'))
  const house = await start(
    readConfiguration({
      ...process.env,
      PORT: '0',
      MEDIA_DIR: process.env.MEDIA_DIR ?? media,
      PUBLIC_URL: 'http://127.0.0.1:4310',
    }),
  )
  const identity = { 'accept-encoding': 'identity' }
  const feed = await fetched(`${house.address!}/bellows-and-reeds/feed.xml`, identity)
  const page = await fetched(`${house.address!}/bellows-and-reeds`, identity)
  const sound = new URL(/<enclosure url="([^"]+)"/.exec(feed.body.toString())![1]!).pathname
  const audio = await fetched(house.address! + sound)
  const bare = await bareServer({ feed, page, audio })
  const rows: Row[] = [
    {
      name: `the feed (${feed.body.length} bytes)`,
      path: '/bellows-and-reeds/feed.xml',
      bare: '/feed',
      headers: identity,
    },
    {
      name: 'a 304 of the feed',
      path: '/bellows-and-reeds/feed.xml',
      bare: '/not-modified',
      headers: { 'if-none-match': feed.headers.get('etag')!, ...identity },
    },
    { name: `a public page (${page.body.length} bytes)`, path: '/bellows-and-reeds', bare: '/page', headers: identity },
    {
      name: `audio, ranges of ${partBytes} bytes`,
      path: sound,
      bare: '/part',
      headers: { range: `bytes=65536-${65536 + partBytes - 1}` },
    },
    { name: `audio, whole (${audio.body.length} bytes)`, path: sound, bare: '/audio' },
    { name: 'audio, HEAD', path: sound, bare: '/audio', method: 'HEAD' },
  ]
  const bareAddress = `http://127.0.0.1:${(bare.server.address() as AddressInfo).port}`
  for (const row of rows)
    await compare(
      `serving ${row.name}, requests against a bare route`,
      { ...row, url: house.address! + row.path },
      { ...row, url: bareAddress + row.bare },
    )
  await benchProxy(sound, process.env.MEDIA_DIR ?? media)
  await bare.close()
  await house.stop()
  await rm(media, { recursive: true, force: true })
}

interface Fetched {
  body: Buffer
  headers: Headers
}

async function fetched(url: string, headers: Record<string, string> = {}): Promise<Fetched> {
  const answer = await fetch(url, { headers })
  return { body: Buffer.from(await answer.arrayBuffer()), headers: answer.headers }
}

async function bareServer({ feed, page, audio }: Record<'feed' | 'page' | 'audio', Fetched>): Promise<FastifyInstance> {
  const app = Fastify()
  const names = [
    'etag',
    'last-modified',
    'cache-control',
    'content-type',
    'accept-ranges',
    'vary',
    'access-control-allow-origin',
  ]
  const headersOf = ({ headers }: Fetched) =>
    Object.fromEntries(names.flatMap(name => (headers.has(name) ? [[name, headers.get(name)!]] : [])))
  const [feedHeaders, pageHeaders, audioHeaders] = [feed, page, audio].map(headersOf)
  const part = audio.body.subarray(65536, 65536 + partBytes)
  app.get('/feed', (_request, reply) => {
    reply.headers(feedHeaders!).send(feed.body)
  })
  app.get('/not-modified', (_request, reply) => {
    reply.code(304).headers(feedHeaders!).send()
  })
  app.get('/page', (_request, reply) => {
    reply.headers(pageHeaders!).send(page.body)
  })
  app.get('/audio', (_request, reply) => {
    reply.headers(audioHeaders!).send(audio.body)
  })
  app.get('/part', (_request, reply) => {
    reply
      .code(206)
      .headers({ ...audioHeaders, 'content-range': `bytes 65536-${65536 + partBytes - 1}/${audio.body.length}` })
      .send(part)
  })
  await app.listen({ port: 0, host: '127.0.0.1' })
  return app
}
