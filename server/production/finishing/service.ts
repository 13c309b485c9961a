import type { Transaction } from 'sequelize'
import type { Sound } from '@contract/sound'
import { isDeliverable, mixType } from '@core/audio/delivery'
import { type Recipe, recipeText } from '@core/audio/recipe'
import type { Scope } from '../../people/access/scope'
import { type Decision, episodeChanges } from '../../show/episodes/change'
import type { Episode } from '../../show/episodes/models'
import { fileIdOf } from '../../show/episodes/roles'
import { episodeService } from '../../show/episodes/service'
import { AppError, badInput } from '../../platform/http/errors'
import { AudioFile } from '../../media/files/models'
import type { Platform } from '../../platform/platform'

/** Finishing as a person asks for it: a recipe kept with the episode's sound, and the job that makes the delivered file by it. */
export function finishingService(
  platform: Pick<Platform, 'database' | 'clock' | 'configuration' | 'jobs' | 'events' | 'media'>,
) {
  const { jobs } = platform
  const { changeEpisode } = episodeChanges(platform)
  const episodes = episodeService(platform)

  async function change(scope: Scope, soundVersion: number, decide: Decision): Promise<Sound> {
    await changeEpisode(scope, { soundVersion }, decide)
    return episodes.sound(scope)
  }

  const sourceOf = async (episode: Episode, transaction: Transaction): Promise<AudioFile | null> => {
    const id = fileIdOf(episode, 'source')
    return id
      ? AudioFile.findByPk(id, { attributes: ['id', 'measuring', 'type', 'measurement', 'address'], transaction })
      : null
  }

  const stop = (episode: Episode, transaction: Transaction): Promise<void> =>
    jobs.cancel('finish-episode', episode.id, transaction)

  return {
    /** Keeps the recipe; a file finished by another one is not the delivered one any more. Null: the audio goes out as it was uploaded. */
    setRecipe: (scope: Scope, version: number, recipe: Recipe | null): Promise<Sound> =>
      change(scope, version, async (episode, transaction) => {
        if (recipe) needPossible(recipe)
        if (sameRecipe(episode.recipe, recipe)) return null
        if (!recipe) needGoingOut(episode, await sourceOf(episode, transaction))
        await stop(episode, transaction)
        const isAsFinished =
          recipe !== null &&
          episode.finishedWith?.fileId === fileIdOf(episode, 'source') &&
          sameRecipe(episode.finishedWith?.recipe ?? null, recipe)
        return { sound: { recipe, finishing: isAsFinished ? 'done' : 'none', finishProblem: null } }
      }),

    /** Sets the recipe and makes the delivered file by it. Throws `not-ready` where there is no audio that is measured. */
    begin: (scope: Scope, version: number, recipe: Recipe): Promise<Sound> =>
      change(scope, version, async (episode, transaction) => {
        needPossible(recipe)
        const file = await sourceOf(episode, transaction)
        if (!file) throw notReady('There is no audio to finish yet.')
        if (file.address)
          throw notReady('A file that lives elsewhere goes out as it is there. Upload it here to have it finished.')
        if (!file.measurement)
          throw notReady(
            file.measuring === 'failed'
              ? 'The audio could not be measured; it may be damaged. Bring it again.'
              : 'The audio is still being measured.',
          )
        if (recipe.encoding === 'as it came' && !isDeliverable(file.type))
          throw badInput('recipe.encoding', recipe.encoding, 'Only MP3 and M4A can go out as they came.')
        if ((recipe.fromMs ?? 0) >= (recipe.toMs ?? file.measurement.durationMs))
          throw badInput('recipe.toMs', recipe.toMs, 'The end lies behind the beginning.')
        await stop(episode, transaction)
        return {
          sound: { recipe, finishing: 'working', finishProblem: null },
          jobs: [
            {
              kind: 'finish-episode',
              payload: { episodeId: episode.id },
              subject: episode.id,
              soundMs: file.measurement.durationMs,
            },
          ],
        }
      }),

    /** Stops finishing; the recipe stays. */
    cancel: (scope: Scope, version: number): Promise<Sound> =>
      change(scope, version, async (episode, transaction) => {
        await stop(episode, transaction)
        return episode.finishing === 'working' ? { sound: { finishing: 'none' } } : null
      }),
  }
}

export const sameRecipe = (one: Recipe | null, other: Recipe | null): boolean =>
  (one && recipeText(one)) === (other && recipeText(other))
const notReady = (rule: string): AppError =>
  new AppError('not-ready', rule, [{ field: 'audio', value: '(nothing)', rule }])

/** Throws `not-ready` where audio that cannot go out as it is would be left without a recipe: of a scheduled episode, and of one that is put together here. */
function needGoingOut(episode: Episode, file: AudioFile | null): void {
  if (file?.type === mixType) throw notReady('What is put together here goes out finished: keep the recipe.')
  if (episode.status === 'scheduled' && (!file || !isDeliverable(file.type)))
    throw notReady(
      'The episode is scheduled, and only MP3 and M4A can go out as they were uploaded. Keep the recipe, or take it back to draft first.',
    )
}

function needPossible(recipe: Recipe): void {
  if (recipe.fromMs !== null && recipe.toMs !== null && recipe.toMs - recipe.fromMs < 500) {
    throw badInput('recipe.toMs', recipe.toMs, 'At least half a second stays.')
  }
  if (recipe.encoding !== 'as it came') return
  for (const end of ['fromMs', 'toMs'] as const)
    if (recipe[end] !== null)
      throw badInput(`recipe.${end}`, recipe[end], 'What goes out as it came is not cut: keep all of it, or encode it.')
}
