import { v4 as uuidV4 } from 'uuid'
import { chaptersOf } from '@core/chapters/chapters'
import type { Mark } from '@core/chapters/marks'
import type { Chapter, EpisodeText } from '@core/episode/fields'

const unnamed = (fromMs: number): Chapter => ({
  id: uuidV4(),
  fromMs,
  title: '',
  address: null,
  pictureId: null,
  isListed: true,
})

/** What can be done to an episode's chapters; each makes them its own where they came from elsewhere. */
export function chapterActs(text: () => EpisodeText, brought: () => readonly Mark[], write: (all: Chapter[]) => void) {
  const current = (): Chapter[] => chaptersOf(text(), brought()).chapters

  return {
    /** Begins one at a moment; answers its id. Where one begins in that tenth of a second already, that one. */
    add(ms: number): string {
      const there = current().find(({ fromMs }) => Math.abs(fromMs - ms) < 100)
      if (there) return there.id
      const made = unnamed(Math.round(ms))
      write([...current(), made])
      return made.id
    },
    change(id: string, part: Partial<Chapter>): void {
      write(current().map(chapter => (chapter.id === id ? { ...chapter, ...part } : chapter)))
    },
    remove(id: string): void {
      write(current().filter(chapter => chapter.id !== id))
    },
    /** Takes marks in besides those that are there; those at the same moment get their title. */
    take(marks: readonly Mark[]): void {
      const titles = new Map(marks.map(mark => [mark.fromMs, mark.title]))
      const kept = current().map(chapter => ({ ...chapter, title: titles.get(chapter.fromMs) ?? chapter.title }))
      const there = new Set(kept.map(({ fromMs }) => fromMs))
      const fresh = [...titles].filter(([fromMs]) => !there.has(fromMs))
      write([...kept, ...fresh.map(([fromMs, title]) => ({ ...unnamed(fromMs), title }))])
    },
    keepAsOwn(): void {
      write(current())
    },
  }
}
