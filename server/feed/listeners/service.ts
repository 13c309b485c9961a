import { randomBytes } from 'node:crypto'
import { v7 as uuidV7 } from 'uuid'
import type { ListenerList, NewListeners } from '@contract/listeners'
import { readProgram } from '@core/counting/programs'
import type { Scope } from '../../people/access/scope'
import { badInput } from '../../platform/http/errors'
import { listenerBase, secretLetters } from '../feeds/service'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { addressesOf } from '../../show/shows/service'
import { Strand } from '../../show/shows/strands'
import { FeedListener } from './models'

const mostListeners = 10_000
/** That somebody's app fetched the feed is noted at most once in so long. */
const noteEveryMs = 10 * 60_000
const newSecret = (): string => randomBytes((secretLetters * 3) / 4).toString('base64url')

/** Listeners with an address of their own: one for each person, so that each can be renewed or withdrawn alone. */
export function listenerService({ configuration, clock }: Pick<Platform, 'configuration' | 'clock'>) {
  const { publicUrl } = configuration

  async function list({ showId }: Pick<Scope, 'showId'>): Promise<ListenerList> {
    const [show, strands, listeners] = await Promise.all([
      Show.findByPk(showId, { rejectOnEmpty: true }),
      Strand.findAll({ where: { showId, isPrivate: true }, order: [['name', 'ASC']] }),
      FeedListener.findAll({ where: { showId }, order: ['name', 'id'] }),
    ])
    return {
      isPrivate: Boolean(show.isPrivate),
      strands: strands.map(({ id, name }) => ({ id, name })),
      listeners: listeners.map(listener => ({
        id: listener.id,
        name: listener.name,
        strandId: listener.strandId,
        address: addressesOf(listenerBase(publicUrl, listener.secret), show).feedAddress,
        since: listener.createdAt.toISOString(),
        renewedAt: listener.renewedAt && listener.renewedAt.toISOString(),
        withdrawnAt: listener.withdrawnAt && listener.withdrawnAt.toISOString(),
        lastAt: listener.lastAt && listener.lastAt.toISOString(),
        agent: listener.agent,
      })),
    }
  }

  async function change({ id, showId }: Scope, facts: Partial<FeedListener>): Promise<ListenerList> {
    await FeedListener.update(facts, { where: { id, showId } })
    return list({ showId })
  }

  return {
    list,

    /** Gives each of some people an address of their own. Throws `bad-input` for a strand that is not for listeners. */
    async add({ showId }: Scope, { names, strandId }: NewListeners): Promise<ListenerList> {
      if (strandId !== null && (await Strand.count({ where: { id: strandId, showId, isPrivate: true } })) === 0)
        throw badInput('strandId', strandId, 'A strand of this show that is for its own listeners.')
      if ((await FeedListener.count({ where: { showId } })) + names.length > mostListeners)
        throw badInput('names', names.length, `At most ${mostListeners.toLocaleString('en')} listeners.`)
      await FeedListener.bulkCreate(
        names.map(name => ({ id: uuidV7(), showId, strandId, name, secret: newSecret(), createdAt: clock.now() })),
      )
      return list({ showId })
    },

    /** Gives somebody another address; the one before answers no more. */
    renew: (scope: Scope): Promise<ListenerList> =>
      change(scope, { secret: newSecret(), renewedAt: clock.now(), lastAt: null, agent: null }),

    /** Lets somebody's address answer no more; it is kept, and can answer again. */
    withdraw: (scope: Scope): Promise<ListenerList> => change(scope, { withdrawnAt: clock.now() }),
    restore: (scope: Scope): Promise<ListenerList> => change(scope, { withdrawnAt: null }),

    /** Who has a secret; null where nobody has it, or has it no more. */
    async holder(secret: string): Promise<FeedListener | null> {
      if (!/^[\w-]{32}$/.test(secret)) return null
      const listener = await FeedListener.findOne({ where: { secret } })
      return listener && !listener.withdrawnAt ? listener : null
    },

    /** Notes that somebody's app has fetched the feed. */
    async noteFetch({ id, lastAt }: FeedListener, userAgent: string): Promise<void> {
      const now = clock.now()
      if (lastAt && +now - +lastAt < noteEveryMs) return
      await FeedListener.update({ lastAt: now, agent: readProgram(userAgent).name }, { where: { id } })
    },
  }
}
