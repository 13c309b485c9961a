import { renderText } from '@core/episode/rendered'
import { itemDescription } from '@core/feed/description'
import { type FeedFacts, withAllFacts } from '@core/feed/facts'
import type { FeedItem } from '@core/feed/model'
import { plainNotes } from '@core/notes/plain'
import type { Outgoing } from '../../show/episodes/outgoing'
import { chaptersAddress, enclosureAddress, transcriptFiles } from '../../show/episodes/views'
import type { Show } from '../../show/shows/models'
import { addressesOf, renderContextOf } from '../../show/shows/service'

/** What of a show is told in its items; another show tells the same of them where this is the same. */
export interface Telling extends Pick<FeedFacts, 'seasonNames'> {
  show: Pick<Show, 'slug' | 'hostName' | 'name' | 'titlePattern' | 'explicit'>
  /** The beginning of all addresses. */
  base: string
}

export const tellingOf = (
  { slug, hostName, name, titlePattern, explicit, feedFacts }: Show,
  base: string,
): Telling => ({
  show: { slug, hostName, name, titlePattern, explicit },
  base,
  seasonNames: withAllFacts(feedFacts).seasonNames,
})

/** An episode as the feed of its show tells it. */
export function feedItemOf(
  { id, guid, slug, text, chapters, soundbites, transcripts, file, at, pictureAddress }: Outgoing,
  { show, base, seasonNames }: Telling,
): FeedItem {
  const { pageAddress } = addressesOf(base, show)
  const { number, season, kind, hook, tags, people, extras } = text
  const { title, notesHtml } = renderText(text, renderContextOf(show, base), chapters)
  return {
    title,
    bareTitle: text.title.trim(),
    hook: hook.trim(),
    guid,
    link: extras.page ?? `${pageAddress}/${slug}`,
    publishedAt: at,
    enclosure: file && {
      address: enclosureAddress(base, id, file),
      bytes: Number(file.bytes),
      type: file.type,
      // Of bytes that lie elsewhere nobody here knows the digest.
      integrity: file.address === null ? integrityOf(file.fingerprint) : null,
    },
    durationMs: file && file.durationMs,
    description: itemDescription(plainNotes(notesHtml)),
    notesHtml,
    number,
    numberShown: extras.numberShown ?? null,
    season,
    seasonName: seasonNames.find(each => each.season === season)?.name ?? null,
    kind,
    explicit: extras.explicit ?? show.explicit,
    artworkAddress: pictureAddress(text.artworkId),
    author: extras.author,
    tags,
    people: people.map(person => ({ ...person, pictureAddress: pictureAddress(person.pictureId ?? null) })),
    transcripts: transcriptFiles(`${pageAddress}/${slug}`, transcripts),
    chaptersAddress: chapters.length > 0 ? chaptersAddress(`${pageAddress}/${slug}`) : null,
    soundbites: soundbites.map(({ fromMs, toMs, title: own }) => ({
      fromMs,
      durationMs: toMs - fromMs,
      title: own || text.title.trim(),
    })),
    discussion: extras.discussion,
    discussionProtocol: extras.discussionProtocol ?? null,
    licence: extras.licence,
    place: extras.place,
    from: null,
  }
}

/** Subresource Integrity section 3.5: the digest in base64 behind its algorithm. */
const integrityOf = (sha256: string): string => `sha256-${Buffer.from(sha256, 'hex').toString('base64')}`
