import { createHash } from 'node:crypto'
import { Op, type Transaction } from 'sequelize'
import { linkedAddresses } from '@core/notes/addresses'
import type { NewJob } from '../../platform/jobs/jobs'
import { AskedLink } from './models'

export const idOf = (address: string): string => createHash('sha256').update(address).digest('hex')

/** So many links of one episode are asked at once; nobody follows more. */
const mostLinks = 200
const againMs = 24 * 3600_000
/** Whoever is writing may still be in the middle of an address. */
const pauseMs = 6_000

/** The addresses on the web that notes link to. Names under `.example` stand for others and are never asked (RFC 6761, section 6.5). */
export const webAddressesIn = (notes: string): string[] =>
  linkedAddresses(notes)
    .filter(
      address => /^https?:/i.test(address) && URL.canParse(address) && !/\.example$/i.test(new URL(address).hostname),
    )
    .filter(address => address.length <= 2048)
    .slice(0, mostLinks)

/** Those of some addresses that were not asked within a day. */
export async function unasked(addresses: readonly string[], now: Date, transaction?: Transaction): Promise<string[]> {
  if (addresses.length === 0) return []
  const known = await AskedLink.findAll({
    where: { id: addresses.map(idOf), askedAt: { [Op.gt]: new Date(+now - againMs) } },
    attributes: ['id'],
    transaction,
  })
  const ids = new Set(known.map(({ id }) => id))
  return addresses.filter(address => !ids.has(idOf(address)))
}

/** What of the addresses in notes did not answer as it should. */
export async function badLinksIn(notes: string): Promise<{ address: string; problem: string }[]> {
  const addresses = webAddressesIn(notes)
  if (addresses.length === 0) return []
  const bad = await AskedLink.findAll({ where: { id: addresses.map(idOf), problem: { [Op.not]: null } } })
  return bad.map(({ address, problem }) => ({ address, problem: problem! }))
}

/** Asks for the links of an episode in a while. */
export const askLinks = ({ id, showId }: { id: string; showId: string }): NewJob => ({
  kind: 'ask-links',
  payload: { episodeId: id },
  subject: id,
  showId,
  afterMs: pauseMs,
})
