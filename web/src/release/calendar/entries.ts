import { DateTime } from 'luxon'
import type { Calendar, CalendarEpisode } from '@contract/calendar'
import { wallTime } from '@core/release/moment'
import { t } from './messages'

export const looks = { month: t('month'), agenda: t('agenda') } as const
export type Look = keyof typeof looks
export type OpenSlot = Calendar['slots'][number]

/** What stands on a day of the calendar: an episode, or an open slot. */
export type Entry = { local: string; showName: string | null } & (
  { kind: 'episode'; episode: CalendarEpisode } | { kind: 'slot'; slot: OpenSlot }
)

/** Everything on the calendar, each at the wall time of its own show; shows are named where there are several. */
export function entriesOf({ shows, episodes, slots }: Omit<Calendar, 'next'>): Entry[] {
  const known = new Map(shows.map(show => [show.id, show]))
  const nameOf = (showId: string): string | null => (shows.length > 1 ? known.get(showId)!.name : null)
  return [
    ...episodes.map((episode): Entry => ({
      kind: 'episode',
      episode,
      local: wallTime(new Date(episode.releaseAt!), known.get(episode.showId)!.zone),
      showName: nameOf(episode.showId),
    })),
    ...slots.map((slot): Entry => ({ kind: 'slot', slot, local: slot.local, showName: nameOf(slot.showId) })),
  ]
}

const steps: Readonly<Record<string, number>> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }

/** A wall time so many days on as an arrow says; null for another key. */
export function movedBy(key: string, local: string): string | null {
  const days = steps[key]
  return days === undefined ? null : onDay(local, DateTime.fromISO(local, { zone: 'utc' }).plus({ days }).toISODate()!)
}

/** The same time on another day. */
export const onDay = (local: string, day: string): string => `${day}${local.slice(10)}`
