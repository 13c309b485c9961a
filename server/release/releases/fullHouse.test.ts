import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import type { Episode } from '@contract/episodes'
import { type House, openHouse } from '../../testing/house'
import { seed } from '../../testing/seed'
import { dueReleases } from './due'

let house: House
beforeAll(async () => {
  house = await openHouse()
  const show = await house.makeShow('bellows-and-reeds')
  const { id, version } = (await house.makeReady(show.id, 'The first of many')) as Episode
  await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
  await seed(house.platform.database, 'bellows-and-reeds', { shows: 100, episodesPerShow: 100 })
  // As after a moment at which much went out.
  await house.platform.database.query(
    `INSERT INTO jobs (id, kind, payload, subject, run_after, turn_at, created_at)
      SELECT UUID(), kind, '{}', UUID(), '2000-01-01' + INTERVAL seq SECOND, '2000-01-01' + INTERVAL 5000 - seq SECOND, '2000-01-01'
      FROM seq_1_to_5000 CROSS JOIN (SELECT 'check-feed' AS kind UNION SELECT 'index-words') kinds`,
  )
  for (const table of ['episodes', 'files', 'episode_files', 'jobs'])
    await house.platform.database.query(`ANALYZE TABLE ${table}`, { type: QueryTypes.SELECT })
})
afterAll(() => house.close())

/** Big tables, of which no question of the clock may read more than what it asks for; of what is due it reads as far as it takes. */
const big = ['files', 'f', 'episode_files', 'u', 'jobs', 'Job', 'notices', 'n']

/** What one question may read of one of them. */
const most = 500

interface Step {
  table: string | null
  type: string | null
  select_type: string
  rows: number | bigint | string | null
}

it('what is due is found without reading the house: no table of everything is made, and of none more is read than is asked for', async () => {
  const { database } = house.platform
  await database.query(
    `UPDATE episodes e JOIN shows s ON s.id = e.show_id AND s.slug LIKE 'seed-%' SET e.status = 'scheduled', e.release_zone = 'UTC'`,
  )
  const spy = vi.spyOn(database, 'query')
  const clock = dueReleases(house.platform)
  expect(await clock.releaseDue(10)).toBe(10)
  await clock.retireDue()
  await clock.noteUnready()
  const asked = spy.mock.calls.map(([sql, options]) => ({
    statement: String(sql).replace(/ FOR UPDATE SKIP LOCKED;?$/, ''),
    replacements: options?.replacements ?? {},
  }))
  spy.mockRestore()
  const questions = asked.filter(({ statement }) => /^\s*SELECT/.test(statement))
  expect(questions.length).toBeGreaterThan(10)
  const wrong: string[] = []
  for (const { statement, replacements } of questions)
    for (const step of await database.query<Step>(`EXPLAIN ${statement}`, { replacements, type: QueryTypes.SELECT })) {
      const isMuch = big.includes(step.table ?? '') && Number(step.rows) > most
      if (isMuch || step.select_type === 'MATERIALIZED')
        wrong.push(`${step.select_type} ${step.type} of ${step.rows} in ${step.table}: ${statement.slice(0, 300)}`)
    }
  expect(wrong).toEqual([])
})

it('the next job is found without looking through all that are due', async () => {
  const { database, jobs } = house.platform
  const spy = vi.spyOn(database, 'query')
  await jobs.runNext('network')
  const asked = spy.mock.calls.map(([sql]) => String(sql)).filter(sql => /^SELECT.*FROM `jobs`/.test(sql))
  spy.mockRestore()
  expect(asked.length).toBeGreaterThan(0)
  // The estimate is of all that are due; what was read is told by reading.
  const read = await Promise.all(
    asked.map(async sql => {
      const [told] = await database.query<Record<string, string>>(`ANALYZE FORMAT=JSON ${sql}`, {
        type: QueryTypes.SELECT,
      })
      return Math.max(...[...Object.values(told!)[0]!.matchAll(/"r_rows": ([\d.]+)/g)].map(([, rows]) => Number(rows)))
    }),
  )
  expect(Math.max(...read)).toBeLessThanOrEqual(100)
})
