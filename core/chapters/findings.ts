import type { Chapter } from '../episode/fields'
import type { Want, WantCode } from '../episode/wants'
import { clock } from '../words/amounts'
import { deliveredChapters } from './chapters'

/** Lists of chapters and players take no shorter ones (common practice, no source). */
const shortestMs = 1000

/**
 * What is worth a look in chapters that stand in order, by the clock of the source. `kept` is where the sound that goes
 * out begins and ends in it, in ms; null where that is not known. `isM4a` is whether it goes out as an M4A.
 */
export function chapterWants(
  chapters: readonly Chapter[],
  kept: { fromMs: number; toMs: number } | null,
  isM4a: boolean,
): Want[] {
  const found: Want[] = []
  const say = (code: WantCode, { id, fromMs, title }: Chapter, severity: Want['severity'] = 'warning'): void => {
    found.push({ field: 'chapters', severity, code, id, told: title || clock(fromMs) })
  }
  const { fromMs, toMs } = kept ?? { fromMs: 0, toMs: Infinity }
  const delivered = deliveredChapters(chapters, { kept: [{ fromMs, toMs }] })
  const [first] = delivered
  if (first && first.fromMs > 0) say('chapters-begin-late', first, 'note')
  // Chapters of an MP4 are a track of texts, each a title (from memory: ISO/IEC 14496-12 knows of no more).
  const more = isM4a && chapters.find(({ address, pictureId, isListed }) => address ?? pictureId ?? !isListed)
  if (more) say('chapter-more-than-m4a', more, 'note')
  const goOut = new Set(delivered.map(({ id }) => id))
  chapters.forEach((chapter, index) => {
    const before = chapters[index - 1]
    if (chapter.fromMs >= toMs) say('chapter-behind-end', chapter)
    else if (chapter.fromMs < fromMs && !goOut.has(chapter.id)) say('chapter-cut-off', chapter)
    else if (before && chapter.fromMs - before.fromMs < shortestMs) say('chapters-close', chapter)
    if (chapter.title === '' && chapter.isListed) say('chapter-untitled', chapter)
  })
  return found
}

/** That the times in the notes go back and forth, where chapters should be made of them. */
export const timesGoBack: Want = { field: 'notes', severity: 'warning', code: 'chapter-times-back' }
