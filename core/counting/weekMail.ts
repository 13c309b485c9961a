import type { Age } from './age'
import type { Band } from './band'

/** What a mail about a week tells. */
export interface WeekFacts {
  name: string
  /** Its first and its last day (UTC). */
  from: Date
  to: Date
  downloads: number
  /** In the week before it. */
  before: number
  /** Those that were fetched most. */
  episodes: readonly { title: string; downloads: number }[]
  newest: { episode: { title: string }; age: Age; downloads: number; usual: Band | null } | null
  address: string
}

const number = (of: number): string => of.toLocaleString('en-GB')
const many = (of: number): string => `${number(of)} ${of === 1 ? 'download' : 'downloads'}`
const day = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' })

/** The numbers of a week as a mail, with the way to all of them. */
export function weekMail({ name, from, to, downloads, before, episodes, newest, address }: WeekFacts): {
  subject: string
  text: string
} {
  return {
    subject: `${name}: ${many(downloads)} last week`,
    text: [
      `${many(downloads)} from ${day.format(from)} to ${day.format(to)} (UTC). The week before there ${before === 1 ? 'was' : 'were'} ${before === 0 ? 'none' : number(before)}.`,
      '',
      ...(newest ? [newestWords(newest), ''] : []),
      ...episodes.map(({ title, downloads: of }) => `${number(of)}  ${title}`),
      '',
      address,
      '',
    ].join('\n'),
  }
}

function newestWords({
  episode,
  age: { unit, many: old },
  downloads,
  usual,
}: NonNullable<WeekFacts['newest']>): string {
  const age =
    old === 0 ? 'in its first hour' : `after ${old} ${unit === 'hours' ? 'hour' : 'day'}${old === 1 ? '' : 's'}`
  const own = `The newest episode, “${episode.title}”, had ${many(downloads)} ${age}.`
  if (!usual) return own
  const { low, high } = usual
  return `${own} Yours usually have ${low === high ? number(low) : `${number(low)} to ${number(high)}`}.`
}
