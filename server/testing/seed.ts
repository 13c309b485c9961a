import { QueryTypes, type Sequelize } from 'sequelize'

/** A house of many shows, made by statements of the database from one show that is there already: for measuring what size does. */
export interface Size {
  shows: number
  episodesPerShow: number
  /** Between one episode and the next. */
  hoursApart?: number
}

const mostInStatement = 200_000

/** Copies a show with one of its released episodes so many times, each with a file of its own. The names are `Show 1`, `Show 2` …, at `seed-1`, `seed-2` …; episodes are released, the first one last, and written when they went out. */
export async function seed(
  database: Sequelize,
  templateSlug: string,
  { shows, episodesPerShow, hoursApart = 1 }: Size,
): Promise<void> {
  const replacements = { templateSlug, shows, episodesPerShow, hoursApart }
  const run = (statement: string): Promise<unknown> => database.query(statement, { replacements })
  const columns = async (table: string, without: readonly string[]): Promise<string> => {
    const rows = await database.query<{ name: string }>(
      "SELECT column_name AS name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = :table AND extra NOT LIKE '%GENERATED%'",
      { replacements: { table }, type: QueryTypes.SELECT },
    )
    return rows
      .map(({ name }) => name)
      .filter(name => !without.includes(name))
      .map(name => `t.${name}`)
      .join(', ')
  }
  const own = (list: string): string => list.replaceAll('t.', '')

  await run('CREATE TEMPORARY TABLE seed_template AS SELECT * FROM shows WHERE slug = :templateSlug')
  await run(
    "CREATE TEMPORARY TABLE seed_episode AS SELECT e.*, u.file_id FROM episodes e JOIN episode_files u ON u.episode_id = e.id AND u.role = 'released' WHERE e.show_id = (SELECT id FROM seed_template) AND e.status = 'released' LIMIT 1",
  )
  const showColumns = await columns('shows', ['id', 'slug', 'name', 'podcast_guid'])
  await run(`INSERT INTO shows (id, slug, name, podcast_guid, ${own(showColumns)})
    SELECT UUID(), CONCAT('seed-', n.seq), CONCAT('Show ', n.seq), UUID(), ${showColumns} FROM seed_template t JOIN (SELECT seq FROM seq_1_to_1000000 WHERE seq <= :shows) n`)
  await run(
    "INSERT INTO memberships (account_id, show_id, role) SELECT a.id, s.id, 'keeper' FROM accounts a JOIN shows s WHERE s.slug LIKE 'seed-%'",
  )
  const episodeColumns = await columns('episodes', [
    'id',
    'guid',
    'slug',
    'show_id',
    'title',
    'number',
    'release_at',
    'created_at',
  ])
  const perTurn = Math.max(1, Math.floor(mostInStatement / episodesPerShow))
  for (let first = 1; first <= shows; first += perTurn) {
    const some = { ...replacements, first, last: first + perTurn - 1 }
    await database.query(
      `INSERT INTO episodes (id, guid, slug, show_id, title, number, release_at, created_at, ${own(episodeColumns)})
        SELECT UUID(), UUID(), CONCAT('episode-', n.seq), s.id, CONCAT('Crossing ', n.seq), n.seq, t.release_at - INTERVAL :hoursApart * n.seq HOUR, t.release_at - INTERVAL :hoursApart * n.seq HOUR, ${episodeColumns}
        FROM seed_episode t JOIN (SELECT seq FROM seq_1_to_1000000 WHERE seq <= :episodesPerShow) n
        JOIN shows s ON s.slug LIKE 'seed-%' AND CAST(SUBSTR(s.slug, 6) AS UNSIGNED) BETWEEN :first AND :last`,
      { replacements: some },
    )
  }
  const fileColumns = await columns('files', ['id', 'show_id', 'fingerprint'])
  await run(`INSERT INTO files (id, show_id, fingerprint, ${own(fileColumns)})
    SELECT e.id, e.show_id, SHA2(e.id, 256), ${fileColumns} FROM files t JOIN seed_episode c ON t.id = c.file_id
    JOIN episodes e JOIN shows s ON s.id = e.show_id AND s.slug LIKE 'seed-%'`)
  await run(`INSERT INTO episode_files (episode_id, role, file_id)
    SELECT e.id, r.role, e.id FROM episodes e JOIN shows s ON s.id = e.show_id AND s.slug LIKE 'seed-%' JOIN (SELECT 'source' AS role UNION SELECT 'released') r`)
  await run('DROP TEMPORARY TABLE seed_template, seed_episode')
}
