import { textIn } from '../read'
import { type FeedRule, inItems } from './rule'

export const duration: FeedRule = {
  name: 'duration',
  severity: 'warning',
  says: 'How long an episode is, is not told as apps read it.',
  rule: 'itunes:duration is a number of seconds, or HH:MM:SS.',
  source: 'itunes namespace, duration (from memory)',
  ifItStays: 'Lists show no length.',
  fix: 'Give the length of the file.',
  place: 'host',
  find: inItems(item => {
    const told = textIn(item, 'itunes:duration')
    return secondsIn(told) === null ? told : null
  }),
}

/** The seconds that a duration tells; null where it tells none, or zero. */
export function secondsIn(told: string): number | null {
  if (!/^(\d{1,7}|(\d{1,3}:)?\d{1,3}:[0-5]\d)$/.test(told)) return null
  return told.split(':').reduce((sum, part) => sum * 60 + Number(part), 0) || null
}
