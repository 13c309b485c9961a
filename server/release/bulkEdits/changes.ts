import { type EpisodeField, type EpisodeText, textOf } from '@core/episode/fields'
import type { Outcome } from '@core/episode/bulkEdit'
import type { Around } from '@core/release/layout'
import type { Status } from '@core/release/status'
import type { WordsOrStatus } from '../../show/episodes/change'
import type { Episode } from '../../show/episodes/models'
import type { Done } from './models'

/** What becomes of an episode, where that is something. */
export type RealOutcome = Exclude<NonNullable<Outcome>, { refused: string }>
export const isChange = (outcome: Outcome): outcome is RealOutcome => outcome !== null && !('refused' in outcome)

/** The change that an outcome means. */
export function changeOf({ status }: Episode, outcome: RealOutcome, { now, zone }: Around): WordsOrStatus {
  if ('text' in outcome) return { fields: outcome.text, act: 'many at once' }
  if ('at' in outcome) return dating(status, outcome.at, zone)
  if ('step' in outcome) return { step: outcome.step, fields: { releaseAt: null, releaseZone: null } }
  return { fields: { deletedAt: now } }
}

/** A date for an episode: what is not out yet goes out then; what is past goes out with the next look of the release clock. */
export const dating = (status: Status, at: Date, zone: string | null): WordsOrStatus => ({
  ...(status === 'released' ? { isInFeed: true } : { step: 'schedule' }),
  fields: { releaseAt: at, releaseZone: zone },
})

/** What was done, with what is needed to take it back. */
export function doneOf(episode: Episode, outcome: RealOutcome): Done {
  const { id, status, releaseAt, releaseZone } = episode
  if ('at' in outcome) {
    const from = { status, at: releaseAt?.toISOString() ?? null, zone: releaseZone }
    return { id, dated: { from, to: outcome.at.toISOString() } }
  }
  if ('step' in outcome) return { id, wasScheduled: { at: releaseAt!.toISOString(), zone: releaseZone } }
  if ('isRemoved' in outcome) return { id, isRemoved: true }
  const text = textOf(episode)
  const names = Object.keys(outcome.text) as EpisodeField[]
  return { id, before: partOf(text, names), after: outcome.text }
}

const partOf = (text: EpisodeText, names: readonly EpisodeField[]): Partial<EpisodeText> =>
  Object.fromEntries(names.map(name => [name, text[name]]))
