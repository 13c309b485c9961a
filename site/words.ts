import { playedAddress } from './playedAddress'
import { DateTime } from 'luxon'
import type { PassageKind } from '@core/search/passages'
import type { EpisodeFilter } from '@core/site/filter'
import { mostCommentLetters, mostLinks, mostNameLetters } from '@core/comments/comment'
import { personRoles } from '@core/people/roles'
import type { Choices, CommentPage, EpisodeLine, PublicEpisode, PublicShow, PublicSound, SaidCue } from './facts'
import type { MessageKey, SiteMessages } from './messages'

/** The day of a release as the show's zone and language write it, whether there are words in it or not. */
export function releaseDay(releasedAt: string, { zone, language }: Pick<PublicShow, 'zone' | 'language'>): string {
  return DateTime.fromISO(releasedAt, { zone, locale: language, numberingSystem: 'latn' }).toLocaleString(
    DateTime.DATE_FULL,
  )
}

/** What a list of episodes is called: `All episodes`, `Season 2, Tagged “reeds”, 2026`. */
export function filterName(
  { season, strand, tag, year }: EpisodeFilter,
  { strands }: Pick<Choices, 'strands'>,
  { t, list }: Pick<SiteMessages, 't' | 'list'>,
): string {
  const names = [
    strand !== null && (strands.find(({ slug }) => slug === strand)?.name ?? strand),
    season !== null && t('season', { number: season }),
    tag !== null && t('tagged', { tag }),
    year !== null && String(year),
  ].filter(name => name !== false)
  return names.length > 0 ? list(names) : t('allEpisodes')
}

/** What is said of a place in which something was found, where it cannot be heard. */
export const placeNames = {
  title: 'placeTitle',
  hook: 'placeHook',
  notes: 'placeNotes',
  person: 'placePerson',
  tag: 'placeTag',
  chapter: 'placeChapter',
  said: 'placeSaid',
} as const satisfies Readonly<Record<PassageKind, MessageKey>>

/** What somebody does, in the language of the page; a role that is on no list stays as it is written. */
export function roleName(role: string, t: SiteMessages['t']): string {
  const known = personRoles.find(each => each === role)
  return known ? t(`role.${known}`) : role
}

const commentProblems: Readonly<Record<NonNullable<CommentPage['problem']>, [key: MessageKey, most?: number]>> = {
  'no name': ['commentNoName'],
  'name too long': ['commentLongName', mostNameLetters],
  'no words': ['commentNoWords'],
  'too many words': ['commentLongWords', mostCommentLetters],
  'too many links': ['commentManyLinks', mostLinks],
  'too many comments': ['commentTooMany'],
}
/** Why a comment was not taken. */
export function commentProblem(problem: keyof typeof commentProblems, t: SiteMessages['t']): string {
  const [key, most = 0] = commentProblems[problem]
  return t(key, { most })
}

/** What a player shows and tells of an episode. */
export const playerOf = (
  show: Pick<PublicShow, 'name' | 'artworkAddress'>,
  { title, artworkAddress, pageAddress }: Pick<EpisodeLine, 'title' | 'artworkAddress' | 'pageAddress'>,
  sound: PublicSound,
) => ({ sound, title, show: show.name, picture: artworkAddress ?? show.artworkAddress, pageAddress })

/** The same as an element has it, where there is one player for several. */
export const playing = (
  show: Pick<PublicShow, 'name' | 'artworkAddress'>,
  episode: EpisodeLine,
  from: 'page' | 'frame',
) => ({
  'data-address': playedAddress(episode.sound.address, from),
  'data-duration-ms': episode.sound.durationMs,
  'data-title': episode.title,
  'data-show': show.name,
  'data-picture': episode.artworkAddress ?? show.artworkAddress,
  'data-page': episode.pageAddress,
})

/** Cleaned notes as they stand beneath a page's title: its headings are the page's own sections. */
export const sectioned = (notesHtml: string): string => notesHtml.replace(/<(\/?)h3>/g, '<$1h2>')

/** The name of the site that an address leads to. */
export const siteOf = (address: string): string => new URL(address).host.replace(/^www\./, '')

const formatNames: Readonly<Record<string, string>> = { vtt: 'WebVTT', srt: 'SubRip', json: 'JSON', html: 'HTML' }
type TranscriptFile = PublicEpisode['transcriptFiles'][number]
/** What a file of a transcript is called; its language only where there are several. */
export function fileName(
  { language, format }: TranscriptFile,
  all: readonly TranscriptFile[],
  { t, languageName }: Pick<SiteMessages, 't' | 'languageName'>,
): string {
  const name = format === 'txt' ? t('transcriptText') : (formatNames[format] ?? format)
  if (all.every(file => file.language === language)) return name
  return t('transcriptIn', { language: languageName(language), format: name })
}

/** So many letters make a paragraph, however long somebody speaks. */
const longestParagraph = 600

/** What is said as it is read: what one person says belongs together, as far as a paragraph is pleasant. */
export function paragraphs(said: readonly SaidCue[]): { speaker: string | null; cues: SaidCue[] }[] {
  const found: { speaker: string | null; cues: SaidCue[]; letters: number }[] = []
  let who: string | null = null
  for (const cue of said) {
    const open = found.at(-1)
    const isOther = !open || cue.speaker !== who
    if (isOther || open.letters > longestParagraph)
      found.push({ speaker: isOther ? cue.speaker : null, cues: [], letters: 0 })
    who = cue.speaker
    const last = found.at(-1)!
    last.cues.push(cue)
    last.letters += cue.text.length
  }
  return found
}
