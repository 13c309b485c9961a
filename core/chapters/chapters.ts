import type { Chapter, EpisodeText } from '../episode/fields'
import { type Mark, marksInNotes } from './marks'

/** Where an episode's chapters come from. */
export type ChapterOrigin = 'own' | 'notes' | 'file' | 'none'

/** A chapter that has no more than a moment and a title. What is made twice of one mark is the same. */
export const chapterFrom = ({ fromMs, title }: Mark): Chapter => ({
  id: `t${fromMs}`,
  fromMs,
  title,
  address: null,
  pictureId: null,
  isListed: true,
})

export const byTime = (one: Mark, other: Mark): number => one.fromMs - other.fromMs

/**
 * An episode's chapters by the clock of its source, in order: its own; where it has none, those that times in the notes
 * stand for; else those that the file brings.
 */
export function chaptersOf(
  { chapters, notes }: Pick<EpisodeText, 'chapters' | 'notes'>,
  brought: readonly Mark[],
): { origin: ChapterOrigin; chapters: Chapter[] } {
  if (chapters) return { origin: 'own', chapters: chapters.toSorted(byTime) }
  const { marks } = marksInNotes(notes)
  if (marks.length > 0) return { origin: 'notes', chapters: marks.map(chapterFrom) }
  return { origin: brought.length > 0 ? 'file' : 'none', chapters: brought.map(chapterFrom) }
}

/**
 * Chapters, in order, by the clock of the sound that is delivered, which begins at `fromMs` of the source and is
 * `durationMs` long: of those before its beginning the last one begins with it, those behind its end fall away.
 */
export function deliveredChapters<One extends Mark>(
  chapters: readonly One[],
  { fromMs, durationMs }: { fromMs: number; durationMs: number },
): One[] {
  return chapters
    .map(chapter => ({ ...chapter, fromMs: Math.max(0, chapter.fromMs - fromMs) }))
    .filter(
      (chapter, index, all) =>
        chapter.fromMs < durationMs && (index === all.length - 1 || all[index + 1]!.fromMs > chapter.fromMs),
    )
}

/** Those that a list of chapters shows. */
export const listed = <One extends Pick<Chapter, 'isListed' | 'title'>>(chapters: readonly One[]): One[] =>
  chapters.filter(({ isListed, title }) => isListed && title !== '')
