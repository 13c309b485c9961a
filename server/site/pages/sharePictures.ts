import { LRUCache } from 'lru-cache'
import { columnsOf, readPyramid } from '@core/audio/pyramid'
import { renderText } from '@core/episode/rendered'
import { readSnapshot } from '@core/episode/snapshot'
import { type ShareFacts, shareBars } from '@core/site/sharePicture'
import { withAllBlocks } from '@core/site/siteTheme'
import { publicOutlet } from '../../show/episodes/audience'
import { EpisodeFile } from '../../show/episodes/models'
import { releasedEpisode } from '../../show/episodes/released'
import { AudioFile } from '../../media/files/models'
import { digestOf } from '../../platform/storage/written'
import { draw } from '../../media/pictures/draw'
import { Picture } from '../../media/pictures/models'
import type { Platform } from '../../platform/platform'
import { singleFlight } from '../../platform/singleFlight'
import { publicShowAt } from '../../show/shows/addresses'
import { renderContextOf } from '../../show/shows/service'
import { seedsOfArtwork } from './siteTheme'

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
  const drawing = singleFlight<DrawnPicture>()

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
      const show = await publicShowAt(slug)
      if (!show) return null
      const episode = path ? await releasedEpisode(show.id, publicOutlet(publicUrl).audience, path) : null
      if (path && !episode) return null
      const artwork = await Picture.findByPk(show.artworkId, { rejectOnEmpty: true })
      const text = episode && readSnapshot(episode.released)
      const title = text ? renderText(text, renderContextOf(show, publicUrl), []).title : show.name
      const artworkId = text?.artworkId ?? artwork.id
      const waveformId = episode && (await waveformOf(episode.id))
      const seeds = withAllBlocks(show.theme).colours ?? (await seedsOfArtwork(platform, artwork))
      const known = [title, show.name, artworkId, waveformId, seeds]
      const key = digestOf(Buffer.from(JSON.stringify(known))).slice(0, 27)
      const facts = async (): Promise<ShareFacts> => ({
        title,
        show: title === show.name ? show.author : show.name,
        seeds,
        loudness: await loudnessOf(waveformId),
      })
      return kept.get(key) ?? drawing.get(key, async () => drawNow(key, artworkId, await facts()))
    },
  }
}
