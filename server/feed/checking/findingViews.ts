import type { FeedFindingView } from '@contract/feed'
import type { FeedFinding } from '@core/feed/check'
import { withAllFacts } from '@core/feed/facts'
import { feedRules } from '@core/feed/rules'
import type { FeedRule, Others } from '@core/feed/rules/rule'
import { Episode } from '../../show/episodes/models'
import type { Show } from '../../show/shows/models'

const rules = new Map<string, FeedRule>(feedRules.map(rule => [rule.name, rule]))

/** Findings in a feed that is nobody’s here. */
export const foundElsewhere = (findings: readonly FeedFinding[]): FeedFindingView[] =>
  findings.map(({ places, ...finding }) => ({
    ...finding,
    byPress: null,
    places: places.map(place => ({ ...place, episode: null })),
  }))

/** Findings in the feed of a show, with the episodes that they are about, and how a press mends them. */
export async function foundHere(
  findings: readonly FeedFinding[],
  show: Pick<Show, 'id' | 'feedFacts'>,
): Promise<FeedFindingView[]> {
  const guids = new Set(findings.flatMap(({ places }) => places.flatMap(({ item }) => item?.guid ?? [])))
  const episodes = await Episode.findAll({
    where: { showId: show.id, guid: [...guids] },
    attributes: ['id', 'guid', 'version', 'isChanged', 'releaseAt', 'title', 'number', 'season', 'kind'],
    raw: true,
  })
  const byGuid = new Map(episodes.map(episode => [episode.guid, episode]))
  const canFix = findings.some(({ name }) => rules.get(name)?.fixEpisode)
  const othersOf = canFix ? await othersIn(show.id) : null
  const facts = withAllFacts(show.feedFacts)
  return findings.map(({ places, ...finding }) => {
    const rule = rules.get(finding.name)
    return {
      ...finding,
      byPress: rule?.fixShow?.(facts) ?? null,
      places: places.map(place => {
        const episode = place.item && byGuid.get(place.item.guid)
        if (!episode) return { ...place, episode: null }
        const { id, version, isChanged } = episode
        // What waits to be sent can have mended it already.
        const byPress = isChanged || !othersOf ? null : (rule?.fixEpisode?.(episode, othersOf(episode)) ?? null)
        return { ...place, episode: { id, version: Number(version), isChanged: Boolean(isChanged), byPress } }
      }),
    }
  })
}

async function othersIn(showId: string): Promise<(episode: Pick<Episode, 'id' | 'releaseAt'>) => Others> {
  const rows = await Episode.findAll({
    where: { showId, deletedAt: null },
    attributes: ['id', 'number', 'season', 'kind', 'releaseAt'],
    raw: true,
  })
  return ({ id, releaseAt }) => {
    const all = rows.filter(row => row.id !== id)
    return { all, before: all.filter(row => row.releaseAt !== null && releaseAt !== null && row.releaseAt < releaseAt) }
  }
}
