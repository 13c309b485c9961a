import { plainNotes } from '../notes/plain'

export interface Chapter {
  fromMs: number
  title: string
}

const line = /^[–•*-]?\s*[([]?(?:(\d{1,2}):)?(\d{1,3}):(\d{2})[)\]]?[\s:–—-]+(\S[^]*)$/

/**
 * The chapters that times in the notes stand for: lines such as `5:00 the news` or `1:02:09 – letters`. They count when
 * there are two or more, ever later; a single time is a remark.
 */
export function chaptersFromNotes(notesHtml: string): Chapter[] {
  const found = plainNotes(notesHtml)
    .split('\n')
    .flatMap(text => {
      const [, hours, minutes, seconds, title] = line.exec(text.trim()) ?? []
      if (!title || Number(seconds) > 59) return []
      return [
        { fromMs: ((Number(hours ?? 0) * 60 + Number(minutes)) * 60 + Number(seconds)) * 1000, title: title.trim() },
      ]
    })
  const inOrder = found.every(({ fromMs }, index) => index === 0 || fromMs > found[index - 1]!.fromMs)
  return found.length >= 2 && inOrder ? found : []
}

/** Chapters by the clock of the finished sound, which begins at `fromMs` of the source and is `durationMs` long. */
export function movedChapters(chapters: readonly Chapter[], fromMs: number, durationMs: number): Chapter[] {
  return chapters
    .map(chapter => ({ ...chapter, fromMs: Math.max(0, chapter.fromMs - fromMs) }))
    .filter(
      (chapter, index, all) =>
        chapter.fromMs < durationMs && (index === all.length - 1 || all[index + 1]!.fromMs > chapter.fromMs),
    )
}
