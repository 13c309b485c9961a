import { randomBytes } from 'node:crypto'
import { Resolver } from 'node:dns/promises'
import { UniqueConstraintError } from 'sequelize'
import type { CustomDomain, WantedDomain } from '@contract/customDomains'
import { hostNameFault, hostNameFrom, proofFile, proofRecord } from '@core/site/hostName'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { AppError, badInput } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { remoteFetcher } from '../../platform/outside/fetch'
import { touchFeed } from '../../show/shows/feedRevision'
import { Show } from '../../show/shows/models'

const patienceMs = 5_000
const mostFileBytes = 1_000

/** Host names of shows: said, proved by a DNS text record or a file, and then where all of a show's addresses are. */
export function customDomainService(platform: Platform) {
  const { database, events, configuration } = platform
  const { publicUrl, dnsServers, fetchAllow } = configuration
  const ours = new URL(publicUrl).hostname
  const fetchRemote = remoteFetcher(fetchAllow, patienceMs)

  async function view({ showId }: Pick<Scope, 'showId'>): Promise<CustomDomain> {
    const { hostName, claimedDomain, domainToken } = await Show.findByPk(showId, { rejectOnEmpty: true })
    return {
      hostName,
      claim: claimedDomain
        ? {
            host: claimedDomain,
            word: domainToken!,
            record: proofRecord(claimedDomain),
            file: proofFile(claimedDomain),
          }
        : null,
      leadsTo: ours,
    }
  }

  const taken = (host: string): AppError =>
    new AppError('address-taken', `Another show lives at ${host}.`, [
      { field: 'host', value: host, rule: 'Another show has this host name.' },
    ])

  async function isInRecord(host: string, word: string): Promise<boolean> {
    const resolver = new Resolver({ timeout: patienceMs, tries: 2 })
    if (dnsServers.length > 0) resolver.setServers([...dnsServers])
    try {
      const records = await resolver.resolveTxt(proofRecord(host))
      return records.some(parts => parts.join('').trim() === word)
    } catch {
      return false
    }
  }

  async function change(
    showId: string,
    fields: Partial<Pick<Show, 'hostName' | 'claimedDomain' | 'domainToken'>>,
  ): Promise<void> {
    await transact(database, async transaction => {
      await Show.update(fields, { where: { id: showId }, transaction })
      await events.note({ kind: 'show', showId, id: showId }, transaction)
      if (fields.hostName !== undefined) await touchFeed(platform, showId, transaction)
    })
  }

  return {
    get: view,

    /** Says that a host name is a show's. Throws `address-taken` where another show has it. */
    async claim({ showId }: Pick<Scope, 'showId'>, { host: words }: WantedDomain): Promise<CustomDomain> {
      const host = hostNameFrom(words)
      const fault = hostNameFault(host, ours)
      if (fault) throw badInput('host', words, fault)
      const other = await Show.findOne({ where: { hostName: host }, attributes: ['id'] })
      if (other && other.id !== showId) throw taken(host)
      await change(showId, { claimedDomain: host, domainToken: randomBytes(32).toString('base64url') })
      return view({ showId })
    },

    /** Looks for the proof, and has the show live there from then on. Throws `not-proved` where it is not there. */
    async prove({ showId }: Pick<Scope, 'showId'>): Promise<CustomDomain> {
      const { claimedDomain: host, domainToken: word } = await Show.findByPk(showId, { rejectOnEmpty: true })
      if (!host || !word) throw new AppError('not-proved', 'No host name was said to be the show’s.')
      const [byRecord, byFile] = await Promise.all([
        isInRecord(host, word),
        fileSays(fetchRemote, proofFile(host), word),
      ])
      if (!byRecord && !byFile)
        throw new AppError(
          'not-proved',
          `The word stands neither in the text record ${proofRecord(host)} nor at ${proofFile(host)}.`,
        )
      try {
        await change(showId, { hostName: host, claimedDomain: null, domainToken: null })
      } catch (error) {
        throw error instanceof UniqueConstraintError ? taken(host) : error
      }
      return view({ showId })
    },

    /** Has the show live at the house's own address again, or takes back what was said and not proved. */
    async leave({ showId }: Pick<Scope, 'showId'>): Promise<CustomDomain> {
      const { claimedDomain } = await Show.findByPk(showId, { rejectOnEmpty: true })
      await change(showId, claimedDomain ? { claimedDomain: null, domainToken: null } : { hostName: null })
      return view({ showId })
    },
  }
}

/** Whether a file says just a word; one to which another host leads proves nothing of that one. */
export async function fileSays(
  fetchRemote: ReturnType<typeof remoteFetcher>,
  address: string,
  word: string,
): Promise<boolean> {
  try {
    const { status, body, address: from } = await fetchRemote(address, { mostBytes: mostFileBytes })
    const isThere = status === 200 && new URL(from).hostname === new URL(address).hostname
    return isThere && body.toString('utf8').trim() === word
  } catch {
    return false
  }
}
