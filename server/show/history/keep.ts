import type { Transaction } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import { differingFields, type EpisodeField, type EpisodeText, fields as known } from '@core/episode/fields'
import type { Field } from '@core/episode/field'
import { mayReplace, type Stamp, superfluous } from '@core/history/thin'
import { EpisodeState, newestFirst } from './models'

/** A text of an episode that is saved, with what it was before. */
export interface Saving {
  episodeId: string
  before: EpisodeText
  /** When `before` was saved. */
  beforeAt: Date
  after: EpisodeText
  version: number
  accountId: string | null
  act: EpisodeState['act']
  /** It goes out to listeners with this. */
  isSent: boolean
  at: Date
}

const stampColumns = ['id', 'episodeId', 'accountId', 'act', 'fields', 'isSent', 'savedAt'] as const
type Row = Pick<EpisodeState, (typeof stampColumns)[number]>

/** Keeps a saved text among the states of its episode, and lets go of those that are too many by now. The episode's row is locked. */
export async function keepState(saving: Saving, transaction: Transaction): Promise<void> {
  const { episodeId, before, after, version, accountId, act, isSent, at } = saving
  const fields = differingFields(before, after)
  if (fields.length === 0 && !isSent) return
  const [newest] = await statesOf(episodeId, transaction, 1)
  if (!newest) await EpisodeState.create(begunState(saving, isSent && fields.length === 0), { transaction })
  if (fields.length === 0) {
    if (isSent && newest && !newest.isSent)
      await EpisodeState.update({ isSent }, { where: { id: newest.id }, transaction })
    return
  }
  const state = { episodeId, version, accountId, act, text: after, isSent, savedAt: at }
  const stamp = { atMs: +at, by: accountId }
  if (newest?.act === act && mayReplace(stampOf(newest), stamp, lettersLost(fields, before, after))) {
    const together = [...new Set([...newest.fields, ...fields])]
    await EpisodeState.update({ ...state, fields: together }, { where: { id: newest.id }, transaction })
    return
  }
  await EpisodeState.create({ ...state, id: uuidV7(), fields }, { transaction })
  await thin(await statesOf(episodeId, transaction), at, transaction)
}

/**
 * Whether somebody has written a field of an episode, rather than that it was begun with or filled in. Where nothing is known
 * of what became of it, somebody may have.
 */
export async function isWritten(
  { id: episodeId, version }: { id: string; version: number },
  field: EpisodeField,
  transaction: Transaction,
): Promise<boolean> {
  const states = await EpisodeState.findAll({ where: { episodeId }, attributes: ['act', 'fields'], transaction })
  if (states.length === 0) return version > 1
  return states.some(({ act, fields }) => act !== 'begun' && act !== 'filled in' && fields.includes(field))
}

/** So many texts go to the database in one statement. */
const mostAtOnce = 50

/** Keeps texts of many episodes that were saved together, each as a state of its own. The episodes' rows are locked. */
export async function keepStates(savings: readonly Saving[], transaction: Transaction): Promise<void> {
  const kept = await EpisodeState.findAll({
    where: { episodeId: savings.map(({ episodeId }) => episodeId) },
    attributes: ['episodeId'],
    group: ['episodeId'],
    raw: true,
    transaction,
  })
  const known = new Set(kept.map(({ episodeId }) => episodeId))
  await markSent(
    savings.filter(({ isSent, before, after }) => isSent && differingFields(before, after).length === 0),
    transaction,
  )
  const states = savings.flatMap(saving => {
    const { episodeId, before, after, version, accountId, act, isSent, at } = saving
    const fields = differingFields(before, after)
    const state = { id: uuidV7(), episodeId, version, accountId, act, fields, text: after, isSent, savedAt: at }
    const begun = known.has(episodeId) ? [] : [begunState(saving, isSent && fields.length === 0)]
    return fields.length > 0 ? [...begun, state] : isSent ? begun : []
  })
  for (let from = 0; from < states.length; from += mostAtOnce)
    await EpisodeState.bulkCreate(states.slice(from, from + mostAtOnce), { transaction })
}

/** What goes out as it stands: the newest state of each has been sent. */
async function markSent(savings: readonly Saving[], transaction: Transaction): Promise<void> {
  if (savings.length === 0) return
  const rows = await EpisodeState.findAll({
    where: { episodeId: savings.map(({ episodeId }) => episodeId) },
    attributes: ['id', 'episodeId', 'isSent'],
    order: newestFirst,
    raw: true,
    transaction,
  })
  // Of rows that come newest first the last one that is set under a key would be the oldest.
  const newest = new Map(rows.toReversed().map(row => [row.episodeId, row]))
  const unsent = [...newest.values()].filter(({ isSent }) => !isSent).map(({ id }) => id)
  if (unsent.length > 0) await EpisodeState.update({ isSent: true }, { where: { id: unsent }, transaction })
}

/** What stood before anything was kept is the first state. */
const begunState = ({ episodeId, before, beforeAt, version }: Saving, isSent: boolean) => ({
  id: uuidV7(),
  episodeId,
  version: version - 1,
  accountId: null,
  act: 'begun' as const,
  fields: [],
  text: before,
  isSent,
  savedAt: beforeAt,
})

const statesOf = (episodeId: string, transaction: Transaction, limit?: number): Promise<Row[]> =>
  EpisodeState.findAll({
    where: { episodeId },
    attributes: [...stampColumns],
    order: newestFirst,
    ...(limit && { limit }),
    transaction,
  })

/** What a state that goes had changed is told of the next one that stays. */
async function thin(states: readonly Row[], at: Date, transaction: Transaction): Promise<void> {
  const going = superfluous(states.map(stampOf), +at)
  if (going.size === 0) return
  const handed: EpisodeState['fields'] = []
  for (const state of [...states].reverse()) {
    if (going.has(state.id)) handed.push(...state.fields)
    else if (handed.length > 0) {
      const fields = [...new Set([...handed.splice(0), ...state.fields])]
      if (fields.length > state.fields.length)
        await EpisodeState.update({ fields }, { where: { id: state.id }, transaction })
    }
  }
  await EpisodeState.destroy({ where: { id: [...going] }, transaction })
}

const stampOf = ({ id, savedAt, accountId, isSent }: Row): Stamp => ({ id, atMs: +savedAt, by: accountId, isSent })

/** How many letters the field lost that lost most. */
function lettersLost(fields: readonly EpisodeField[], before: EpisodeText, after: EpisodeText): number {
  const size = (text: EpisodeText, name: EpisodeField): number => (known[name] as Field).shown(text[name]).length
  return Math.max(0, ...fields.map(name => size(before, name) - size(after, name)))
}
