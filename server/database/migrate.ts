import { QueryTypes, type Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { firstForm } from './migrations/0001-first-form'
import { sound } from './migrations/0002-sound'
import { elsewhere } from './migrations/0003-elsewhere'
import { firmGround } from './migrations/0004-firm-ground'
import { tries } from './migrations/0005-tries'
import { whose } from './migrations/0006-whose'
import { newsTable } from './migrations/0007-news'
import { roles } from './migrations/0008-roles'
import { deliveries } from './migrations/0009-deliveries'
import { proxyLogs } from './migrations/0010-proxy-logs'
import { writing } from './migrations/0011-writing'
import { history } from './migrations/0012-history'
import { table } from './migrations/0013-table'
import { links } from './migrations/0014-links'
import { chapters } from './migrations/0015-chapters'
import { transcripts } from './migrations/0016-transcripts'
import { drafts } from './migrations/0017-drafts'
import { rhythm } from './migrations/0018-rhythm'
import { release } from './migrations/0019-release'
import { feed } from './migrations/0020-feed'
import { soundbites } from './migrations/0021-soundbites'
import { listeners } from './migrations/0022-listeners'
import { pastAddresses } from './migrations/0023-past-addresses'
import { feedChecks } from './migrations/0024-feed-checks'
import { strandGuids } from './migrations/0025-strand-guids'
import { search } from './migrations/0026-search'
import { looks } from './migrations/0027-looks'
import { ownPages } from './migrations/0028-own-pages'
import { comments } from './migrations/0029-comments'
import { sharing } from './migrations/0030-sharing'
import { hostNames } from './migrations/0031-host-names'
import { searchKinds } from './migrations/0032-search-kinds'
import { rateCounts } from './migrations/0033-rate-counts'
import { uploadAccounts } from './migrations/0034-upload-accounts'
import { jobTurns } from './migrations/0035-job-turns'

const migrations = [
  { name: '0001-first-form', statements: firstForm },
  { name: '0002-sound', statements: sound },
  { name: '0003-elsewhere', statements: elsewhere },
  { name: '0004-firm-ground', statements: firmGround },
  { name: '0005-tries', statements: tries },
  { name: '0006-whose', statements: whose },
  { name: '0007-news', statements: newsTable },
  { name: '0008-roles', statements: roles },
  { name: '0009-deliveries', statements: deliveries },
  { name: '0010-proxy-logs', statements: proxyLogs },
  { name: '0011-writing', statements: writing },
  { name: '0012-history', statements: history },
  { name: '0013-table', statements: table },
  { name: '0014-links', statements: links },
  { name: '0015-chapters', statements: chapters },
  { name: '0016-transcripts', statements: transcripts },
  { name: '0017-drafts', statements: drafts },
  { name: '0018-rhythm', statements: rhythm },
  { name: '0019-release', statements: release },
  { name: '0020-feed', statements: feed },
  { name: '0021-soundbites', statements: soundbites },
  { name: '0022-listeners', statements: listeners },
  { name: '0023-past-addresses', statements: pastAddresses },
  { name: '0024-feed-checks', statements: feedChecks },
  { name: '0025-strand-guids', statements: strandGuids },
  { name: '0026-search', statements: search },
  { name: '0027-looks', statements: looks },
  { name: '0028-own-pages', statements: ownPages },
  { name: '0029-comments', statements: comments },
  { name: '0030-sharing', statements: sharing },
  { name: '0031-host-names', statements: hostNames },
  { name: '0032-search-kinds', statements: searchKinds },
  { name: '0033-rate-counts', statements: rateCounts },
  { name: '0034-upload-accounts', statements: uploadAccounts },
  { name: '0035-job-turns', statements: jobTurns },
]

/** Brings the schema up to date. A lock in the database lets one process do it while others wait. */
export async function migrate(database: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: migrations.map(({ name, statements }) => ({
      name,
      up: async () => {
        for (const statement of statements) await database.query(statement)
      },
    })),
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
