import type { Chapter } from '../episode/fields'
import type { Want, WantCode } from '../episode/wants'
import { clock } from '../words/amounts'

/** Lists of chapters and players take no shorter ones (common practice, no source). */
const shortestMs = 1000

/** What is worth a look in chapters that stand in order, by the clock of the source. `endMs` is where its sound ends; null where that is not known. */
export function chapterWants(chapters: readonly Chapter[], endMs: number | null): Want[] {
  const found: Want[] = []
  const say = (code: WantCode, { id, fromMs, title }: Chapter, weight: Want['weight'] = 'worth mending'): void => {
    found.push({ field: 'chapters', weight, code, id, told: title || clock(fromMs) })
  }
  const [first] = chapters
  if (first && first.fromMs > 0) say('chapters-begin-late', first, 'good to know')
  chapters.forEach((chapter, index) => {
    const before = chapters[index - 1]
    if (endMs !== null && chapter.fromMs >= endMs) say('chapter-behind-end', chapter)
    else if (before && chapter.fromMs - before.fromMs < shortestMs) say('chapters-close', chapter)
    if (chapter.title === '' && chapter.isListed) say('chapter-untitled', chapter)
  })
  return found
}

/** That the times in the notes go back and forth, where chapters should be made of them. */
export const timesGoBack: Want = { field: 'notes', weight: 'worth mending', code: 'chapter-times-back' }
