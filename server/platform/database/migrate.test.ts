import { QueryTypes, type Sequelize } from 'sequelize'
import { afterAll, expect, it } from 'vitest'
import { openDatabase } from '../../app/openDatabase'
import { freshDatabase } from '../../testing/house'
import { carryOut, migrate, migrations } from './migrate'

const opened: Sequelize[] = []
async function open(): Promise<Sequelize> {
  const database = openDatabase(await freshDatabase())
  opened.push(database)
  return database
}
afterAll(async () => {
  for (const database of opened) {
    await database.query(`DROP DATABASE ${database.getDatabaseName()}`)
    await database.close()
  }
})

async function schemaOf(database: Sequelize): Promise<Record<string, string>> {
  const select = <T extends object>(sql: string) => database.query<T>(sql, { type: QueryTypes.SELECT })
  const tables = await select<{ name: string }>(
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name NOT LIKE 'migration%' ORDER BY 1",
  )
  const made = await Promise.all(
    tables.map(async ({ name }) => [
      name,
      (await select<{ 'Create Table': string }>(`SHOW CREATE TABLE ${name}`))[0]!['Create Table'],
    ]),
  )
  return Object.fromEntries(made) as Record<string, string>
}

class Killed extends Error {}

/** The database for a process that dies as soon as the statement is carried out, before it can note that. */
const dyingAfter = (database: Sequelize, statement: string): Sequelize =>
  new Proxy(database, {
    get(target, name) {
      const value: unknown = Reflect.get(target, name)
      if (name !== 'query') return typeof value === 'function' ? value.bind(target) : value
      return async (...parameters: Parameters<Sequelize['query']>) => {
        const answer = await target.query(...parameters)
        if (parameters[0] === statement) throw new Killed()
        return answer
      }
    },
  })

it('a process that is killed after any statement of a migration leaves a database that the next one brings up to date', async () => {
  const [whole, broken] = [await open(), await open()]
  await migrate(whole)
  let kills = 0
  for (const migration of migrations) {
    for (const statement of migration.statements) {
      await expect(carryOut(dyingAfter(broken, statement), migration)).rejects.toThrow(Killed)
      kills++
    }
    await carryOut(broken, migration)
  }
  expect(kills).toBeGreaterThan(60)
  expect(await schemaOf(broken)).toEqual(await schemaOf(whole))
})

it('a statement that fails is told', async () => {
  const database = await open()
  const migration = { name: 'two', statements: ['CREATE TABLE twice (id INT)', 'CREATE TABLE twice (id INT)'] }
  await expect(carryOut(database, migration)).rejects.toThrow('already exists')
})
