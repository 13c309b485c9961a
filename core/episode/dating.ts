import { type Around, layOut, type Layout } from '../release/layout'
import { earliestRelease } from '../release/moment'
import { type Hindrance, hindering, hindranceNeeds } from '../release/readiness'
import type { Status } from '../release/status'
import { inNaturalOrder } from '../upload/order'
import type { EpisodeText } from './fields'

/** What gives each of them another date. */
export type Dated =
  | { kind: 'lay out'; layout: Layout; order: 'number' | 'file name' | 'as listed' }
  /** Their dates among them, the earliest for the lowest number. */
  | { kind: 'dates by number' }
  /** Those that go out at the same moment follow each other by a minute. */
  | { kind: 'minute apart' }

export const datedKinds = ['lay out', 'dates by number', 'minute apart'] as const
export const isDated = <C extends { kind: string }>(change: C): change is Extract<C, Dated> =>
  (datedKinds as readonly string[]).includes(change.kind)

/** An episode as far as it matters for its date. */
export interface Dateable {
  text: EpisodeText
  status: Status
  releaseAt: Date | null
  /** The name of its source; null without one. */
  fileName: string | null
  /** What keeps it from going out. */
  hindrances: readonly Hindrance[]
}

/** Some episodes in the order in which a change counts them; others stay as they are given. */
export function arranged<E extends Dateable>(change: Dated, episodes: readonly E[]): readonly E[] {
  if (change.kind === 'lay out' && change.order === 'file name')
    return inNaturalOrder(episodes.map(episode => ({ episode, name: episode.fileName ?? '' }))).map(
      each => each.episode,
    )
  if ((change.kind === 'lay out' && change.order === 'number') || change.kind === 'dates by number')
    return episodes.toSorted((one, other) => placeOf(one) - placeOf(other))
  if (change.kind === 'minute apart')
    return episodes.toSorted(
      (one, other) => +(one.releaseAt ?? 0) - +(other.releaseAt ?? 0) || placeOf(one) - placeOf(other),
    )
  return episodes
}
/** What has no number comes last. */
const placeOf = ({ text: { season, number } }: Dateable): number =>
  number === null ? Number.MAX_SAFE_INTEGER : (season ?? 0) * 1e6 + number

/** Which date each gets; null where it has it already. */
export function datesOf(
  change: Dated,
  episodes: readonly Dateable[],
  around: Around,
): ({ at: Date } | { refused: string } | null)[] {
  const refusals = episodes.map(episode => dateRefusal(change, episode))
  const going = episodes.filter((_episode, at) => refusals[at] === null)
  const moments = momentsOf(change, going, around)
  if (moments.length < going.length)
    return refusals.map(refused => ({ refused: refused ?? 'The show has no rhythm with slots for it.' }))
  let next = 0
  return refusals.map((refused, index) => {
    if (refused) return { refused }
    const at = moments[next++]!
    if (at < earliestRelease) return { refused: 'It would be dated before the year 2000.' }
    return +at === +(episodes[index]!.releaseAt ?? NaN) ? null : { at }
  })
}
const minuteMs = 60_000

function momentsOf(change: Dated, episodes: readonly Dateable[], around: Around): Date[] {
  if (change.kind === 'lay out') return layOut(change.layout, around, episodes.length).map(({ at }) => at)
  const dates = episodes.map(({ releaseAt }) => releaseAt!)
  if (change.kind === 'dates by number') return dates.toSorted((one, other) => +one - +other)
  let last = -Infinity
  return dates.map(at => {
    last = Math.max(+at, last + minuteMs)
    return new Date(last)
  })
}

function dateRefusal(change: Dated, { status, releaseAt, hindrances }: Dateable): string | null {
  if (status === 'retired') return 'It is retired; put it back into the feed first.'
  if (change.kind !== 'lay out') return releaseAt ? null : 'It has no date yet.'
  if (status === 'released') return 'It is released; change its date on its desk.'
  const missing = hindering('schedule', hindrances)
  return missing.length > 0 ? `It lacks ${missing.map(each => hindranceNeeds[each]).join(' and ')}.` : null
}
