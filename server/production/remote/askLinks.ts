import { Episode } from '../../show/episodes/models'
import { transact } from '../../platform/database/transact'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import { idOf, unasked, webAddressesIn } from '../../show/links/known'
import { AskedLink } from '../../show/links/models'
import type { Platform } from '../../platform/platform'
import { Refusal } from '../../platform/refusal'
import { NotNow, remoteFetcher } from '../../platform/outside/fetch'

const patienceMs = 8_000
const atOnce = 4
/** Answers to HEAD after which GET may still bring the page. */
const mayAnswerGet = new Set([400, 403, 404, 405, 406, 429, 500, 501, 503])
/** Who does not want to be asked by a machine answers people all the same. */
const isAnswered = (status: number): boolean => status < 400 || status === 401 || status === 403 || status === 429

/** The job: asks the addresses that an episode's notes link to, and keeps what they answer. Private networks are never asked. */
export function linkAsking({ database, clock, events, configuration }: Platform): JobDefinition<Payloads['ask-links']> {
  const fetchRemote = remoteFetcher(configuration.fetchAllow, patienceMs)

  /** What is wrong with an address; null where it answers, undefined where that cannot be told now. */
  async function problemOf(address: string, signal: AbortSignal): Promise<string | null | undefined> {
    try {
      const head = await fetchRemote(address, { method: 'HEAD', mostBytes: 0, signal })
      const { status } = mayAnswerGet.has(head.status) ? await fetchRemote(address, { mostBytes: 1, signal }) : head
      return isAnswered(status) ? null : `It answers with an error (${status}).`
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      return error instanceof NotNow ? undefined : error.detail.slice(0, 300)
    }
  }

  return {
    lane: 'network',
    async run({ episodeId }, { signal }) {
      const episode = await Episode.findByPk(episodeId, { attributes: ['id', 'showId', 'notes'] })
      const waiting = await unasked(webAddressesIn(episode?.notes ?? ''), clock.now())
      if (!episode || waiting.length === 0) return
      const next = waiting.values()
      const asking = Array.from({ length: atOnce }, async () => {
        for (const address of next) {
          const problem = await problemOf(address, signal)
          if (problem !== undefined)
            await AskedLink.upsert({ id: idOf(address), address, problem, askedAt: clock.now() })
        }
      })
      await Promise.all(asking)
      const { id, showId } = episode
      await transact(database, transaction => events.note({ kind: 'episode', showId, id }, transaction))
    },
    gaveUp: null,
  }
}
