import type { Chapter } from '../episode/fields'

export const jsonChaptersType = 'application/json+chapters'

/** What keeps a text from being a file of chapters: JSON Chapters 1.2, a list of what has a `startTime`; null where nothing does. */
export function chaptersFault(text: string): string | null {
  try {
    const { chapters } = JSON.parse(text) as { chapters?: { startTime?: unknown }[] }
    if (!Array.isArray(chapters)) return 'There is no list of chapters in it.'
    return chapters.every(each => typeof each?.startTime === 'number') ? null : 'A chapter has no startTime.'
  } catch {
    return 'It is no JSON.'
  }
}

/**
 * Writes a file of chapters: JSON Chapters 1.2.0 of the podcast namespace, from memory. Times are in seconds; `toc` is
 * told only where a chapter is hidden from the list.
 */
export function jsonChapters(
  chapters: readonly Chapter[],
  { title, podcastName }: { title: string; podcastName: string },
  pictureAddress: (id: string) => string | null,
): string {
  return JSON.stringify({
    version: '1.2.0',
    title,
    podcastName,
    chapters: chapters.map(chapter => {
      const picture = chapter.pictureId && pictureAddress(chapter.pictureId)
      return {
        startTime: chapter.fromMs / 1000,
        ...(chapter.title && { title: chapter.title }),
        ...(picture && { img: picture }),
        ...(chapter.address && { url: chapter.address }),
        ...(!chapter.isListed && { toc: false }),
      }
    }),
  })
}
