import { dateWords } from './moment'
import { type Hindrance, hindranceWords } from './readiness'

/** What people are told of a moment: that it went out, that it did not, or that it would not as it is, an hour or a day before. */
export const noticeKinds = ['released', 'held', 'hour before', 'day before', 'commented'] as const
export type NoticeKind = (typeof noticeKinds)[number]

/** All that people are written of: moments of episodes, that a directory took a show, and what a week came to. */
export const mailKinds = [...noticeKinds, 'listed', 'week'] as const
export type MailKind = (typeof mailKinds)[number]

/** So long before its moment somebody is told of an episode that is not ready. */
export const beforeMs: Readonly<Record<'hour before' | 'day before', number>> = {
  'hour before': 3600_000,
  'day before': 24 * 3600_000,
}

/** Which mail somebody can do without, each told by a choice. */
export const mailChoices: Readonly<Record<MailKind, string>> = {
  released: 'An episode went out',
  held: 'An episode was held, because it is not ready',
  'hour before': 'An episode comes up within an hour and is not ready',
  'day before': 'An episode is due within a day but is not ready',
  commented: 'A listener wrote something to an episode',
  listed: 'A directory accepted the show',
  week: 'Last week’s downloads, on Monday morning',
}

/** One episode that a mail is about. */
export interface NoticeFacts {
  title: string
  /** Null where it says nothing: one mail tells what came within an hour. */
  moment: Date | null
  hindrances: readonly Hindrance[]
  /** Its page where it went out, else its desk; or where it is read what listeners wrote. */
  address: string
}

/** A mail about some episodes of a show, by its clock; short, and with the way to what it is about. */
export function mailOf(
  kind: NoticeKind,
  show: { name: string; zone: string },
  episodes: readonly NoticeFacts[],
): { subject: string; text: string } {
  const [first] = episodes
  const what = episodes.length === 1 ? `“${first!.title}”` : `${episodes.length} episodes`
  const subject = `${show.name}: ${what} ${subjects[kind](episodes.length)}`
  const lines = episodes
    .slice(0, mostListed)
    .flatMap(({ title, moment, hindrances, address }) => [
      title,
      ...(moment ? [whenWords(moment, hindrances, show.zone)] : []),
      address,
      '',
    ])
  const more = episodes.length - mostListed
  return { subject, text: [leads[kind], '', ...lines, ...(more > 0 ? [`and ${more} more.`, ''] : [])].join('\n') }
}
const whenWords = (moment: Date, hindrances: readonly Hindrance[], zone: string): string =>
  `${dateWords(moment, zone)} in ${zone}${hindrances.length > 0 ? `; it ${list.format(hindrances.map(each => hindranceWords[each]))}` : ''}`
const mostListed = 50
const list = new Intl.ListFormat('en-GB')

const subjects: Readonly<Record<NoticeKind, (count: number) => string>> = {
  released: count => `${count === 1 ? 'is' : 'are'} out`,
  held: count => `${count === 1 ? 'was' : 'were'} held`,
  'hour before': count => `${count === 1 ? 'comes' : 'come'} up within an hour, not ready`,
  'day before': count => `${count === 1 ? 'comes' : 'come'} up within a day, not ready`,
  commented: count => `${count === 1 ? 'has' : 'have'} something from a listener`,
}
const leads: Readonly<Record<NoticeKind, string>> = {
  released: 'This episode is now in the feed. Most apps pick it up within a few hours.',
  held: 'This episode was not ready at its release time, so it was held back. It will be released as soon as it is ready.',
  'hour before': 'This is due within an hour and is not ready.',
  'day before': 'This is due within a day and is not ready.',
  commented: 'A listener wrote something. Nobody sees it before you have read it.',
}

/** A mail about a directory that took a show. */
export const listedMail = (
  show: string,
  { name, listingAddress }: { name: string; listingAddress: string | null },
): { subject: string; text: string } => ({
  subject: `${show} is in ${name}`,
  text: `${name} lists the show now. Every new episode goes there by itself, some hours after its release.\n\n${listingAddress ?? ''}\n`,
})
