import { renderEpisodePage } from '@site/pages'
import type { FeedComparisonView } from '@contract/feed'
import type { Preview } from '@contract/preview'
import { oneCut } from '@core/audio/timeline'
import { wishedSlug } from '@core/address/slug'
import { longestSoundMs, textOf } from '@core/episode/fields'
import type { Cue } from '@core/transcript/cue'
import { readSnapshot } from '@core/episode/snapshot'
import { compareFeeds, comparisonWords } from '@core/feed/compare'
import type { FeedItem } from '@core/feed/model'
import { type ReadFeed, readFeed } from '@core/feed/read'
import { feedXml, itemXml } from '@core/feed/xml'
import type { Scope } from '../../people/access/scope'
import { Episode } from '../../show/episodes/models'
import { type Outgoing, outgoingOf } from '../../show/episodes/outgoing'
import { hindrancesNow } from '../../show/episodes/readiness'
import { releasedEpisodes } from '../../show/episodes/released'
import { deliveredRole, fileIn, withFiles } from '../../show/episodes/roles'
import { fileOf } from '../../show/episodes/sound'
import { publicPictures } from '../../show/episodes/pictures'
import { chaptersNow, timelineIn, soundbitesNow } from '../../show/episodes/chapters'
import { tagsFor } from '../../show/episodes/tags'
import { AppError } from '../../platform/http/errors'
import { channelOf } from '../feeds/channel'
import { feedItemOf, tellingOf } from '../feeds/item'
import { studioPictureAddress } from '../../media/pictures/names'
import type { Platform } from '../../platform/platform'
import { Show } from '../../show/shows/models'
import { publicEpisode, publicShow } from '../../site/pages/facts'
import type { SitePlatform } from '../../site/pages/page'
import { transcriptsNow } from '../../words/transcripts/release'
import { tagLines } from './tagLines'

/** An episode as it would go out now, written by the same hands that write it then. */
export function previewService(platform: Pick<Platform, 'clock'> & SitePlatform) {
  const {
    clock,
    configuration: { publicUrl },
    siteAssets,
  } = platform
  async function find({ id, showId }: Pick<Scope, 'id' | 'showId'>): Promise<Episode & { show: Show }> {
    const episode = await Episode.findOne({
      where: { id, showId, deletedAt: null },
      include: [{ model: Show, as: 'show' }, withFiles()],
    })
    if (!episode) throw new AppError('not-found', 'There is no such episode.')
    return episode as Episode & { show: Show }
  }

  return {
    async look(scope: Pick<Scope, 'id' | 'showId'>): Promise<Preview> {
      const episode = await find(scope)
      const { show, version, soundVersion } = episode
      const { outgoing } = await outgoingNow(episode)
      // The studio's addresses of pictures are nothing for a feed.
      const pictureAddress = await publicPictures([outgoing.text], publicUrl)
      const item = feedItemOf({ ...outgoing, pictureAddress }, tellingOf(show, publicUrl))
      const inherited = inheritedOf(episode)
      const { extras } = outgoing.text
      return {
        version,
        soundVersion,
        show: { name: show.name, author: show.author },
        title: item.title,
        hook: item.hook,
        description: item.description,
        notesHtml: item.notesHtml,
        author: extras.author ?? show.author,
        number: item.number,
        season: item.season,
        kind: item.kind,
        explicit: item.explicit,
        at: item.publishedAt && item.publishedAt.toISOString(),
        durationMs: item.durationMs,
        artworkAddress: studioPictureAddress({ id: episode.artworkId ?? show.artworkId }),
        inherited,
        hindrances: hindrancesNow(episode),
        item: linesOf(itemXml(item), inherited),
        tags: tagLines(tagsFor(episode, show, publicUrl, clock.now(), [...outgoing.chapters]), episode, show),
      }
    },

    /** What of a released episode becomes another thing in the feed when its changes are sent. Throws `wrong-status` where it is not released. */
    async change(scope: Pick<Scope, 'id' | 'showId'>): Promise<FeedComparisonView> {
      const episode = await find(scope)
      const [released] = await releasedEpisodes(scope.showId, 'whoever', { ids: [scope.id] })
      if (!released) throw new AppError('wrong-status', 'The episode is not in the feed.')
      const { outgoing } = await outgoingNow(episode)
      const told = tellingOf(episode.show, publicUrl)
      const [channel, before, now] = await Promise.all([
        channelOf(episode.show, publicUrl),
        publicPictures([readSnapshot(released.released)], publicUrl),
        publicPictures([outgoing.text], publicUrl),
      ])
      const feedWith = (item: FeedItem): ReadFeed => readFeed(feedXml({ channel, items: [item] }))
      const comparison = compareFeeds(
        feedWith(feedItemOf(outgoingOf(released, before), told)),
        feedWith(feedItemOf({ ...outgoing, at: released.releaseAt, pictureAddress: now }, told)),
      )
      return { comparison, words: comparisonWords(comparison) }
    },

    /** The public page; its sound is the studio's, because the public one is not there before the release. */
    async page(scope: Pick<Scope, 'id' | 'showId'>): Promise<string> {
      const episode = await find(scope)
      const show = await publicShow(platform, episode.show, publicUrl)
      const file = fileToGo(episode)
      const { outgoing, said } = await outgoingNow(episode)
      const facts = publicEpisode(outgoing, episode.show, publicUrl, said)
      const sound = facts.sound && file && { ...facts.sound, address: fileOf(file).playAddress }
      return renderEpisodePage(
        { show, episode: { ...facts, sound }, before: null, after: null, comments: [] },
        siteAssets,
      )
    },
  }
}

/** The file that would go out: the finished one, or while that is still to be made its source. */
function fileToGo(episode: Episode) {
  const role = deliveredRole(episode)
  return fileIn(episode, role ?? 'source')
}

const wholeSound = oneCut(0, longestSoundMs)

/** What would go out, with what is said in it in the language that is spoken. */
async function outgoingNow(episode: Episode): Promise<{ outgoing: Outgoing; said: readonly Cue[] }> {
  const { id, guid, slug, title, number, releaseAt } = episode
  const transcripts = await transcriptsNow(id, timelineIn(episode) ?? wholeSound)
  const outgoing: Outgoing = {
    id,
    guid,
    slug: slug ?? wishedSlug({ title, number }, episode.show!.language),
    text: textOf(episode),
    chapters: chaptersNow(episode),
    soundbites: soundbitesNow(episode),
    transcripts: transcripts.map(({ told }) => told),
    file: fileToGo(episode),
    at: releaseAt,
    pictureAddress: id => id && studioPictureAddress({ id }),
  }
  return { outgoing, said: transcripts.find(({ told }) => told.isSpoken)?.content.cues ?? [] }
}

function inheritedOf({ artworkId, extras, show }: Episode & { show: Show }): Preview['inherited'] {
  return [
    ...(show.titlePattern === '{title}' ? [] : (['title pattern'] as const)),
    ...(artworkId ? [] : (['artwork'] as const)),
    ...(extras.author === null ? (['author'] as const) : []),
    ...(extras.explicit === null ? (['explicit'] as const) : []),
    ...(extras.page === null ? (['link'] as const) : []),
  ]
}

/** Elements whose words come from the show, by what is inherited. */
const elements: Partial<Record<Preview['inherited'][number], string>> = {
  'title pattern': 'title',
  explicit: 'itunes:explicit',
  link: 'link',
}

function linesOf(xml: string, inherited: Preview['inherited']): Preview['item'] {
  const names = inherited.flatMap(what => elements[what] ?? [])
  return xml.split('\n').map(line => ({ line, isInherited: names.some(name => line.trim().startsWith(`<${name}>`)) }))
}
