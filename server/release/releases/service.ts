import type { Transaction } from 'sequelize'
import type { Episode as EpisodeView, Release, Retirement, WallMoment } from '@contract/episodes'
import { earliestRelease, readLocalMoment } from '@core/release/moment'
import { hindering, type Hindrance, hindranceRules } from '@core/release/readiness'
import { after, type Step } from '@core/release/status'
import type { Scope } from '../../people/access/scope'
import { episodeChanges, isOtherThanReleased, type Seen } from '../../show/episodes/change'
import { Episode } from '../../show/episodes/models'
import { hindrancesNow } from '../../show/episodes/readiness'
import { fileIn, loadFiles } from '../../show/episodes/roles'
import { episodeService } from '../../show/episodes/service'
import { AppError, badInput } from '../../platform/http/errors'
import { Upload } from '../../media/files/upload'
import { noteReleased } from '../mail/notices'
import type { Platform } from '../../platform/platform'
import { lookBefore } from '../../production/remote/looks'
import { sending } from './sending'

/** Moves episodes between draft, scheduled, released and retired. */
export function releaseService(
  platform: Pick<Platform, 'database' | 'clock' | 'configuration' | 'jobs' | 'events' | 'media'>,
) {
  const { clock } = platform
  const { changeEpisode } = episodeChanges(platform)
  const { asSent } = sending(platform)
  const episodes = episodeService(platform)

  /** Loads its files, and throws `not-ready` with what is missing. What is scheduled may still be unfinished: it waits for that at its moment. */
  async function needReady(
    episode: Episode,
    transaction: Transaction,
    step: 'release' | 'schedule' = 'release',
  ): Promise<void> {
    const { id } = episode
    await loadFiles(episode, transaction)
    const found = hindering(step, hindrancesNow(episode))
    if (found.length === 0) return
    const where = { episodeId: id, state: ['receiving', 'reading'] }
    const isArriving = found.includes('no audio') && (await Upload.count({ where, transaction })) > 0
    const faults = found.map(hindrance => ({
      field: hindrance === 'no title' ? 'title' : 'audio',
      value: valueOf(hindrance, episode),
      rule: hindrance === 'no audio' && isArriving ? 'The audio is still on its way.' : hindranceRules[hindrance],
    }))
    throw new AppError('not-ready', faults.map(fault => fault.rule).join(' '), faults)
  }

  function needStep(step: Step, { status }: Episode): void {
    if (!after(step, status)) throw new AppError('wrong-status', `The episode is ${status} by now.`)
  }

  return {
    /**
     * Releases now, also dated back, or schedules at a wall time. Throws `not-ready`, and `bad-input` for a time that is
     * skipped or unreadable, or past where it is not meant so.
     */
    async release(scope: Scope, { when, ...seen }: Release): Promise<EpisodeView> {
      const now = clock.now()
      const at = when.kind === 'now' ? now : momentMeant(when, now)
      const releaseZone = when.kind === 'now' ? null : when.zone
      if (at <= now) {
        await changeEpisode(scope, seen, async (episode, transaction) => {
          needStep('release', episode)
          await needReady(episode, transaction)
          const { fields, files } = await asSent(episode, transaction)
          await noteReleased(platform, [{ ...episode.get(), releaseAt: at }], transaction)
          return {
            step: 'release',
            isInFeed: true,
            fields: { ...fields, releaseAt: at, releaseZone },
            files,
          }
        })
        return episodes.get(scope)
      }
      await changeEpisode(scope, seen, async (episode, transaction) => {
        needStep('schedule', episode)
        await needReady(episode, transaction, 'schedule')
        const file = fileIn(episode, 'source')!
        return {
          step: 'schedule',
          fields: { releaseAt: at, releaseZone },
          jobs: file.address ? [lookBefore(at, file, now)] : [],
        }
      })
      return episodes.get(scope)
    },

    /** Back to draft: the moment is taken away, everything else stays. */
    async unschedule(scope: Scope, seen: Seen): Promise<EpisodeView> {
      await changeEpisode(scope, seen, async () => ({
        step: 'unschedule',
        fields: { releaseAt: null, releaseZone: null },
      }))
      return episodes.get(scope)
    },

    /** Sends what was written since the release into the feed; where that is nothing, nothing changes. GUID and date stay. */
    async sendChanges(scope: Scope, seen: Seen): Promise<EpisodeView> {
      await changeEpisode(scope, seen, async (episode, transaction) => {
        needStep('send', episode)
        if (!isOtherThanReleased(episode)) return null
        await needReady(episode, transaction)
        return { step: 'send', isInFeed: true, ...(await asSent(episode, transaction)) }
      })
      return episodes.get(scope)
    },

    /** Gives a released episode another date, which is past too. Throws `bad-input` as a release does. */
    async redate(scope: Scope, { when, ...seen }: Seen & { when: WallMoment }): Promise<EpisodeView> {
      const now = clock.now()
      const releaseAt = momentMeant({ ...when, isDatedBack: true }, now)
      if (releaseAt > now)
        throw badInput(
          'release time',
          wordsOf(when),
          'It has already been released, so its date cannot be in the future.',
        )
      await changeEpisode(scope, seen, async episode => {
        needStep('redate', episode)
        if (+releaseAt === +episode.releaseAt!) return null
        return { step: 'redate', isInFeed: true, fields: { releaseAt, releaseZone: when.zone } }
      })
      return episodes.get(scope)
    },

    /** Takes a released episode out of the feed, at once or at a time that lies ahead; its page goes too, or stays. */
    async retire(scope: Scope, { when, keepsPage = false, ...seen }: Retirement): Promise<EpisodeView> {
      const retireAt = when ? momentMeant(when, clock.now()) : null
      await changeEpisode(scope, seen, async episode => {
        if (!retireAt)
          return { step: 'retire', isInFeed: true, fields: { keepsPage, retireAt: null, retireZone: null } }
        needStep('set an end', episode)
        return { step: 'set an end', fields: { retireAt, retireZone: when!.zone, keepsPage } }
      })
      return episodes.get(scope)
    },

    /** An episode that was to end stays. */
    async dropEnd(scope: Scope, seen: Seen): Promise<EpisodeView> {
      await changeEpisode(scope, seen, async ({ retireAt }) =>
        retireAt ? { step: 'drop the end', fields: { retireAt: null, retireZone: null, keepsPage: false } } : null,
      )
      return episodes.get(scope)
    },

    /** Puts a retired episode back as it was: with the GUID, the date, the text and the file that it went out with. */
    async restore(scope: Scope, seen: Seen): Promise<EpisodeView> {
      await changeEpisode(scope, seen, async () => ({
        step: 'restore',
        isInFeed: true,
        fields: { keepsPage: false, retireAt: null, retireZone: null },
      }))
      return episodes.get(scope)
    },
  }
}

const wordsOf = ({ local, zone }: WallMoment): string => `${local.replace('T', ' ')} (${zone})`

/** The moment a wall time means, which lies ahead where it is not meant to be dated back. Throws `bad-input` that names the rule. */
function momentMeant(when: WallMoment & { isDatedBack?: true | undefined }, now: Date): Date {
  const { local, zone, second, isDatedBack } = when
  const read = readLocalMoment(local, zone)
  if (read.kind === 'unreadable')
    throw badInput(
      'release time',
      `${local} ${zone}`,
      'A date and time such as 2026-12-03T06:00, in a zone of the IANA list.',
    )
  if (read.kind === 'skipped') {
    throw badInput(
      'release time',
      wordsOf(when),
      `The clock jumps over this time on that day; the next one it shows is ${read.next.replace('T', ' ')}.`,
    )
  }
  const at = read.kind === 'twice' && second ? read.second : read.at
  if (at < earliestRelease) throw badInput('release time', wordsOf(when), 'Not before the year 2000.')
  if (at <= now && !isDatedBack)
    throw badInput('release time', wordsOf(when), 'The time is past. Choose one that lies ahead, or release now.')
  return at
}

function valueOf(hindrance: Hindrance, episode: Episode): string {
  if (hindrance === 'no audio' || hindrance === 'no title') return '(nothing)'
  return hindrance === 'other format' ? fileIn(episode, 'source')!.name : episode.finishing
}
