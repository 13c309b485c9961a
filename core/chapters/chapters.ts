import type { Timeline } from '../audio/timeline'
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

/** What is left of a chapter that begins in what is cut off is taken over by the next one where it is shorter; ms (common practice, no source). */
const shortestRestMs = 3000

/**
 * Chapters, in order, by the clock of the sound that is delivered. Of those that begin in what was cut out before a stretch the last
 * one begins with it, and behind it the last that lists do not show; those behind the end fall away. Where hardly anything is left
 * of the one, the next begins there.
 */
export function deliveredChapters<One extends Mark & Pick<Chapter, 'isListed'>>(
  chapters: readonly One[],
  { kept }: Pick<Timeline, 'kept'>,
): One[] {
  let atMs = 0
  let cutFromMs = -Infinity
  const delivered: One[] = []
  for (const { fromMs, toMs } of kept) {
    const begun = chapters.filter(chapter => chapter.fromMs >= cutFromMs && chapter.fromMs <= fromMs)
    const later = chapters.filter(chapter => chapter.fromMs > fromMs && chapter.fromMs < toMs)
    const left = begun.findLast(({ isListed }) => isListed)
    const hidden = begun.at(-1)?.isListed ? undefined : begun.at(-1)
    const next = later.findIndex(({ isListed }) => isListed)
    const isRest = left && next >= 0 && left.fromMs < fromMs && later[next]!.fromMs - fromMs < shortestRestMs
    const first = isRest ? [later[next]!] : [left, hidden].filter(one => one !== undefined)
    const startMs = atMs
    delivered.push(
      ...first.map(chapter => ({ ...chapter, fromMs: startMs })),
      ...later.slice(isRest ? next + 1 : 0).map(chapter => ({ ...chapter, fromMs: startMs + chapter.fromMs - fromMs })),
    )
    atMs += toMs - fromMs
    cutFromMs = toMs
  }
  return delivered.filter((chapter, index, all) => {
    const after = all[index + 1]
    return !after || after.fromMs > chapter.fromMs || after.isListed !== chapter.isListed
  })
}

/** Those that a list of chapters shows. */
export const listed = <One extends Pick<Chapter, 'isListed' | 'title'>>(chapters: readonly One[]): One[] =>
  chapters.filter(({ isListed, title }) => isListed && title !== '')
