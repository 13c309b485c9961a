import { col, fn, Op, type Transaction } from 'sequelize'
import { wishedSlug } from '@core/address/slug'
import { textOf } from '@core/episode/fields'
import { snapshotOf } from '@core/episode/snapshot'
import { keptParts } from '@core/site/places'
import { chaptersNow, timelineIn, soundbitesNow } from '../../show/episodes/chapters'
import type { Change } from '../../show/episodes/change'
import { Episode, PastDelivery } from '../../show/episodes/models'
import { deliveredFileId, fileIdOf } from '../../show/episodes/roles'
import type { Platform } from '../../platform/platform'
import { lockShow } from '../../show/shows/feedRevision'
import { Show } from '../../show/shows/models'
import { OwnPage } from '../../show/shows/ownPages'
import { sendTranscripts, spokenFor } from '../../words/transcripts/release'

/** How long the address of a file that was replaced still answers: apps and directories ask every few hours, some rarely. */
const pastDeliveryMs = 30 * 24 * 3600_000

interface Sent {
  fields: NonNullable<Change['fields']>
  files: { released: string }
}

/** What puts the text and the file of episodes, as they are now, into the feed. */
export function sending({ clock }: Pick<Platform, 'clock'>) {
  /** The address that apps know already answers for a while after the file was replaced. */
  async function keepDelivering(episode: Episode, fileId: string, transaction: Transaction): Promise<void> {
    const before = fileIdOf(episode, 'released')
    if (!before || before === fileId) return
    const until = new Date(+clock.now() + pastDeliveryMs)
    await PastDelivery.upsert({ episodeId: episode.id, fileId: before, until }, { transaction })
    await PastDelivery.destroy({ where: { episodeId: episode.id, fileId }, transaction })
  }

  /** Of an episode that comes with its files. */
  async function sent(whole: Episode, slug: string, hasTranscripts: boolean, transaction: Transaction): Promise<Sent> {
    const beside = {
      chapters: chaptersNow(whole),
      soundbites: soundbitesNow(whole),
      transcripts: hasTranscripts ? await sendTranscripts(whole.id, timelineIn(whole)!, transaction) : [],
    }
    const { transcriptsVersion: sentTranscripts } = whole
    return {
      fields: { slug, released: snapshotOf(textOf(whole), beside), sentTranscripts },
      files: { released: deliveredFileId(whole)! },
    }
  }

  return {
    /** Of one that comes with its files. The show's row is locked, so that of episodes that go out together each finds another address part. */
    async asSent(episode: Episode, transaction: Transaction): Promise<Sent> {
      await lockShow(episode.showId, transaction)
      const [slug] = await newSlugs([episode], transaction)
      await keepDelivering(episode, deliveredFileId(episode)!, transaction)
      return sent(episode, slug!, true, transaction)
    },

    /** The same of many that come with their files and have not gone out before; the rows of their shows are locked. */
    async allAsSent(episodes: readonly Episode[], transaction: Transaction): Promise<Sent[]> {
      const slugs = await newSlugs(episodes, transaction)
      const spoken = await spokenFor(
        episodes.map(({ id }) => id),
        transaction,
      )
      const all: Sent[] = []
      for (const [at, episode] of episodes.entries())
        all.push(await sent(episode, slugs[at]!, spoken.has(episode.id), transaction))
      return all
    },
  }
}

/**
 * The episodes' parts of their pages' addresses, each free within its show; made once. One question tells which are free, and
 * only those that are not are asked for one by one.
 */
async function newSlugs(episodes: readonly Episode[], transaction: Transaction): Promise<string[]> {
  const fresh = episodes.filter(({ slug }) => slug === null)
  const showIds = [...new Set(fresh.map(({ showId }) => showId))]
  const shows = await Show.findAll({ where: { id: showIds }, attributes: ['id', 'language'], raw: true, transaction })
  const languages = new Map(shows.map(({ id, language }) => [id, language]))
  const wishOf = (episode: Episode): string => wishedSlug(episode, languages.get(episode.showId) ?? '')
  const rows = await Episode.findAll({
    where: { showId: showIds, slug: [...new Set(fresh.map(wishOf))] },
    attributes: ['showId', 'slug'],
    raw: true,
    transaction,
  })
  const pages = await OwnPage.findAll({
    where: { showId: showIds },
    attributes: ['showId', 'slug'],
    raw: true,
    transaction,
  })
  const taken = new Set([...rows, ...pages].map(({ showId, slug }) => `${showId} ${slug}`))
  const numbers = new Map<string, number>()
  const slugs: string[] = []
  for (const episode of episodes) {
    const { showId } = episode
    const isTaken = (slug: string): boolean => keptParts.includes(slug) || taken.has(`${showId} ${slug}`)
    const wished = wishOf(episode)
    let slug = episode.slug ?? wished
    while (slug !== episode.slug && isTaken(slug)) {
      const known = `${showId} ${wished}`
      const number = numbers.get(known) ?? (await nextFor(showId, wished, transaction))
      numbers.set(known, number + 1)
      slug = `${wished}-${number}`
    }
    taken.add(`${showId} ${slug}`)
    slugs.push(slug)
  }
  return slugs
}

/** Among `wished-2`, `wished-3` … of a show the one behind the highest. */
async function nextFor(showId: string, wished: string, transaction: Transaction): Promise<number> {
  const highest = await Episode.findOne({
    where: { showId, slug: { [Op.like]: `${wished}-%`, [Op.regexp]: `^${wished}-[1-9][0-9]*$` } },
    attributes: ['slug'],
    order: [
      [fn('LENGTH', col('slug')), 'DESC'],
      ['slug', 'DESC'],
    ],
    transaction,
  })
  return highest ? Number(highest.slug!.slice(wished.length + 1)) + 1 : 2
}
