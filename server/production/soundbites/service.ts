import pLimit from 'p-limit'
import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { UniqueConstraintError } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import { type EpisodeText, type Soundbite, textOf } from '@core/episode/fields'
import { readSnapshot } from '@core/episode/snapshot'
import type { Scope } from '../../people/access/scope'
import type { Columns } from '../../platform/database/columns'
import { transact } from '../../platform/database/transact'
import { type Audience, goesTo } from '../../show/episodes/audience'
import { soundbitesNow } from '../../show/episodes/chapters'
import { Episode } from '../../show/episodes/models'
import { withPage } from '../../show/episodes/released'
import { deliveredRole, fileIn, withFiles } from '../../show/episodes/roles'
import { tagsFor } from '../../show/episodes/tags'
import { AppError } from '../../platform/http/errors'
import type { AudioFile } from '../../media/files/models'
import type { Tags } from '../../media/files/tags'
import { picturesForTags } from '../finishing/picturesForTags'
import { writeMp3 } from '../finishing/writeTags'
import tagsEdition from '../finishing/writeTags?edition'
import { blobKeeper } from '../../platform/storage/blobs'
import { digestOf } from '../../platform/storage/written'
import type { Platform } from '../../platform/platform'
import { singleFlight } from '../../platform/singleFlight'
import { currentSlug } from '../../show/shows/addresses'
import { Show } from '../../show/shows/models'
import { cutMp3 } from '../../media/sound/cut'
import cutEdition from '../../media/sound/cut?edition'
import { SoundbiteFile } from './models'

/** What a soundbite is cut of: the sound by whose clock it is told, and what is said of the episode. */
interface Cutting {
  episode: Episode
  file: AudioFile | null
  text: EpisodeText
  soundbites: readonly Soundbite[]
}

/** A soundbite's file is marked as wanted at most once in so long. */
const markEveryMs = 24 * 3600_000
const edition = `${cutEdition} ${tagsEdition}`

/** Soundbites as short MP3s: each is cut when somebody first wants it, and kept while somebody does. A process has one of these. */
export function soundbiteService(platform: Platform) {
  const { clock, media, database, configuration } = platform
  const blobs = blobKeeper(platform)
  const making = singleFlight<SoundbiteFile>()
  /** One is cut at a time, so that many that are wanted at once take nothing from the rest. */
  const inTurn = pLimit(1)

  async function find({ episode, file, text, soundbites }: Cutting, id: string): Promise<SoundbiteFile> {
    const soundbite = soundbites.find(each => each.id === id)
    if (!soundbite) throw nothingThere()
    if (!file) throw new AppError('not-found', 'The episode has no sound yet that goes out.')
    if (file.address)
      throw new AppError('not-found', 'The episode’s sound lives elsewhere, so nothing is cut of it here.')
    const tags = tagsOf(episode, text, soundbite)
    const { date: _date, comment: _comment, ...lasting } = tags
    const madeOf = digestOf(
      Buffer.from(JSON.stringify([edition, file.fingerprint, soundbite.fromMs, soundbite.toMs, lasting])),
    )
    return making.get(
      `${episode.id} ${madeOf}`,
      async () => (await known(episode.id, madeOf)) ?? inTurn(() => make(episode.id, madeOf, file, soundbite, tags)),
    )
  }

  function tagsOf(episode: Episode, text: EpisodeText, { title }: Soundbite): Tags {
    const told = { ...text, releaseAt: episode.releaseAt, slug: episode.slug }
    const tags = tagsFor(told, episode.show!, configuration.publicUrl, clock.now(), [])
    return { ...tags, title: title || tags.title, subtitle: title ? tags.title : tags.subtitle }
  }

  async function known(episodeId: string, madeOf: string): Promise<SoundbiteFile | null> {
    const made = await SoundbiteFile.findOne({ where: { episodeId, madeOf } })
    const now = clock.now()
    if (made && +now - +made.askedAt > markEveryMs)
      await SoundbiteFile.update({ askedAt: now }, { where: { id: made.id } })
    return made
  }

  const make = (
    episodeId: string,
    madeOf: string,
    file: AudioFile,
    soundbite: Soundbite,
    tags: Tags,
  ): Promise<SoundbiteFile> =>
    media.workIn(uuidV7(), async folder => {
      const [bare, path] = [join(folder, 'bare.mp3'), join(folder, 'soundbite.mp3')]
      const source = await media.onDisk(file.fingerprint)
      try {
        const junkBytes = Number(file.soundFromBytes ?? 0)
        await cutMp3({ path: source.path, junkBytes, channels: file.channels }, soundbite, bare)
      } finally {
        await source.release()
      }
      const pictures = await picturesForTags(media, tags, configuration)
      const frames = { path: bare, from: 0, to: (await stat(bare)).size }
      await writeMp3(path, frames, tags, pictures, soundbite.toMs - soundbite.fromMs)
      const hash = createHash('sha256')
      await pipeline(createReadStream(path), hash)
      const sha256 = hash.digest('hex')
      await blobs.store({ path, sha256 })
      return keep({ id: uuidV7(), episodeId, madeOf, sha256, bytes: (await stat(path)).size }, path)
    })

  async function keep(
    file: Columns<SoundbiteFile, 'id' | 'episodeId' | 'madeOf' | 'sha256' | 'bytes'>,
    path: string,
  ): Promise<SoundbiteFile> {
    const { episodeId, madeOf, sha256 } = file
    try {
      return await transact(database, async transaction => {
        const now = clock.now()
        const made = await SoundbiteFile.create({ ...file, madeAt: now, askedAt: now }, { transaction })
        await blobs.hold(made.id, { path, sha256 }, transaction)
        return made
      })
    } catch (error) {
      // Another process was first.
      if (error instanceof UniqueConstraintError)
        return SoundbiteFile.findOne({ where: { episodeId, madeOf }, rejectOnEmpty: true })
      throw error
    }
  }

  const withAll = { include: [{ model: Show, as: 'show' }, withFiles()] }

  return {
    /** Of an episode as it is written now. */
    async ofDraft({ id, showId }: Scope, soundbiteId: string): Promise<SoundbiteFile> {
      const episode = await Episode.findOne({ where: { id, showId }, ...withAll })
      if (!episode) throw nothingThere()
      const role = deliveredRole(episode)
      const cutting = {
        episode,
        file: role && fileIn(episode, role),
        text: textOf(episode),
        soundbites: soundbitesNow(episode),
      }
      return find(cutting, soundbiteId)
    },

    /** Of an episode as it was released to an audience, by the address parts of its page. */
    async ofReleased(audience: Audience, show: string, slug: string, soundbiteId: string): Promise<SoundbiteFile> {
      const row = await Show.findOne({ where: { slug: (await currentSlug(show)) ?? show }, attributes: ['id'] })
      const episode = row && (await Episode.findOne({ where: { showId: row.id, slug, ...withPage }, ...withAll }))
      if (!episode?.released || (await goesTo(episode.showId, audience))?.(episode) === false) throw nothingThere()
      const { released } = episode
      const file = fileIn(episode, 'released')
      const cutting = { episode, file, text: readSnapshot(released), soundbites: released.soundbites ?? [] }
      return find(cutting, soundbiteId)
    },
  }
}

/** What is sent of one. */
export const sent = ({ sha256, bytes, madeAt }: SoundbiteFile) => ({
  sha256,
  bytes: Number(bytes),
  type: 'audio/mpeg',
  lastModified: madeAt,
})

export type SoundbiteService = ReturnType<typeof soundbiteService>

const nothingThere = (): AppError => new AppError('not-found', 'There is no such soundbite.')
