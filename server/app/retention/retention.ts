import { isUnused } from '../../media/pictures/uses'
import { Op, QueryTypes } from 'sequelize'
import { historyMs } from '@core/history/thin'
import { transact } from '../../platform/database/transact'
import { keepMonths } from '../../platform/database/months'
import { keyLifeMs } from '../../platform/deliveries/dayKeys'
import { Job } from '../../platform/jobs/models'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import { blobKeeper } from '../../platform/storage/blobs'
import type { Platform } from '../../platform/platform'
import { repeat, type Repeated } from '../../platform/repeat'
import { SoundbiteFile } from '../../production/soundbites/models'
import { edition } from '../../words/search/wordIndex'

const hourMs = 3600_000
const dayMs = 24 * hourMs
const everyMs = hourMs
/** So many rows of a kind go in one statement, so that none holds others up. */
const mostAtOnce = 10_000

/** What is cleared away, and when: each a statement with the age it asks for. */
const outdated: readonly { statement: string; ageMs: number }[] = [
  { statement: "DELETE FROM jobs WHERE state IN ('done', 'cancelled') AND run_after < ?", ageMs: 7 * dayMs },
  { statement: "DELETE FROM jobs WHERE state = 'failed' AND run_after < ?", ageMs: 90 * dayMs },
  { statement: 'DELETE FROM events WHERE at < ?', ageMs: dayMs },
  { statement: 'DELETE FROM sessions WHERE expires_at < ?', ageMs: 0 },
  { statement: 'DELETE FROM day_keys WHERE made_at < ?', ageMs: keyLifeMs },
  { statement: 'DELETE FROM rate_counts WHERE since < ?', ageMs: dayMs },
  { statement: 'DELETE FROM past_deliveries WHERE until < ?', ageMs: dayMs },
  { statement: 'DELETE FROM episode_states WHERE saved_at < ?', ageMs: historyMs },
  { statement: 'DELETE FROM asked_links WHERE asked_at < ?', ageMs: 30 * dayMs },
  { statement: 'DELETE FROM bulk_edits WHERE at < ?', ageMs: 90 * dayMs },
  { statement: 'DELETE FROM notices WHERE moment < ? AND told_at IS NOT NULL', ageMs: 90 * dayMs },
  { statement: "DELETE FROM mails WHERE created_at < ? AND state <> 'waiting'", ageMs: 30 * dayMs },
  // Of each feed the newest state is the one that is served, and has its brotli.
  { statement: 'DELETE FROM feed_states WHERE at < ? AND brotli IS NULL', ageMs: 400 * dayMs },
  { statement: 'DELETE FROM feed_readers WHERE last_at < ?', ageMs: 90 * dayMs },
  { statement: 'DELETE FROM kept_texts WHERE saved_at < ?', ageMs: historyMs },
  { statement: "DELETE FROM uploads WHERE state = 'done' AND created_at < ?", ageMs: 30 * dayMs },
]

/** Pictures that nothing uses: brought for a show that was never made, or found in files that were deleted. */
const unusedPictures = `SELECT p.id FROM pictures p WHERE p.created_at < ? AND ${isUnused} LIMIT 500`

const showsBehind = `SELECT s.id FROM shows s LEFT JOIN search_shows w ON w.show_id = s.id WHERE (s.feed_revision > COALESCE(w.revision, 0) OR w.edition <> :edition)
  AND EXISTS (SELECT 1 FROM episodes e WHERE e.show_id = s.id AND e.status = 'released') LIMIT 200`

/** Mixes as sounds that no episode has any more; who puts the same together again has it measured again. By the index by_origin. */
const isUnusedMix = "f.origin = 'mix' AND NOT EXISTS (SELECT 1 FROM episode_files u WHERE u.file_id = f.id)"
const unusedMixes = `SELECT f.id FROM files f WHERE f.created_at < ? AND ${isUnusedMix} LIMIT 500`

/** What is not needed any more goes: finished jobs, old news, sessions that ran out, pictures and bytes that nobody holds. */
export function retention(platform: Platform) {
  const { database, clock, jobs, configuration } = platform
  const blobs = blobKeeper(platform)

  const before = (ageMs: number): Date => new Date(+clock.now() - ageMs)
  const next = (afterMs: number) => jobs.add({ kind: 'enforce-retention', payload: {}, afterMs })
  const isPlanned = async (): Promise<boolean> =>
    (await Job.count({ where: { kind: 'enforce-retention', state: 'open', heldUntil: null } })) > 0

  async function dropUnusedPictures(): Promise<void> {
    const unused = await database.query<{ id: string }>(unusedPictures, {
      replacements: [before(7 * dayMs)],
      type: QueryTypes.SELECT,
    })
    for (const { id } of unused) {
      await transact(database, async transaction => {
        const find = (rest: string) =>
          database.query(`SELECT p.id FROM pictures p WHERE p.id = ? ${rest}`, {
            replacements: [id],
            type: QueryTypes.SELECT,
            transaction,
          })
        // Who begins to use one at this moment holds its row.
        await find('FOR UPDATE')
        const [unusedStill] = await find(`AND ${isUnused}`)
        if (!unusedStill) return
        await blobs.letGo(id, transaction)
        await database.query('DELETE FROM pictures WHERE id = ?', { replacements: [id], transaction })
      })
    }
  }

  /** Cut soundbites that nobody wanted in long; who wants one again has it cut again. */
  async function dropUnaskedSoundbites(): Promise<void> {
    const unasked = await SoundbiteFile.findAll({
      where: { askedAt: { [Op.lt]: before(90 * dayMs) } },
      attributes: ['id'],
      limit: 500,
    })
    for (const { id } of unasked) {
      await transact(database, async transaction => {
        await blobs.letGo(id, transaction)
        await SoundbiteFile.destroy({ where: { id }, transaction })
      })
    }
  }

  async function dropUnusedMixes(): Promise<void> {
    const unused = await database.query<{ id: string }>(unusedMixes, {
      replacements: [before(7 * dayMs)],
      type: QueryTypes.SELECT,
    })
    for (const { id } of unused) {
      await transact(database, async transaction => {
        // Who takes it again at this moment holds its row.
        const [unusedStill] = await database.query(
          `SELECT f.id FROM files f WHERE f.id = ? AND ${isUnusedMix} FOR UPDATE`,
          {
            replacements: [id],
            type: QueryTypes.SELECT,
            transaction,
          },
        )
        if (!unusedStill) return
        await blobs.letGo(id, transaction)
        await database.query('DELETE FROM files WHERE id = ?', { replacements: [id], transaction })
      })
    }
  }

  /** Words that no change has made findable, as after an upgrade: better now than while a visitor waits. */
  async function indexWhatIsBehind(): Promise<void> {
    const behind = await database.query<{ id: string }>(showsBehind, {
      replacements: { edition },
      type: QueryTypes.SELECT,
    })
    await transact(database, transaction =>
      jobs.addOnce(
        behind.map(({ id }) => ({ kind: 'index-words' as const, payload: { showId: id }, subject: id })),
        transaction,
      ),
    )
  }

  return {
    job: {
      lane: 'retention',
      async run() {
        for (const { statement, ageMs } of outdated) {
          await transact(database, transaction =>
            database.query(`${statement} LIMIT ${mostAtOnce}`, { replacements: [before(ageMs)], transaction }),
          )
        }
        for (const table of ['delivery_log', 'listener_days', 'feed_days'])
          await keepMonths(database, table, clock.now(), before(configuration.logDays * dayMs))
        await dropUnusedPictures()
        await dropUnaskedSoundbites()
        await dropUnusedMixes()
        await blobs.clear()
        await indexWhatIsBehind()
        if (!(await isPlanned())) await next(everyMs)
      },
      async gaveUp() {
        if (!(await isPlanned())) await next(everyMs)
      },
    } satisfies JobDefinition<Payloads['enforce-retention']>,
  }
}

/** Begins with it, where no process has; a job plans the one that follows it, so that later looks find one. */
export const startRetention = ({ jobs }: Platform, report: (error: unknown) => void): Repeated =>
  repeat(
    everyMs,
    async () => {
      if ((await Job.count({ where: { kind: 'enforce-retention', state: 'open' } })) === 0)
        await jobs.add({ kind: 'enforce-retention', payload: {} })
    },
    report,
  )
