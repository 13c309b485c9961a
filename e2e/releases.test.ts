import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { createConnection } from 'mariadb'
import { expect, inject, it, onTestFinished } from 'vitest'
import { startDatabase } from '../scripts/setup/database.mjs'
import { freePort } from '../scripts/setup/ports.mjs'
import { startProgram } from '../scripts/setup/programs.mjs'
import { clockOf, sqlMoment } from './clock'
import { copyOf } from './demoTemplate'

const processes = 3
/** In each round so many fall due within a second, and one process is killed in mid-work and started again. */
const rounds = 10
const inRound = 20
/** And so many while the database is away. */
const whileAway = 5
const episodes = rounds * inRound + whileAway

it('two hundred releases by three processes of which one or another is killed all the time, and some while the database is away: none is lost, none happens twice, each is told of once', async () => {
  const folder = await copyOf(inject('demoFolder'))
  let database = await startDatabase(folder)
  const [outboxPort, smtpPort] = [await freePort(), await freePort()]
  const outbox = startProgram('dist/server/outbox.js', {
    OUTBOX_PORT: String(outboxPort),
    OUTBOX_SMTP_PORT: String(smtpPort),
  })
  await outbox.listening
  const start = async (): Promise<{ server: ReturnType<typeof startProgram>; address: string }> => {
    const port = await freePort()
    const address = `http://127.0.0.1:${port}`
    const environment = { PORT: String(port), DATABASE_URL: database.url, MEDIA_DIR: join(folder, 'media') }
    const mail = { ...clockOf(), SMTP_URL: `smtp://127.0.0.1:${smtpPort}` }
    const server = startProgram('dist/server/main.js', { ...environment, ...mail, LOG_LEVEL: 'silent' })
    await server.listening
    return { server, address }
  }
  const house = await Promise.all(Array.from({ length: processes }, start))
  let connection = await createConnection(database.url)
  onTestFinished(async () => {
    await connection.end()
    await Promise.all([...house.map(({ server }) => server.stop()), outbox.stop()])
    await database.stop()
    await rm(folder, { recursive: true, force: true })
  })
  const ask = (statement: string): Promise<Record<string, unknown>[]> => connection.query(statement)
  const show = "(SELECT id FROM shows WHERE slug = 'bellows-and-reeds')"
  await ask(`INSERT INTO episodes (id, show_id, guid, title, notes, status, created_at, updated_at)
    SELECT UUID(), ${show}, UUID(), CONCAT('Crossing ', seq), '', 'draft', ${sqlMoment()}, ${sqlMoment()}
    FROM seq_1_to_${episodes}`)
  await ask(`INSERT INTO episode_files (episode_id, role, file_id)
    SELECT e.id, 'source', (SELECT file_id FROM episode_files u JOIN episodes o ON o.id = u.episode_id WHERE u.role = 'released' LIMIT 1)
    FROM episodes e WHERE e.title LIKE 'Crossing %'`)
  await ask('DELETE FROM events')

  const left = async (): Promise<number> =>
    Number(
      (await ask("SELECT COUNT(*) AS count FROM episodes WHERE status = 'scheduled' AND title LIKE 'Crossing %'"))[0]!
        .count,
    )
  for (let round = 0; round < rounds; round++) {
    const theirs = Array.from({ length: inRound }, (_, index) => `'Crossing ${round * inRound + index + 1}'`).join(', ')
    await ask(`UPDATE episodes SET status = 'scheduled', release_zone = 'UTC',
      release_at = ${sqlMoment()} + INTERVAL FLOOR(RAND() * 1000) * 1000 MICROSECOND WHERE title IN (${theirs})`)
    await wait(Math.random() * 1000)
    const victim = Math.floor(Math.random() * processes)
    await house[victim]!.server.stop('SIGKILL')
    house[victim] = await start()
  }
  // The database goes while others fall due, and comes back.
  await ask(`UPDATE episodes SET status = 'scheduled', release_zone = 'UTC', release_at = ${sqlMoment(2_000)}
    WHERE status = 'draft' AND title LIKE 'Crossing %'`)
  await connection.end()
  await database.stop()
  await wait(6_000)
  database = await startDatabase(folder, { port: database.port })
  connection = await createConnection(database.url)
  const planned = await ask("SELECT id, release_at FROM episodes WHERE title LIKE 'Crossing %' ORDER BY id")
  while ((await left()) > 0) await wait(200)

  const released = await ask(
    "SELECT id, guid, title, slug, version, release_at FROM episodes WHERE status = 'released' AND title LIKE 'Crossing %' ORDER BY id",
  )
  expect(released.map(({ id, release_at }) => ({ id, release_at }))).toEqual(planned)
  expect(new Set(released.map(({ slug }) => slug)).size).toBe(episodes)
  // Each release counts the version up, and is one row of news.
  expect(new Set(released.map(({ version }) => Number(version)))).toEqual(new Set([2]))
  const told = await ask("SELECT subject, COUNT(*) AS count FROM events WHERE kind = 'episode' GROUP BY subject")
  expect(told).toHaveLength(episodes)
  expect(new Set(told.map(({ count }) => Number(count)))).toEqual(new Set([1]))
  // A mail that was sent twice because its process died has one Message-ID.
  const mails = async (): Promise<string[]> => {
    const all = (await (await fetch(`http://127.0.0.1:${outboxPort}/mails`)).json()) as {
      messageId: string
      text: string
    }[]
    return [...new Map(all.map(({ messageId, text }) => [messageId, text])).values()]
  }
  const timesTold = async (): Promise<number[]> => {
    const text = (await mails()).join('\n')
    return released.map(({ title }) => text.split(`\n${String(title)}\n`).length - 1)
  }
  await expect.poll(async () => Math.min(...(await timesTold()))).toBe(1)
  expect(new Set(await timesTold())).toEqual(new Set([1]))
  for (const { address } of house) {
    const feed = await (await fetch(`${address}/bellows-and-reeds/feed.xml`)).text()
    for (const { guid } of released) expect(feed.split(String(guid))).toHaveLength(2)
  }
})
