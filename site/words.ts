import { DateTime } from 'luxon'
import type { PassageKind } from '@core/search/passages'
import type { EpisodeFilter } from '@core/site/filter'
import type { Choices, EpisodeLine, PublicEpisode, PublicShow, PublicSound, SaidCue } from './facts'

/** The day of a release as the show's zone and language write it. */
export function releaseDay(releasedAt: string, { zone, language }: Pick<PublicShow, 'zone' | 'language'>): string {
  return DateTime.fromISO(releasedAt, { zone, locale: language }).toLocaleString(DateTime.DATE_FULL)
}

/** What a list of episodes is called: `All episodes`, `Season 2, tagged “reeds”, 2026`. */
export function filterWords(
  { season, strand, tag, year }: EpisodeFilter,
  { strands }: Pick<Choices, 'strands'>,
): string {
  const words = [
    strand !== null && (strands.find(({ slug }) => slug === strand)?.name ?? strand),
    season !== null && `Season ${season}`,
    tag !== null && `Tagged “${tag}”`,
    year !== null && String(year),
  ].filter(said => said !== false)
  return words.join(', ') || 'All episodes'
}

/** What is said of a place in which something was found, where it cannot be heard. */
export const placeNames: Readonly<Record<PassageKind, string>> = {
  title: 'Title',
  hook: 'In short',
  notes: 'Notes',
  person: 'With',
  tag: 'Tag',
  chapter: 'Chapter',
  said: 'Said',
}

/** What a player shows and tells of an episode. */
export const playerOf = (
  show: Pick<PublicShow, 'name' | 'artworkAddress'>,
  { title, artworkAddress, pageAddress }: Pick<EpisodeLine, 'title' | 'artworkAddress' | 'pageAddress'>,
  sound: PublicSound,
) => ({ sound, title, show: show.name, picture: artworkAddress ?? show.artworkAddress, pageAddress })

/** The same as an element has it, where there is one player for several. */
export const playing = (show: Pick<PublicShow, 'name' | 'artworkAddress'>, episode: EpisodeLine) => ({
  'data-address': episode.sound.address,
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

const formatNames: Readonly<Record<string, string>> = {
  vtt: 'WebVTT',
  srt: 'SubRip',
  json: 'JSON',
  html: 'HTML',
  txt: 'text',
}
type TranscriptFile = PublicEpisode['transcriptFiles'][number]
/** What a file of a transcript is called; its language only where there are several. */
export function fileName({ language, format }: TranscriptFile, all: readonly TranscriptFile[]): string {
  const name = formatNames[format] ?? format
  return all.every(file => file.language === language) ? name : `${language}, ${name}`
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
