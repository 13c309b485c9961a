import { chaptersOf, deliveredChapters } from '@core/chapters/chapters'
import type { Chapter } from '@core/episode/fields'
import type { AudioFile } from '../files/models'
import type { Episode } from './models'
import { deliveredRole, fileIn } from './roles'

/** An episode's chapters by the clock of a sound that was cut from its source, which brings some itself. */
export const chaptersIn = (
  episode: Episode,
  { chapters }: Pick<AudioFile, 'chapters'>,
  cut: { fromMs: number; durationMs: number },
): Chapter[] => deliveredChapters(chaptersOf(episode, chapters).chapters, cut)

/** Its chapters by the clock of the file that goes out, or while that is to be made, of what its recipe will leave. */
export function chaptersNow(episode: Episode): Chapter[] {
  const source = fileIn(episode, 'source')
  if (!source) return chaptersOf(episode, []).chapters
  const [fromMs, toMs] = [episode.recipe?.fromMs ?? 0, episode.recipe?.toMs ?? source.durationMs]
  const isFinished = deliveredRole(episode) === 'finished'
  const durationMs = isFinished ? fileIn(episode, 'finished')!.durationMs : toMs - fromMs
  return chaptersIn(episode, source, { fromMs, durationMs })
}
