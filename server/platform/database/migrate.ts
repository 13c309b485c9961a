import { basename } from 'node:path'
import { DatabaseError, QueryTypes, type Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'

export interface Migration {
  name: string
  statements: readonly string[]
}

/** Every migration, by the name of its file. */
export const migrations: readonly Migration[] = Object.entries(
  import.meta.glob<readonly string[]>('./migrations/*.ts', { eager: true, import: 'statements' }),
).map(([path, statements]) => ({ name: basename(path, '.ts'), statements }))

/** What MariaDB says where a statement that changes the schema has been carried out before. */
const alreadyDone = [
  'ER_TABLE_EXISTS_ERROR',
  'ER_BAD_TABLE_ERROR',
  'ER_NO_SUCH_TABLE',
  'ER_DUP_FIELDNAME',
  'ER_BAD_FIELD_ERROR',
  'ER_DUP_KEYNAME',
  'ER_CANT_DROP_FIELD_OR_KEY',
  'ER_FK_DUP_NAME',
  'ER_MULTIPLE_PRI_KEY',
]
const isAlreadyDone = (statement: string, error: unknown): boolean =>
  /^\s*(CREATE|ALTER|DROP|RENAME)\b/i.test(statement) &&
  error instanceof DatabaseError &&
  alreadyDone.includes((error.original as { code?: string }).code ?? '')

/**
 * Carries out a migration's statements from where a process that was killed amid them left it. MariaDB commits a change of the
 * schema at once, so after each statement it is noted how many are done; only the one that was in hand then may have been
 * carried out without a note, and be found done. A change of rows and its note are one transaction.
 */
export async function carryOut(database: Sequelize, { name, statements }: Migration): Promise<void> {
  await database.query(
    'CREATE TABLE IF NOT EXISTS migration_steps (name VARCHAR(255) PRIMARY KEY, done INT UNSIGNED NOT NULL)',
  )
  const [known] = await database.query<{ done: number }>('SELECT done FROM migration_steps WHERE name = ?', {
    replacements: [name],
    type: QueryTypes.SELECT,
  })
  if (!known) await database.query('INSERT INTO migration_steps (name, done) VALUES (?, 0)', { replacements: [name] })
  for (const [at, statement] of statements.entries()) {
    if (known && at < known.done) continue
    await database.transaction(async transaction => {
      await database.query(statement, { transaction }).catch((error: unknown) => {
        if (at !== known?.done || !isAlreadyDone(statement, error)) throw error
      })
      await database.query('UPDATE migration_steps SET done = ? WHERE name = ?', {
        replacements: [at + 1, name],
        transaction,
      })
    })
  }
}

/** Brings the schema up to date. A lock in the database lets one process do it while others wait. */
export async function migrate(database: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: migrations.map(migration => ({ name: migration.name, up: () => carryOut(database, migration) })),
    storage: new SequelizeStorage({ sequelize: database, tableName: 'migrations' }),
    logger: undefined,
  })
  await database.transaction(async transaction => {
    const lock = { type: QueryTypes.SELECT as const, transaction }
    const [row] = await database.query<{ got: number | bigint | null }>(
      "SELECT GET_LOCK('lake-letter-migrations', 60) AS got",
      lock,
    )
    if (Number(row?.got) !== 1)
      throw new Error(
        'Another process has been bringing the database up to date for a minute; look whether it hangs, then start again.',
      )
    try {
      await umzug.up()
    } finally {
      await database.query("SELECT RELEASE_LOCK('lake-letter-migrations')", lock)
    }
  })
}
