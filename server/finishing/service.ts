import type { Transaction } from 'sequelize'
import type { Episode as EpisodeView } from '@contract/episodes'
import { slugFrom } from '@core/address/slug'
import { isDeliverable, type Recipe, recipeText } from '@core/audio/recipe'
import { Episode } from '../episodes/models'
import { type Decision, episodeChanges } from '../episodes/change'
import { episodeService } from '../episodes/service'
import type { Scope } from '../access/scope'
import { AppError, badInput } from '../errors'
import { fileKeeper } from '../files/keeper'
import { AudioFile } from '../files/models'
import type { AudioFacts } from '../files/reading'
import type { JobRun } from '../jobs/jobs'
import type { Platform } from '../platform'
import { Show } from '../shows/models'
import { tagsFor } from './tagging'
import { finishWork } from './work'

const kind = 'finish-episode'
/** An hour takes about a minute. */
const limitMs = 2 * 3600_000

/** Finishing: a recipe kept with the episode, a job that makes the delivered file by it, and what came of it. */
export function finishingService(platform: Platform) {
  const { clock, media, jobs, configuration: { publicUrl } } = platform
  const { changeEpisode } = episodeChanges(platform)
  const episodes = episodeService(platform)
  const files = fileKeeper(platform)
  const work = finishWork(platform)

  async function change(scope: Scope, version: number, decide: Decision): Promise<EpisodeView> {
    await changeEpisode(scope, version, decide)
    return episodes.get(scope)
  }

  /** Throws `not-ready` where a scheduled episode would be left with audio that cannot go out as it is. */
  async function needDeliverable({ fileId }: Episode, transaction: Transaction): Promise<void> {
    const file = await AudioFile.findByPk(fileId!, { attributes: ['type'], transaction })
    if (!file || !isDeliverable(file.type)) throw notReady('The episode is scheduled, and only MP3 and M4A can go out as they were uploaded. Keep the recipe, or take it back to draft first.')
  }

  /** Writes the outcome down, unless file or recipe have become others meanwhile. */
  async function settle(episode: Episode, outcome: Partial<Pick<Episode, 'finishing' | 'finishedFileId' | 'finishedWith' | 'finishProblem'>>): Promise<void> {
    await changeEpisode(episode, null, async current =>
      current.finishing !== 'working' || current.fileId !== episode.fileId || !sameRecipe(current.recipe, episode.recipe) ? null : { fields: outcome })
  }

  async function keep(episode: Episode, { facts: { picture: _picture, ...facts }, path }: { facts: AudioFacts; path: string }, measured: Pick<AudioFile, 'measurement' | 'waveform'>): Promise<AudioFile> {
    await media.take(path, facts.sha256)
    const words = slugFrom([episode.number, episode.title].filter(Boolean).join(' ')) || 'episode'
    const name = `${words}.${facts.type === 'audio/mpeg' ? 'mp3' : 'm4a'}`
    return files.keep({ ...facts, showId: episode.showId, name, pictureId: null, origin: 'finish', measuring: 'done', ...measured })
  }

  async function make(episode: Episode, file: AudioFile, show: Show, recipe: Recipe, run: JobRun): Promise<void> {
    const tagsOf = (sound: { fromMs: number; durationMs: number }) => tagsFor(episode, show, publicUrl, clock.now(), sound, file.chapters)
    const earlier = episode.finishedWith
    const earlierFile = episode.finishedFileId ? await AudioFile.findByPk(episode.finishedFileId) : null
    if (earlier && earlierFile && earlier.fileId === file.id && sameRecipe(earlier.recipe, recipe)) {
      const tags = tagsOf({ fromMs: recipe.fromMs ?? 0, durationMs: earlierFile.durationMs })
      await work.retag(earlierFile, episode.id, tags, run, async made => {
        const finished = await keep(episode, made, { measurement: earlierFile.measurement, waveform: earlierFile.waveform })
        await settle(episode, { finishing: 'done', finishedFileId: finished.id, finishedWith: { ...earlier, tags }, finishProblem: null })
      })
      return
    }
    let tags = tagsOf({ fromMs: 0, durationMs: file.durationMs })
    await work.finish(file, recipe, episode.id, sound => (tags = tagsOf(sound)), run, async ({ measurement, waveform, report, ...made }) => {
      const finished = await keep(episode, made, { measurement, waveform: Buffer.from(waveform) })
      await settle(episode, { finishing: 'done', finishedFileId: finished.id, finishedWith: { fileId: file.id, recipe, tags, report }, finishProblem: null })
    })
  }

  jobs.handle(kind, async ({ episodeId }, run) => {
    const episode = await Episode.findByPk(episodeId, { include: [{ model: Show, as: 'show' }, { model: AudioFile, as: 'file' }] })
    if (!episode?.file || !episode.recipe || episode.finishing !== 'working') return
    try {
      await make(episode, episode.file, episode.show!, episode.recipe, run)
    } catch (error) {
      if (run.signal.aborted) throw error
      const problem = problemFor(error)
      if (!problem) throw error
      await settle(episode, { finishing: 'failed', finishProblem: problem })
    }
  }, {
    lane: 'finishing',
    limitMs,
    async gaveUp({ episodeId }) {
      const episode = await Episode.findByPk(episodeId)
      if (episode && !episode.deletedAt) await settle(episode, { finishing: 'failed', finishProblem: neverFinished })
    },
  })

  return {
    /** Keeps the recipe; a file finished by another one is not the delivered one any more. Null: the audio goes out as it was uploaded. */
    setRecipe: (scope: Scope, version: number, recipe: Recipe | null): Promise<EpisodeView> => change(scope, version, async (episode, transaction) => {
      if (recipe) needPossible(recipe)
      if (sameRecipe(episode.recipe, recipe)) return null
      if (!recipe && episode.standing === 'scheduled') await needDeliverable(episode, transaction)
      await jobs.cancel(kind, episode.id, transaction)
      const isAsFinished = recipe !== null && episode.finishedWith?.fileId === episode.fileId && sameRecipe(episode.finishedWith?.recipe ?? null, recipe)
      return { fields: { recipe, finishing: isAsFinished ? 'done' : 'none', finishProblem: null } }
    }),

    /** Sets the recipe and makes the delivered file by it. Throws `not-ready` where there is no audio that is measured. */
    begin: (scope: Scope, version: number, recipe: Recipe): Promise<EpisodeView> => change(scope, version, async (episode, transaction) => {
      needPossible(recipe)
      const file = episode.fileId ? await AudioFile.findByPk(episode.fileId, { attributes: ['id', 'measuring', 'type', 'measurement', 'address'], transaction }) : null
      if (!file) throw notReady('There is no audio to finish yet.')
      if (file.address) throw notReady('A file that lives elsewhere goes out as it is there. Upload it here to have it finished.')
      if (!file.measurement) throw notReady(file.measuring === 'failed' ? 'The audio could not be measured; it may be damaged. Bring it again.' : 'The audio is still being measured.')
      if (recipe.encoding === 'as it came' && !isDeliverable(file.type)) throw badInput('recipe.encoding', recipe.encoding, 'Only MP3 and M4A can go out as they came.')
      if ((recipe.fromMs ?? 0) >= (recipe.toMs ?? file.measurement.durationMs)) throw badInput('recipe.toMs', recipe.toMs, 'The end lies behind the beginning.')
      await jobs.cancel(kind, episode.id, transaction)
      return { fields: { recipe, finishing: 'working', finishProblem: null }, jobs: [{ kind, payload: { episodeId: episode.id }, subject: episode.id }] }
    }),

    /** Stops finishing; the recipe stays. */
    cancel: (scope: Scope, version: number): Promise<EpisodeView> => change(scope, version, async (episode, transaction) => {
      await jobs.cancel(kind, episode.id, transaction)
      return episode.finishing === 'working' ? { fields: { finishing: 'none' } } : null
    }),
  }
}

const sameRecipe = (one: Recipe | null, other: Recipe | null): boolean => (one && recipeText(one)) === (other && recipeText(other))
const notReady = (rule: string): AppError => new AppError('not-ready', rule, [{ field: 'audio', value: '(nothing)', rule }])

function needPossible(recipe: Recipe): void {
  if (recipe.fromMs !== null && recipe.toMs !== null && recipe.toMs - recipe.fromMs < 500) {
    throw badInput('recipe.toMs', recipe.toMs, 'At least half a second stays.')
  }
}

const neverFinished = { title: 'The sound could not be finished', detail: 'It was tried several times. The file may be damaged in a place that was not found before.', todo: 'Export it again and bring that, or let it go out as it was uploaded.' }

/** What to say of an error that trying again will not mend; null for those that may pass. */
function problemFor(error: unknown): Episode['finishProblem'] {
  const { code, message } = error as NodeJS.ErrnoException
  if (code === 'ENOSPC' || /No space left/i.test(message)) {
    return { title: 'The disk is full', detail: 'There was no room to write the finished file.', todo: 'Delete files from the shelf that no episode uses, then finish again.' }
  }
  return null
}
