import { v7 as uuidV7 } from 'uuid'
import type { Aside, History, PastState, PastText, Writer } from '@contract/history'
import type { EpisodeField, EpisodeText } from '@core/episode/fields'
import { cleanNotes } from '@core/notes/clean'
import { historyMs } from '@core/history/thin'
import type { Scope } from '../../people/access/scope'
import { Account } from '../../people/accounts/models'
import { AppError } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { EpisodeState, KeptText, newestFirst } from './models'

/** So many refused texts are told beside the states. */
const mostKept = 50

/** What an episode was, and what was refused, for as long as it is kept. */
export function historyService({ clock }: Pick<Platform, 'clock'>) {
  const since = (): Date => new Date(+clock.now() - historyMs)

  return {
    async list(scope: Pick<Scope, 'id' | 'accountId'>): Promise<History> {
      const where = { episodeId: scope.id }
      const [states, kept] = await Promise.all([
        EpisodeState.findAll({ where, attributes: { exclude: ['text'] }, order: newestFirst }),
        KeptText.findAll({ where, order: newestFirst, limit: mostKept }),
      ])
      const tell = await context([...states, ...kept], scope.accountId)
      const told = [...states.map(state => stateOf(state, tell)), ...kept.map(text => keptOf(text, tell))]
      return {
        states: told
          .filter(({ at }) => at >= since().toISOString())
          .sort((a, b) => b.at.localeCompare(a.at) || b.id.localeCompare(a.id)),
      }
    },

    /** Keeps words that lost to those of another window. */
    async keepAside(
      { id: episodeId, accountId }: Pick<Scope, 'id' | 'accountId'>,
      { version, text }: Aside,
    ): Promise<PastState> {
      const row = {
        id: uuidV7(),
        episodeId,
        accountId,
        fromVersion: version,
        text: cleaned(text),
        savedAt: clock.now(),
      }
      return keptOf(await KeptText.create(row), await context([row], accountId))
    },

    /** Throws `not-found` where the episode has no such state, or not any more. */
    async state(scope: Pick<Scope, 'id' | 'accountId'>, stateId: string): Promise<PastText> {
      const where = { id: stateId, episodeId: scope.id }
      const [state, kept] = await Promise.all([EpisodeState.findOne({ where }), KeptText.findOne({ where })])
      const found = state ?? kept
      if (!found) throw new AppError('not-found', 'This state of the episode is not kept any more.')
      const tell = await context([found], scope.accountId)
      return { ...(state ? stateOf(state, tell) : keptOf(kept!, tell)), text: found.text }
    },
  }
}

const cleaned = (text: Partial<EpisodeText>): Partial<EpisodeText> =>
  text.notes === undefined ? text : { ...text, notes: cleanNotes(text.notes) }

type Tell = (accountId: string | null) => Writer

/** Knows who some accounts are, for somebody. */
async function context(rows: readonly { accountId: string | null }[], you: string | null): Promise<Tell> {
  const ids = [...new Set(rows.map(({ accountId }) => accountId).filter(id => id !== null))]
  const accounts = await Account.findAll({ where: { id: ids }, attributes: ['id', 'email'] })
  const emails = new Map(accounts.map(({ id, email }) => [id, email]))
  return id => (id && emails.has(id) ? { email: emails.get(id)!, isYou: id === you } : null)
}

const stateOf = ({ id, act, accountId, savedAt, fields, isSent }: EpisodeState, tell: Tell): PastState => ({
  id,
  act,
  by: tell(accountId),
  at: savedAt.toISOString(),
  fields,
  isSent,
})

const keptOf = ({ id, accountId, savedAt, text }: KeptText, tell: Tell): PastState => ({
  id,
  act: 'kept aside',
  by: tell(accountId),
  at: savedAt.toISOString(),
  fields: Object.keys(text) as EpisodeField[],
  isSent: false,
})

/** Who wrote an episode's text last, and when; null where nothing is kept of that. */
export async function lastWritten({
  id,
  accountId = null,
}: {
  id: string
  accountId?: string | null
}): Promise<{ by: Writer; at: string } | null> {
  const state = await EpisodeState.findOne({
    where: { episodeId: id },
    attributes: ['accountId', 'act', 'savedAt'],
    order: newestFirst,
  })
  if (!state || state.act === 'begun') return null
  return { by: (await context([state], accountId))(state.accountId), at: state.savedAt.toISOString() }
}
