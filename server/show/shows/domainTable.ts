import type { IncomingMessage } from 'node:http'
import { Op } from 'sequelize'
import type { Platform } from '../../platform/platform'
import { Show } from './models'

const askedAt = new WeakMap<IncomingMessage, string>()

/** The host name of a show that a request was sent to; null where that was the house's own, or none that is known. */
export const askedDomainOf = (request: IncomingMessage): string | null => askedAt.get(request) ?? null

/** What every host answers alike: files that are known by what is in them, and what other sites ask. */
const everywhere = /^\/(media|assets|embed)\/|^\/favicon\.svg$/

/** Which show lives at which host name. A request to one is taken as one to the show's part of the house. */
export function domainTable({ events }: Pick<Platform, 'events'>) {
  let slugs = new Map<string, string>()
  let loading: Promise<void> | null = null
  let again = false

  async function load(): Promise<void> {
    const shows = await Show.findAll({
      where: { hostName: { [Op.not]: null } },
      attributes: ['slug', 'hostName'],
      raw: true,
    })
    slugs = new Map(shows.map(({ slug, hostName }) => [hostName!, slug]))
  }
  /** Of changes that come while it is loaded, one more load brings all. */
  function renew(): void {
    if (loading) {
      again = true
      return
    }
    loading = load()
      // While the database is away, what was known last still holds.
      .catch(() => undefined)
      .finally(() => {
        loading = null
        if (again) {
          again = false
          renew()
        }
      })
  }
  events.hear(heard => {
    if (heard === 'all' || heard.kind === 'show') renew()
  })

  return {
    load,
    /** The address within the house that a request means. */
    addressOf(request: IncomingMessage): string {
      const url = request.url ?? '/'
      if (slugs.size === 0 || askedAt.has(request)) return url
      const host = (request.headers.host ?? '').toLowerCase().replace(/\.?(?::\d+)?$/, '')
      const slug = slugs.get(host)
      if (!slug) return url
      askedAt.set(request, host)
      if (everywhere.test(url)) return url
      return `/${slug}${url.replace(/^\/(?=$|\?)/, '')}`
    },
  }
}
