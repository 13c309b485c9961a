import { randomBytes } from 'node:crypto'
import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator'
import { Op } from 'sequelize'
import { eventWords } from '@core/release/calendarEvent'
import { Account } from '../../people/accounts/models'
import { Membership } from '../../people/access/models'
import { Episode } from '../../show/episodes/models'
import { hindrancesNow } from '../../show/episodes/readiness'
import { fileIn, withFiles } from '../../show/episodes/roles'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'

const dayMs = 24 * 3600_000
const shownBehindMs = 90 * dayMs
const mostEvents = 1_000
const leastLengthMs = 5 * 60_000
const hour = 3600

/** The address under which a person's own calendar reads what goes out when, and what stands there. */
export function calendarSubscription({ clock, configuration }: Pick<Platform, 'clock' | 'configuration'>) {
  const { publicUrl } = configuration
  const addressOf = (secret: string | null): string | null => secret && `${publicUrl}/api/v1/calendar/${secret}.ics`

  async function give(accountId: string, calendarSecret: string | null): Promise<string | null> {
    await Account.update({ calendarSecret }, { where: { id: accountId } })
    return addressOf(calendarSecret)
  }

  return {
    async address(accountId: string): Promise<string | null> {
      const account = await Account.findByPk(accountId, { attributes: ['calendarSecret'], rejectOnEmpty: true })
      return addressOf(account.calendarSecret)
    },
    /** Another address; the one before answers no more. */
    renew: (accountId: string): Promise<string | null> => give(accountId, randomBytes(32).toString('base64url')),
    drop: (accountId: string): Promise<string | null> => give(accountId, null),

    /**
     * The calendar at a secret, by RFC 5545; null where there is none. An event keeps its UID while its SEQUENCE grows with each
     * change (sections 3.8.4.7, 3.8.7.4); what is not scheduled any more is not in it.
     */
    async calendar(secret: string): Promise<string | null> {
      const account = await Account.findOne({ where: { calendarSecret: secret }, attributes: ['id'] })
      if (!account) return null
      const members = await Membership.findAll({ where: { accountId: account.id }, attributes: ['showId'] })
      const shows = new Map(
        (await Show.findAll({ where: { id: members.map(({ showId }) => showId) } })).map(show => [show.id, show]),
      )
      const now = clock.now()
      const episodes = await Episode.findAll({
        where: {
          showId: [...shows.keys()],
          deletedAt: null,
          status: ['scheduled', 'released'],
          releaseAt: { [Op.gt]: new Date(+now - shownBehindMs) },
        },
        include: withFiles('durationMs', 'type', 'reachable'),
        order: [['releaseAt', 'ASC']],
      })
      const calendar = ical({
        name: 'What goes out',
        prodId: { company: 'Lake Letter', product: 'Lake Letter', language: 'EN' },
        method: ICalCalendarMethod.PUBLISH,
        ttl: hour,
      })
      const { hostname } = new URL(publicUrl)
      for (const episode of episodes.slice(0, mostEvents)) {
        const show = shows.get(episode.showId)!
        const isOut = episode.status === 'released'
        const isReady = isOut || hindrancesNow(episode).length === 0
        const lengthMs = Math.max(leastLengthMs, fileIn(episode, 'source')?.durationMs ?? 0)
        calendar.createEvent({
          id: `${episode.id}@${hostname}`,
          sequence: episode.version,
          // RFC 5545 section 3.8.7.2: when what stands here was last another.
          stamp: episode.updatedAt,
          lastModified: episode.updatedAt,
          start: episode.releaseAt!,
          end: new Date(+episode.releaseAt! + lengthMs),
          ...eventWords(show.name, episode.title, isOut ? 'out' : isReady ? 'ready' : 'not ready'),
          url: `${publicUrl}/studio/${show.slug}/episodes/${episode.id}`,
          status: isReady ? ICalEventStatus.CONFIRMED : ICalEventStatus.TENTATIVE,
        })
      }
      return calendar.toString()
    },
  }
}
