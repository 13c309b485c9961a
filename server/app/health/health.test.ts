import { setTimeout as wait } from 'node:timers/promises'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { createApp } from '../app'
import { migrate } from '../../platform/database/migrate'
import { openDatabase } from '../openDatabase'
import { freshDatabase, type House, openHouse } from '../../testing/house'
import { heldLoop } from './heldLoop'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

describe('health', () => {
  it('says that database and media store answer', async () => {
    expect((await house.app.inject({ url: '/healthz' })).json()).toMatchObject({ status: 'up' })
    expect((await house.app.inject({ url: '/readyz' })).json()).toEqual({
      status: 'ready',
      database: 'answers',
      media: 'answers',
    })
  })
})

describe('errors', () => {
  it('are problems as RFC 9457 section 3 has them, and carry no stack, path or SQL', async () => {
    const answers = await Promise.all([
      house.call('GET', '/nothing-here'),
      house.call('GET', '/episodes/not-a-uuid'),
      house.app.inject({
        method: 'POST',
        url: '/api/v1/session',
        headers: { 'content-type': 'application/json' },
        payload: '{"email":',
      }),
      house.app.inject({
        method: 'POST',
        url: '/api/v1/session',
        headers: { 'content-type': 'text/csv' },
        payload: 'a,b',
      }),
    ])
    for (const answer of answers) {
      expect(answer.headers['content-type']).toContain('application/problem+json')
      const problem = answer.json()
      expect(problem).toMatchObject({
        type: expect.stringMatching(/^urn:lake-letter:/),
        title: expect.any(String),
        status: answer.statusCode,
        detail: expect.any(String),
        todo: expect.any(String),
      })
      expect(answer.body).not.toMatch(/node_modules|\.ts:|SELECT|at \w+ \(/)
    }
  })

  it('of our own making say nothing of what broke', async () => {
    const media = {
      ...house.platform.media,
      read: () => {
        throw new Error('secret /var/lib/path')
      },
    }
    const app = await createApp({ ...house.platform, media })
    const show = await house.makeShow('breaks')
    const answer = await app.inject({ url: new URL(show.artworkAddress).pathname })
    expect(answer.statusCode).toBe(500)
    expect(answer.body).not.toContain('secret')
    await app.close()
  })
})

it('the schema of an empty database is brought up to date by one of two processes that start together, and a second time changes nothing', async () => {
  const database = openDatabase(await freshDatabase())
  const tables = () =>
    database.query<{ name: string; statement: string }>(
      'SELECT table_name AS name, column_name AS col, column_type AS type FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY 1, 2',
      { type: QueryTypes.SELECT },
    )
  expect(await tables()).toEqual([])
  await Promise.all([migrate(database), migrate(database)])
  const made = await tables()
  expect(made).toContainEqual({ name: 'episodes', col: 'title', type: 'varchar(300)' })
  await migrate(database)
  expect(await tables()).toEqual(made)
  await database.close()
})

it('the API describes itself, with the schemas of the contract', async () => {
  const described = (await house.app.inject({ url: '/api/v1/openapi.json' })).json()
  expect(Object.keys(described.paths)).toContain('/api/v1/episodes/{id}/release')
  expect(described.paths['/api/v1/shows'].post.requestBody.content['application/json'].schema.required).toEqual(
    expect.arrayContaining(['name', 'slug', 'zone', 'category']),
  )
})

it('the studio’s page answers at every address of the studio, and the root leads there', async () => {
  for (const url of ['/studio', '/studio/', '/studio/bellows-and-reeds/episodes/1']) {
    expect((await house.app.inject({ url })).body).toContain('<title>studio</title>')
  }
  expect((await house.app.inject({ url: '/' })).headers.location).toBe('/studio/')
})

it('how long the event loop was held is told', async () => {
  const loop = heldLoop()
  loop.begin()
  await wait(50)
  Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 400)
  await wait(50)
  loop.end()
  expect(loop.told().max).toBeGreaterThan(300)
  expect(loop.told().p99).toBeLessThanOrEqual(loop.told().max)
})
