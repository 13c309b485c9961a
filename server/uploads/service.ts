import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { firstRecipe, isDeliverable } from '@core/audio/recipe'
import { amount } from '@core/words/amounts'
import { prefillFrom } from '@core/episode/prefill'
import { Episode } from '../episodes/models'
import { lockEpisode } from '../episodes/service'
import { AppError } from '../errors'
import { fileKeeper } from '../files/keeper'
import { AudioFile } from '../files/models'
import { type AudioFacts, readAudio } from '../files/reading'
import { Refusal, refusalFor } from '../files/refusals'
import type { Platform } from '../platform'
import { Show } from '../shows/models'
import { pictureService } from '../shows/pictures'
import { usualRecipeOf } from '../shows/service'
import { Upload } from './models'

export interface Announced { id: string; episodeId: string; fileName: string; bytes: number }

/**
 * What a new source means for the finishing: a file finished from another is not the delivered one any more, ends cut for
 * another do not fit, and what cannot go out as it is gets a recipe.
 */
function sourceChanged(episode: Episode, file: AudioFile): Partial<Pick<Episode, 'recipe' | 'finishing'>> {
  if (episode.fileId === file.id) return {}
  const recipe = episode.recipe ?? (isDeliverable(file.type) ? null : usualRecipeOf(episode.show!))
  return { recipe: recipe && { ...recipe, fromMs: null, toMs: null, ...(!isDeliverable(file.type) && recipe.encoding === 'as it came' && { encoding: firstRecipe.encoding }) }, finishing: 'none' }
}

/** Uploads: announced, received by the tus server, read by a job, and then an episode's audio or a refusal in words. */
export function uploadService(platform: Platform) {
  const { database, clock, media, jobs, configuration: { maxUploadBytes } } = platform
  const pictures = pictureService(platform)
  const files = fileKeeper(platform)
  const place = (id: string): string => join(media.inbox, id)

  /** Finds or makes the file of a show with this content: the same content is kept once. */
  async function keepFile(showId: string, name: string, facts: AudioFacts): Promise<AudioFile> {
    const { picture, ...plain } = facts
    const known = await AudioFile.findOne({ where: { showId, sha256: facts.sha256 } })
    return known ?? files.keep({ ...plain, showId, name, pictureId: picture && await pictures.addFound(picture) })
  }

  /** Makes a file an episode's source; title and number are filled in where nothing is written yet. */
  async function giveFile(file: AudioFile, episodeId: string, upload?: Upload): Promise<void> {
    await database.transaction(async transaction => {
      const episode = await lockEpisode(episodeId, transaction)
      episode.show = await Show.findByPk(episode.showId, { transaction, rejectOnEmpty: true })
      const hints = prefillFrom({ fileName: upload?.fileName ?? file.name, tags: file.tags })
      await episode.update({
        fileId: file.id,
        ...sourceChanged(episode, file),
        title: episode.title.trim() ? episode.title : hints.title,
        number: episode.number ?? hints.number,
        version: episode.version + 1,
        updatedAt: clock.now(),
      }, { transaction })
      await files.measure(file, transaction)
      await upload?.update({ state: 'done' }, { transaction })
    })
  }

  async function refuse(upload: Upload, { title, detail, todo }: Refusal): Promise<void> {
    await upload.update({ state: 'refused', refusal: { title, detail, todo } })
  }

  return {
    giveFile,

    /** Checks an upload before its first byte, and writes it down. Throws `too-large`, `not-found`, or a refusal for an empty file. */
    async announce({ id, episodeId, fileName, bytes }: Announced): Promise<void> {
      if (bytes > maxUploadBytes) throw new AppError('too-large', `${fileName} has ${amount(bytes)}; at most ${amount(maxUploadBytes)} are taken.`)
      if (bytes === 0) {
        const { title, detail } = refusalFor('empty')
        throw new AppError('bad-input', `${title}. ${detail}`, [{ field: 'file', value: fileName, rule: detail }])
      }
      await database.transaction(async transaction => {
        const episode = await lockEpisode(episodeId, transaction)
        await Upload.create({ id, episodeId: episode.id, fileName: fileName.slice(0, 255), bytes, createdAt: clock.now() }, { transaction })
      })
    },

    /** All bytes are here: the file is read next. */
    async received(id: string): Promise<void> {
      await database.transaction(async transaction => {
        const [changed] = await Upload.update({ state: 'reading' }, { where: { id, state: 'receiving' }, transaction })
        if (changed) await jobs.add({ kind: 'read-upload', payload: { id } }, transaction)
      })
    },

    async givenUp(id: string): Promise<void> {
      await Upload.destroy({ where: { id, state: 'receiving' } })
    },

    /** The job: reads the received file and gives it to its episode, or says why not. Can run again after a crash at any point. */
    async read(id: string): Promise<void> {
      const upload = await Upload.findOne({ where: { id, state: 'reading' } })
      const episode = upload && await Episode.findByPk(upload.episodeId)
      if (upload && episode) {
        try {
          const facts = await readAudio(place(id))
          const file = await keepFile(episode.showId, upload.fileName, facts)
          await media.take(place(id), facts.sha256)
          await giveFile(file, upload.episodeId, upload)
        } catch (error) {
          if (!(error instanceof Refusal)) throw error
          await refuse(upload, error)
        }
      }
      await rm(place(id), { force: true })
      await rm(`${place(id)}.json`, { force: true })
    },
  }
}
