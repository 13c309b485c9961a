import { listedMail, type MailKind, mailOf, type NoticeKind } from '@core/release/notices'
import { may } from '@core/access/roles'
import type { Transaction } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import { Membership } from '../../people/access/models'
import { Account } from '../../people/accounts/models'
import { transact } from '../../platform/database/transact'
import { Episode } from '../../show/episodes/models'
import { hindrancesNow } from '../../show/episodes/readiness'
import { withFiles } from '../../show/episodes/roles'
import type { JobDefinition, Payloads } from '../../platform/jobs/kinds'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { type Addressed, addressed, addressesOf } from '../../show/shows/service'
import { Mail, Notice } from './models'

/** The job: writes a mail to everybody who wants to know of what has become of a show's episodes, one for all of a kind. */
export function tellPeople(platform: Platform): JobDefinition<Payloads['tell-people']> {
  const { database, clock, configuration } = platform

  return {
    lane: 'telling',
    async run({ showId }) {
      await transact(database, async transaction => {
        const notices = await Notice.findAll({ where: { showId, toldAt: null }, lock: true, transaction })
        if (notices.length === 0) return
        const now = clock.now()
        // Told and written in one transaction: nobody gets two mails of one thing, and nobody gets none.
        await Notice.update({ toldAt: now }, { where: { id: notices.map(({ id }) => id) }, transaction })
        if (!configuration.smtpUrl) return
        const [show, people] = await Promise.all([
          Show.findByPk(showId, { attributes: ['name', ...addressed, 'zone'], rejectOnEmpty: true, transaction }),
          peopleOf(showId),
        ])
        const episodes = await Episode.findAll({
          where: { id: notices.map(({ episodeId }) => episodeId) },
          include: withFiles('type', 'reachable'),
          transaction,
        })
        const known = new Map(episodes.map(episode => [episode.id, episode]))
        for (const kind of new Set(notices.map(each => each.kind))) {
          const told = notices
            .filter(each => each.kind === kind)
            .toSorted((one, other) => +one.moment - +other.moment)
            .map(({ episodeId, moment }) => toldOf(known.get(episodeId)!, show, moment, kind))
          await writeTo(platform, people, kind, mailOf(kind, show, told), transaction)
        }
      })
    },
    gaveUp: null,
  }

  function toldOf(episode: Episode, show: Addressed, moment: Date, kind: NoticeKind) {
    const isOut = episode.status === 'released'
    const { publicUrl } = configuration
    const studio = `${publicUrl}/studio/${show.slug}`
    const address =
      kind === 'commented'
        ? `${studio}/site/comments`
        : isOut
          ? `${addressesOf(publicUrl, show).pageAddress}/${episode.slug}`
          : `${studio}/episodes/${episode.id}`
    const hindrances = isOut ? [] : hindrancesNow(episode)
    return { title: episode.title, moment: kind === 'commented' ? null : moment, hindrances, address }
  }
}

/** Writes to everybody in a show who wants to know that a directory took it. */
export async function tellListed(
  platform: Pick<Platform, 'clock' | 'jobs' | 'configuration'>,
  listing: { showId: string; name: string; listingAddress: string | null },
  transaction: Transaction,
): Promise<void> {
  if (!platform.configuration.smtpUrl) return
  const { name } = await Show.findByPk(listing.showId, { attributes: ['name'], rejectOnEmpty: true, transaction })
  await writeTo(platform, await peopleOf(listing.showId), 'listed', listedMail(name, listing), transaction)
}

/** Writes to everybody in a show who wants to know what a week came to. */
export async function tellWeek(
  platform: Pick<Platform, 'clock' | 'jobs'>,
  { showId, mail }: { showId: string; mail: { subject: string; text: string } },
  transaction: Transaction,
): Promise<void> {
  await writeTo(platform, await peopleOf(showId), 'week', mail, transaction)
}

/** Writes a mail to each of those who want it. */
async function writeTo(
  { clock, jobs }: Pick<Platform, 'clock' | 'jobs'>,
  people: Awaited<ReturnType<typeof peopleOf>>,
  kind: MailKind,
  mail: { subject: string; text: string },
  transaction: Transaction,
): Promise<void> {
  for (const { id: accountId } of people.filter(({ unwantedMail }) => !unwantedMail.includes(kind))) {
    const id = uuidV7()
    await Mail.create({ id, accountId, kind, ...mail, createdAt: clock.now() }, { transaction })
    await jobs.add({ kind: 'send-mail', payload: { mailId: id } }, transaction)
  }
}

/** Whoever may release in a show. */
async function peopleOf(showId: string): Promise<{ id: string; unwantedMail: MailKind[] }[]> {
  const members = await Membership.findAll({ where: { showId } })
  const ids = members.filter(({ role }) => may(role, 'make')).map(({ accountId }) => accountId)
  return Account.findAll({ where: { id: ids }, attributes: ['id', 'unwantedMail'] })
}
