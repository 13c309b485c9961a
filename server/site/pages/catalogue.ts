import { orderIn } from '@core/words/orderIn'
import { DateTime } from 'luxon'
import type { Choices, EpisodeLine, PersonInShow, PublicEpisode } from '@site/facts'
import type { FeedPerson } from '@core/feed/model'
import { isInStrand, strandAddress } from '@core/feed/strands'
import { type EpisodeFilter, type Filtered, passes } from '@core/site/filter'
import { tagKey } from '@core/tags/tags'
import type { Outlet } from '../../show/episodes/audience'
import { factsCache, releasedFacts } from '../../show/episodes/releasedFacts'
import type { Show } from '../../show/shows/models'
import { addressesOf } from '../../show/shows/service'
import { Strand, StrandEpisode } from '../../show/shows/strands'
import { lineOf, publicEpisode } from './facts'

/** What the pages of a show need of each of its episodes, without its notes and what is said. */
export interface Entry extends Omit<Filtered, 'strands'> {
  id: string
  slug: string
  guid: string
  kind: 'full' | 'trailer' | 'bonus'
  tags: readonly string[]
  people: readonly FeedPerson[]
  chapters: PublicEpisode['chapters']
  line: EpisodeLine
}

const cachedEntries = factsCache<Entry>()

/** The released episodes of a show that go out to an audience, newest first. */
async function entriesOf(show: Show, publicUrl: string, outlet: Omit<Outlet, 'headers'>): Promise<Entry[]> {
  const { name, titlePattern, slug, hostName, zone, explicit } = show
  const by = [outlet.base, name, titlePattern, slug, hostName, zone, explicit]
  return releasedFacts(show.id, publicUrl, outlet, cachedEntries, by, (outgoing, episode) => {
    const told = publicEpisode(outgoing, show, outlet.base)
    return {
      id: episode.id,
      slug: episode.slug,
      guid: episode.guid,
      kind: outgoing.text.kind,
      season: outgoing.text.season,
      year: DateTime.fromJSDate(episode.releaseAt, { zone }).year,
      tags: told.tags,
      tagKeys: told.tags.map(tagKey),
      people: told.people,
      chapters: told.chapters,
      line: lineOf(told),
    }
  })
}

/** All that the pages of a show choose from. */
export async function catalogueOf(show: Show, publicUrl: string, outlet: Omit<Outlet, 'headers'>) {
  const [entries, strands] = await Promise.all([
    entriesOf(show, publicUrl, outlet),
    Strand.findAll({ where: { showId: show.id, isPrivate: false } }),
  ])
  const order = orderIn(show.language)
  const byHand = await StrandEpisode.findAll({ where: { strandId: strands.map(({ id }) => id) }, raw: true })
  const chosen = new Set(byHand.map(({ strandId, episodeId }) => `${strandId} ${episodeId}`))
  const filtered = entries.map(entry => ({
    ...entry,
    strands: strands
      .filter(strand => isInStrand(strand, entry, new Set(chosen.has(`${strand.id} ${entry.id}`) ? [entry.guid] : [])))
      .map(({ slug }) => slug),
  }))
  const { feedAddress } = addressesOf(outlet.base, show)

  return {
    entries,
    choices(): Choices {
      return {
        total: entries.length,
        seasons: numbersIn(entries.map(({ season }) => season)),
        years: numbersIn(entries.map(({ year }) => year)),
        strands: strands
          .toSorted((a, b) => order(a.name, b.name))
          .map(({ slug, name }) => ({ slug, name, feedAddress: strandAddress(feedAddress, slug) })),
        tags: countedTags(entries, order),
      }
    },
    filtered: (filter: EpisodeFilter): Entry[] => filtered.filter(entry => passes(filter, entry)),
    /** Those before and after an episode, as they went out. */
    around(id: string) {
      const at = entries.findIndex(entry => entry.id === id)
      const near = (place: number) => (at < 0 ? null : (entries[place]?.line ?? null))
      return { before: near(at + 1), after: near(at - 1) }
    },
    people: (hosts: readonly FeedPerson[]): PersonInShow[] => peopleIn(hosts, entries),
  }
}
export type Catalogue = Awaited<ReturnType<typeof catalogueOf>>

/** Each once, the highest first. */
const numbersIn = (numbers: readonly (number | null)[]): number[] =>
  [...new Set(numbers)].filter(number => number !== null).toSorted((a, b) => b - a)

/** Tags that are alike count as one, in the spelling of the newest. */
function countedTags(entries: readonly Entry[], order: Intl.Collator['compare']): Choices['tags'] {
  const counts = new Map<string, { tag: string; count: number }>()
  for (const { tags, tagKeys } of entries)
    for (const [at, tag] of tags.entries()) {
      const counted = counts.get(tagKeys[at]!)
      if (counted) counted.count++
      else counts.set(tagKeys[at]!, { tag, count: 1 })
    }
  return [...counts.values()].toSorted((a, b) => b.count - a.count || order(a.tag, b.tag))
}

/** So many episodes are named beside a person. */
const namedEpisodes = 6

/** Those who make the show, and then whoever is in most episodes. */
function peopleIn(hosts: readonly FeedPerson[], entries: readonly Entry[]): PersonInShow[] {
  interface Known extends PersonInShow {
    roles: string[]
    episodes: EpisodeLine[]
  }
  const known = new Map<string, Known>()
  const meet = ({ name, role, address, pictureAddress }: FeedPerson): Known => {
    const key = name.toLowerCase()
    const person = known.get(key) ?? { name, address, pictureAddress, roles: [], episodes: [], count: 0 }
    if (role && !person.roles.includes(role)) person.roles.push(role)
    // What is said of them nowhere else is taken from wherever it is said.
    person.address ||= address
    person.pictureAddress ??= pictureAddress
    known.set(key, person)
    return person
  }
  for (const host of hosts) meet(host)
  const makers = new Set(known.values())
  for (const { people, line } of entries)
    for (const person of new Set(people.map(meet))) {
      person.count++
      if (person.episodes.length < namedEpisodes) person.episodes.push(line)
    }
  return [...known.values()].toSorted((a, b) => Number(makers.has(b)) - Number(makers.has(a)) || b.count - a.count)
}
