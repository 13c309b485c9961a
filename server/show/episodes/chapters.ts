import { keptBy } from '@core/audio/recipe'
import { oneCut, type Timeline } from '@core/audio/timeline'
import { chaptersOf, deliveredChapters } from '@core/chapters/chapters'
import type { Chapter, Soundbite } from '@core/episode/fields'
import { deliveredSoundbites } from '@core/soundbites/soundbites'
import type { AudioFile } from '../../media/files/models'
import type { Episode } from './models'
import { deliveredRole, fileIn } from './roles'

/** An episode's chapters by the clock of a sound that was cut from its source, which brings some itself. */
export const chaptersIn = (
  episode: Episode,
  { chapters }: Pick<AudioFile, 'chapters'>,
  timeline: Timeline,
): Chapter[] => deliveredChapters(chaptersOf(episode, chapters).chapters, timeline)

/** The clock of what goes out of its source: the finished file, or while that is to be made, what its recipe will leave; null without a source. */
export function timelineIn(episode: Episode): Timeline | null {
  const source = fileIn(episode, 'source')
  if (!source) return null
  const { fromMs, toMs } = keptBy(episode.recipe, source.durationMs)
  const isFinished = deliveredRole(episode) === 'finished'
  return oneCut(fromMs, isFinished ? fileIn(episode, 'finished')!.durationMs : toMs - fromMs)
}

/** Its chapters by the clock of the file that goes out. */
export function chaptersNow(episode: Episode): Chapter[] {
  const timeline = timelineIn(episode)
  return timeline ? chaptersIn(episode, fileIn(episode, 'source')!, timeline) : chaptersOf(episode, []).chapters
}

/** Its soundbites by the clock of the file that goes out. */
export function soundbitesNow(episode: Episode): Soundbite[] {
  const timeline = timelineIn(episode)
  return timeline ? deliveredSoundbites(episode.soundbites, timeline) : []
}
