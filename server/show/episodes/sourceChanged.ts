import { isDeliverable } from '@core/audio/delivery'
import { firstRecipe } from '@core/audio/recipe'
import type { AudioFile } from '../../media/files/models'
import type { Show } from '../shows/models'
import { usualRecipeOf } from '../shows/service'
import type { Change } from './change'
import type { Episode } from './models'
import { fileIdOf } from './roles'

/**
 * What a new source means for the finishing: a file finished from another is not the delivered one any more, ends cut for
 * another do not fit, and what cannot go out as it is gets a recipe.
 */
export function sourceChanged(episode: Episode, show: Show, file: AudioFile): Pick<Change, 'files' | 'sound'> {
  if (fileIdOf(episode, 'source') === file.id) return {}
  const recipe = episode.recipe ?? (isDeliverable(file.type) ? null : usualRecipeOf(show))
  const encoding =
    !isDeliverable(file.type) && recipe?.encoding === 'as it came' ? { encoding: firstRecipe.encoding } : {}
  return {
    files: { source: file.id },
    sound: { recipe: recipe && { ...recipe, fromMs: null, toMs: null, ...encoding }, finishing: 'none' },
  }
}
