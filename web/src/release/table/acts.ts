import type { Person } from '@core/episode/fields'
import type { BulkEdit } from '@core/episode/bulkEdit'
import type { Layout } from '@core/release/layout'
import type { Weekday } from '@core/release/rhythm'
import { readTimeOfDay } from '../../platform/time/timeOfDay'
import { t } from './messages'

/** What can be done with the episodes that were chosen, as it is offered. */
export const acts = {
  'lay out': t('scheduleAsASeries'),
  'add tags': t('addTags'),
  'remove tags': t('removeTags'),
  'add people': t('addPeople'),
  'remove people': t('removePeople'),
  season: t('setTheSeason'),
  explicit: t('setExplicit'),
  renumber: t('renumber'),
  'renumber on': t('renumberFromHereOn'),
  'to draft': t('returnToDraft'),
  remove: t('remove'),
} as const
export type ActName = keyof typeof acts

/** How episodes are to be laid out, as it is filled in. */
export interface LaidOut {
  way: Layout['way']
  day: string | null
  apart: Layout['step']['kind']
  weekdays: Weekday[]
  every: number
  time: string
  order: 'number' | 'file name' | 'as listed'
}

function stepOf({ apart, weekdays, every, time: written }: LaidOut): Layout['step'] | null {
  if (apart === 'slots') return { kind: 'slots' }
  const time = readTimeOfDay(written)
  if (!time) return null
  if (apart === 'days') return { kind: 'days', every, time }
  return weekdays.length > 0 ? { kind: 'weekdays', days: weekdays, time } : null
}

function layingOut(laid: LaidOut): BulkEdit | null {
  const { way, day, order } = laid
  const step = stepOf(laid)
  if (!day || !step) return null
  return { kind: 'lay out', layout: { way, day, step }, order }
}

/** What was filled in for an act. */
export interface Filled {
  tags: string[]
  people: Person[]
  season: number | null
  explicit: boolean | null
  from: number | null
  laid: LaidOut
}

/** The change that an act means, or null while something is missing for it. */
export function changeOf(act: ActName, { tags, people, season, explicit, from, laid }: Filled): BulkEdit | null {
  switch (act) {
    case 'lay out':
      return layingOut(laid)
    case 'add tags':
    case 'remove tags':
      return tags.length > 0 ? { kind: act, tags } : null
    case 'add people':
    case 'remove people':
      return people.length > 0 ? { kind: act, people } : null
    case 'season':
      return { kind: 'season', season }
    case 'explicit':
      return { kind: 'explicit', explicit }
    case 'renumber':
    case 'renumber on':
      return from === null ? null : { kind: 'renumber', from }
    case 'to draft':
    case 'remove':
      return { kind: act }
  }
}
