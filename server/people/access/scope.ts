import { QueryTypes, type Sequelize } from 'sequelize'
import { type Act, may, type Role } from '@core/access/roles'
import { AppError } from '../../platform/http/errors'

/** What an id in an address can name. */
export type Thing =
  | 'show'
  | 'address'
  | 'episode'
  | 'file'
  | 'upload'
  | 'transcript'
  | 'strand'
  | 'listener'
  | 'page'
  | 'comment'
  | 'mark'

/** Something in a show, together with the show it was found in: what services take, so that none acts on a bare id. */
export interface Scope {
  /** Of the thing itself: an episode's id, a file's. */
  id: string
  showId: string
  /** Whoever asks, and what they are in the show; the house itself, in its jobs, is a keeper. */
  accountId: string | null
  role: Role
}

const showsOf: Readonly<Record<Thing, string>> = {
  show: 'SELECT id AS show_id FROM shows WHERE id = :id',
  /** A show by its address part, also one that it had before. */
  address: 'SELECT id AS show_id FROM shows WHERE slug = :id UNION SELECT show_id FROM past_addresses WHERE slug = :id',
  episode: 'SELECT show_id FROM episodes WHERE id = :id',
  file: 'SELECT show_id FROM files WHERE id = :id',
  strand: 'SELECT show_id FROM strands WHERE id = :id',
  comment: 'SELECT show_id FROM comments WHERE id = :id',
  page: 'SELECT show_id FROM own_pages WHERE id = :id',
  mark: 'SELECT show_id FROM day_marks WHERE id = :id',
  listener: 'SELECT show_id FROM feed_listeners WHERE id = :id',
  transcript: 'SELECT e.show_id FROM transcripts t JOIN episodes e ON e.id = t.episode_id WHERE t.id = :id',
  upload: 'SELECT e.show_id FROM uploads u JOIN episodes e ON e.id = u.episode_id WHERE u.id = :id',
}

const nowhere: Readonly<Record<Thing, string>> = {
  show: 'There is no such show.',
  address: 'There is no show at this address.',
  episode: 'There is no such episode.',
  file: 'There is no such file here.',
  upload: 'There is no such upload.',
  transcript: 'There is no such transcript.',
  strand: 'There is no such strand.',
  listener: 'There is no such listener.',
  page: 'There is no such page.',
  comment: 'There is no such comment.',
  mark: 'There is no such mark.',
}

const canBeId = /^[0-9a-f-]{32,64}$/
const canBeAddress = /^[a-z0-9-]{1,60}$/

/**
 * Finds the show that an id belongs to, and what an account is there. Throws `not-found` where the account may not even look,
 * as if there were nothing, and `not-allowed` where it may look, but not do what it wants to.
 */
export async function scopeOf(
  database: Sequelize,
  accountId: string,
  thing: Thing,
  id: string,
  act: Act,
): Promise<Scope> {
  const [row] = !(thing === 'address' ? canBeAddress : canBeId).test(id)
    ? []
    : await database.query<{ showId: string; role: Role }>(
        `SELECT m.show_id AS showId, m.role AS role FROM memberships m WHERE m.account_id = :accountId AND m.show_id IN (${showsOf[thing]}) LIMIT 1`,
        { replacements: { accountId, id }, type: QueryTypes.SELECT },
      )
  if (!row) throw new AppError('not-found', nowhere[thing])
  if (!may(row.role, act)) throw new AppError('not-allowed', `Who is a ${row.role} of this show cannot do that.`)
  return { id, accountId, ...row }
}

/** The scope in which the house itself acts on something: its jobs, its clock, the demo. */
export const houseScope = ({ id, showId }: { id: string; showId: string }): Scope => ({
  id,
  showId,
  accountId: null,
  role: 'keeper',
})
