import { performance } from 'node:perf_hooks'
import { setTimeout as wait } from 'node:timers/promises'
import { QueryTypes } from 'sequelize'
import { systemClock } from '@server/platform/clock'
import { readConfiguration } from '@server/platform/configuration'
import { openPlatform } from '@server/app/openPlatform'
import { seed } from '@server/testing/seed'
import { median } from './median'
import { cookieAt, startServer, stopServer } from './server'

const episodes = 200
const rounds = 15
const ports = [4396, 4397]
const everyMs = 5
const patienceMs = 10_000

/**
 * How soon a release is heard of: from the press until the new feed of 200 items is sent, by the process that was asked and by
 * another one, each asked again every few milliseconds; against saving a word of a draft, which no feed tells.
 */
export async function benchFresh(): Promise<void> {
  const platform = await openPlatform(readConfiguration(process.env), systemClock)
  const { database } = platform
  await seed(database, 'bellows-and-reeds', { shows: 1, episodesPerShow: episodes })
  const held = await database.query<{ id: string; guid: string }>(
    "SELECT e.id, e.guid FROM episodes e JOIN shows s ON s.id = e.show_id WHERE s.slug = 'seed-1' ORDER BY e.number LIMIT :rounds",
    { replacements: { rounds }, type: QueryTypes.SELECT },
  )
  const ids = held.map(({ id }) => id)
  await database.query("DELETE FROM episode_files WHERE role = 'released' AND episode_id IN (:ids)", {
    replacements: { ids },
  })
  await database.query(
    "UPDATE episodes SET status = 'draft', recipe = NULL, finishing = 'none', slug = NULL, released = NULL, release_at = NULL WHERE id IN (:ids)",
    { replacements: { ids } },
  )
  const [asked, other] = ports.map(port => `http://127.0.0.1:${port}`) as [string, string]
  const servers = await Promise.all(ports.map(port => startServer(port, asked)))
  const cookie = await cookieAt(asked)
  const send = async (method: string, path: string, body: object): Promise<{ version: number }> => {
    const answer = await fetch(`${asked}/api/v1${path}`, {
      method,
      headers: { cookie, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
    if (!answer.ok) throw new Error(`${path} answered with ${answer.status}: ${await answer.text()}`)
    return (await answer.json()) as { version: number }
  }
  const heardAt = async (house: string, guid: string, since: number): Promise<number> => {
    for (;;) {
      const text = await (await fetch(`${house}/seed-1/feed.xml`)).text()
      if (text.includes(guid)) return performance.now() - since
      if (performance.now() - since > patienceMs) throw new Error(`${house} does not tell of the release.`)
      await wait(everyMs)
    }
  }
  const [saving, here, there]: [number[], number[], number[]] = [[], [], []]
  for (const { id, guid } of held) {
    const { version } = (await (await fetch(`${asked}/api/v1/episodes/${id}`, { headers: { cookie } })).json()) as {
      version: number
    }
    const from = performance.now()
    const saved = await send('PATCH', `/episodes/${id}`, { version, text: { hook: `As of ${from}` } })
    saving.push(performance.now() - from)
    const began = performance.now()
    const [soon, late] = await Promise.all([
      heardAt(asked, guid, began),
      heardAt(other, guid, began),
      send('POST', `/episodes/${id}/release`, { version: saved.version, when: { kind: 'now' } }),
    ])
    here.push(soon)
    there.push(late)
  }
  const [save, soon, late] = [saving, here, there].map(median) as [number, number, number]
  console.log(
    `from the press of a release to the new feed of ${episodes} items, against saving a word: ${(soon / save).toFixed(1)} (${soon.toFixed(0)} : ${save.toFixed(0)} ms, at most ${Math.max(...here).toFixed(0)}); by another process ${(late / save).toFixed(1)} (${late.toFixed(0)} ms, at most ${Math.max(...there).toFixed(0)})`,
  )
  for (const server of servers) await stopServer(server)
  await platform.deliveries.stop()
  await platform.events.stop()
  await database.close()
}
