import { LRUCache } from 'lru-cache'
import { columnsOf, readPyramid } from '@core/audio/pyramid'
import { toldOf } from '@core/episode/told'
import { readSnapshot } from '@core/episode/snapshot'
import { withAllFacts } from '@core/feed/facts'
import { type ShareFacts, shareBars } from '@core/site/sharePicture'
import { withAllBlocks } from '@core/site/look'
import { publicOutlet } from '../episodes/audience'
import { EpisodeFile } from '../episodes/models'
import { releasedEpisode } from '../episodes/released'
import { AudioFile } from '../files/models'
import { digestOf } from '../media/written'
import { draw } from '../pictures/draw'
import { Picture } from '../pictures/models'
import type { Platform } from '../platform'
import { currentSlug } from '../shows/addresses'
import { Show } from '../shows/models'
import { tellerOf } from '../shows/service'
import { seedsOfArtwork } from './look'

/** So many stay drawn in a process, about 100 kB each. */
const mostKept = 100

export interface DrawnPicture {
  bytes: Buffer
  at: Date
  /** Of what is drawn. */
  tag: string
}

/** Pictures for whoever is sent a link, drawn when they are first asked for. */
export function sharePictures(platform: Pick<Platform, 'clock' | 'configuration' | 'media'>) {
  const { configuration, media } = platform
  const { publicUrl } = configuration
  const kept = new LRUCache<string, DrawnPicture>({ max: mostKept })
  const underWay = new Map<string, Promise<DrawnPicture>>()

  /** How loud a file is from beginning to end; nothing where nobody has measured it. */
  async function loudnessOf(waveformId: string | null): Promise<number[]> {
    if (!waveformId) return []
    const pyramid = readPyramid(Buffer.concat(await media.read(waveformId).toArray()))
    const pairs = columnsOf(pyramid, 0, pyramid.durationMs, shareBars)
    return Array.from({ length: shareBars }, (_, at) => Math.max(-pairs[at * 2]!, pairs[at * 2 + 1]!) / 127)
  }

  /** What went out, or, where that was not measured, what it was made of. */
  async function waveformOf(episodeId: string): Promise<string | null> {
    const roles = await EpisodeFile.findAll({
      where: { episodeId },
      include: { model: AudioFile, as: 'file', attributes: ['waveformId'] },
    })
    const of = (role: string): string | null => roles.find(each => each.role === role)?.file?.waveformId ?? null
    return of('released') ?? of('finished') ?? of('source')
  }

  async function drawNow(key: string, artworkId: string, facts: ShareFacts): Promise<DrawnPicture> {
    const artwork = Buffer.concat(await media.read(artworkId).toArray())
    const [drawn] = await draw({ kind: 'share', artwork, facts }, configuration)
    const picture = { bytes: Buffer.from(drawn!.bytes), at: platform.clock.now(), tag: key }
    kept.set(key, picture)
    return picture
  }

  return {
    /** Of an episode that is out, or of the show; null where there is none. */
    async of(slug: string, path: string): Promise<DrawnPicture | null> {
      const current = await currentSlug(slug)
      const show = current ? await Show.findOne({ where: { slug: current } }) : null
      if (!show || withAllFacts(show.feedFacts).isPrivate) return null
      const episode = path ? await releasedEpisode(show.id, publicOutlet(publicUrl).audience, path) : null
      if (path && !episode) return null
      const artwork = await Picture.findByPk(show.artworkId, { rejectOnEmpty: true })
      const text = episode && readSnapshot(episode.released)
      const title = text ? toldOf(text, tellerOf(show, publicUrl), []).title : show.name
      const artworkId = text?.artworkId ?? artwork.id
      const waveformId = episode && (await waveformOf(episode.id))
      const seeds = withAllBlocks(show.look).colours ?? (await seedsOfArtwork(platform, artwork))
      const known = [title, show.name, artworkId, waveformId, seeds]
      const key = digestOf(Buffer.from(JSON.stringify(known))).slice(0, 27)
      const facts = async (): Promise<ShareFacts> => ({
        title,
        show: title === show.name ? show.author : show.name,
        seeds,
        loudness: await loudnessOf(waveformId),
      })
      const already = kept.get(key)
      if (already) return already
      const drawing =
        underWay.get(key) ??
        facts()
          .then(found => drawNow(key, artworkId, found))
          .finally(() => underWay.delete(key))
      underWay.set(key, drawing)
      return drawing
    },
  }
}
