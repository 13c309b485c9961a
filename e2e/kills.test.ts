import { createHash, randomBytes } from 'node:crypto'
import { execFileSync } from 'node:child_process'
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { DateTime } from 'luxon'
import { createConnection } from 'mariadb'
import { Upload } from 'tus-js-client'
import { afterAll, beforeAll, expect, inject, it, onTestFinished, vi } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { Sound } from '@contract/sound'
import { startDatabase } from '../scripts/setup/database.mjs'
import { freePort } from '../scripts/setup/ports.mjs'
import { startProgram } from '../scripts/setup/programs.mjs'
import { clockOf, now } from './clock'

/** How often the server is killed; KILLS=40 for the long run. */
const kills = Number(process.env.KILLS ?? 5)
const episodesCount = Math.max(4, Math.round(kills / 2))
const account = { email: 'demo@lakeletter.example', password: 'lake-letter-demo' }

let folder: string
let database: Awaited<ReturnType<typeof startDatabase>>
let server: ReturnType<typeof startProgram>
let address: string
let start: () => ReturnType<typeof startProgram>
let cookie: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'lake-letter-kills-'))
  database = await startDatabase(folder)
  const port = await freePort()
  address = `http://127.0.0.1:${port}`
  start = () =>
    startProgram('dist/server/main.js', {
      PORT: String(port),
      DATABASE_URL: database.url,
      MEDIA_DIR: join(folder, 'media'),
      LOG_LEVEL: 'silent',
      ...clockOf(),
    })
  server = start()
  await server.listening
  const connection = await createConnection(database.url)
  await connection.query('INSERT INTO clock_offset (id, offset_ms) VALUES (1, ?)', [inject('clockOffsetMs')])
  await connection.end()
  // Who signs in before the server has that clock is signed out by it.
  if (inject('clockOffsetMs') !== 0)
    await vi.waitFor(async () => {
      const { offsetMs } = await (await fetch(`${address}/api/v1/clock`)).json()
      expect(offsetMs).toBe(inject('clockOffsetMs'))
    }, 10_000)
})
afterAll(async () => {
  await server.stop()
  await database.stop()
  await rm(folder, { recursive: true, force: true })
})

type Whole = Episode & { sound: Sound }

/** Asks until there is an answer that is not the server's falling. */
async function call(method: string, path: string, body?: unknown): Promise<{ status: number; json: never }> {
  for (;;) {
    const answer = await fetch(`${address}/api/v1${path}`, {
      method,
      headers: { cookie: cookie ?? '', ...(body !== undefined && { 'content-type': 'application/json' }) },
      body: body === undefined ? undefined : JSON.stringify(body),
      signal: AbortSignal.timeout(8000),
    }).catch(() => null)
    const text = answer && (await answer.text().catch(() => null))
    if (answer && text !== null && answer.status < 500) {
      cookie ||= answer.headers.getSetCookie()[0]?.split(';')[0] ?? ''
      return { status: answer.status, json: (text ? JSON.parse(text) : null) as never }
    }
    await wait(150)
  }
}
const get = async (id: string): Promise<Whole> => ({
  ...((await call('GET', `/episodes/${id}`)).json as Episode),
  sound: (await call('GET', `/episodes/${id}/sound`)).json,
})

/** Does a step from the newest version on until the episode is where it leads; a step whose answer was lost was done all the same. */
async function until(
  id: string,
  isDone: (episode: Whole) => boolean,
  step: (episode: Whole) => Promise<unknown>,
): Promise<Whole> {
  for (;;) {
    const episode = await get(id)
    if (isDone(episode)) return episode
    await step(episode)
    await wait(200)
  }
}

const upload = (episodeId: string, name: string, bytes: Buffer): Promise<void> =>
  new Promise((resolve, reject) => {
    new Upload(bytes, {
      endpoint: `${address}/api/v1/uploads`,
      chunkSize: 200_000,
      retryDelays: Array.from({ length: 400 }, () => 200),
      headers: { cookie },
      metadata: { episodeId, filename: name },
      onShouldRetry: () => true,
      onError: reject,
      onSuccess: () => resolve(),
    }).start()
  })

async function bringOut(
  showId: string,
  n: number,
): Promise<{ id: string; guid: string; sha256: string; title: string }> {
  const title = `Crossing ${n}`
  const bytes = execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `sine=frequency=${200 + n * 7}:duration=45`,
      '-b:a',
      '192k',
      '-metadata',
      `comment=${randomBytes(8).toString('hex')}`,
      '-f',
      'mp3',
      '-',
    ],
    { maxBuffer: 1e8 },
  )
  const sha256 = createHash('sha256').update(bytes).digest('hex')
  const made: Episode = (await call('POST', `/shows/${showId}/episodes`, { title })).json
  await upload(made.id, `${n}.mp3`, bytes)
  await until(
    made.id,
    ({ sound }) => sound.source?.measuring === 'done',
    async () => undefined,
  )
  await until(
    made.id,
    ({ sound }) => sound.finishing === 'done',
    ({ sound }) =>
      sound.finishing === 'working'
        ? Promise.resolve()
        : call('POST', `/episodes/${made.id}/finish`, {
            version: sound.version,
            recipe: { ...sound.usual, encoding: 'speech' },
          }),
  )
  const local = DateTime.fromJSDate(now(), { zone: 'utc' }).plus({ minutes: 1 }).toFormat("yyyy-MM-dd'T'HH:mm")
  const when = n % 2 ? { kind: 'now' } : { kind: 'at', local, zone: 'UTC' }
  const { guid } = await until(
    made.id,
    ({ status }) => status !== 'draft',
    ({ version }) => call('POST', `/episodes/${made.id}/release`, { version, when }),
  )
  await until(
    made.id,
    ({ status }) => status === 'released',
    async () => undefined,
  )
  return { id: made.id, guid, sha256, title }
}

it(`${kills} times killed amid uploads, finishes and releases, the server loses nothing, does nothing twice and hangs nowhere`, async () => {
  await call('POST', '/accounts', account)
  const show = (
    await call('POST', '/shows', {
      slug: 'slow-ferry',
      name: 'Slow Ferry',
      description: 'Crossings.',
      language: 'en',
      author: 'Tove Aldermoor',
      ownerEmail: 'workshop@bellowsandreeds.example',
      category: 'Leisure',
      subcategory: null,
      explicit: false,
      type: 'episodic',
      zone: 'Europe/Zurich',
    })
  ).json as { id: string }
  let done = false
  const work = (async () => {
    const all: Awaited<ReturnType<typeof bringOut>>[] = []
    for (let n = 0; n < episodesCount; n += 3)
      all.push(
        ...(await Promise.all(
          [n, n + 1, n + 2].filter(each => each < episodesCount).map(each => bringOut(show.id, each)),
        )),
      )
    return all
  })().finally(() => {
    done = true
  })
  let killed = 0
  for (; killed < kills && !done; killed++) {
    await wait(600 + Math.random() * 3500)
    await server.stop('SIGKILL')
    server = start()
    await server.listening
  }
  const brought = await work
  expect(killed).toBeGreaterThanOrEqual(Math.min(kills, 3))

  const feed = await (await fetch(`${address}/slow-ferry/feed.xml`)).text()
  for (const { id, guid, sha256, title } of brought) {
    expect(feed.split(guid), title).toHaveLength(2)
    const {
      sound: { source, finished },
    } = await get(id)
    expect(source!.fingerprint, title).toBe(sha256)
    const kept = await readFile(join(folder, 'media/files', finished!.fingerprint.slice(0, 2), finished!.fingerprint))
    expect(createHash('sha256').update(kept).digest('hex'), title).toBe(finished!.fingerprint)
  }
  expect(new Set(brought.map(({ guid }) => guid)).size).toBe(episodesCount)

  const connection = await createConnection(database.url)
  onTestFinished(() => connection.end())
  await expect
    .poll(() =>
      connection.query(
        "SELECT state AS kind, NULL AS attempts, NULL AS failures, NULL AS error FROM uploads WHERE state IN ('receiving', 'reading') UNION SELECT kind, attempts, failures, error FROM jobs WHERE state = 'open' AND kind <> 'enforce-retention'",
      ),
    )
    .toEqual([])
  expect(await connection.query("SELECT kind, attempts, failures, error FROM jobs WHERE state = 'failed'")).toEqual([])
  await expect
    .poll(async () => (await readdir(join(folder, 'media/inbox'))).filter(name => /^[0-9a-f]{32}$/.test(name)))
    .toEqual([])
}, 1_800_000)
