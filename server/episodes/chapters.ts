import { keptBy } from '@core/audio/recipe'
import { chaptersOf, deliveredChapters } from '@core/chapters/chapters'
import type { Chapter, Soundbite } from '@core/episode/fields'
import { deliveredSoundbites } from '@core/soundbites/soundbites'
import type { AudioFile } from '../files/models'
import type { Episode } from './models'
import { deliveredRole, fileIn } from './roles'

/** An episode's chapters by the clock of a sound that was cut from its source, which brings some itself. */
export const chaptersIn = (
  episode: Episode,
  { chapters }: Pick<AudioFile, 'chapters'>,
  cut: { fromMs: number; durationMs: number },
): Chapter[] => deliveredChapters(chaptersOf(episode, chapters).chapters, cut)

/** What of its source goes out: the finished file, or while that is to be made, what its recipe will leave; null without a source. */
export function cutOf(episode: Episode): { fromMs: number; durationMs: number } | null {
  const source = fileIn(episode, 'source')
  if (!source) return null
  const { fromMs, toMs } = keptBy(episode.recipe, source.durationMs)
  const isFinished = deliveredRole(episode) === 'finished'
  const durationMs = isFinished ? fileIn(episode, 'finished')!.durationMs : toMs - fromMs
  return { fromMs, durationMs }
}

/** Its chapters by the clock of the file that goes out. */
export function chaptersNow(episode: Episode): Chapter[] {
  const cut = cutOf(episode)
  return cut ? chaptersIn(episode, fileIn(episode, 'source')!, cut) : chaptersOf(episode, []).chapters
}

/** Its soundbites by the clock of the file that goes out. */
export function soundbitesNow(episode: Episode): Soundbite[] {
  const cut = cutOf(episode)
  return cut ? deliveredSoundbites(episode.soundbites, cut) : []
}
