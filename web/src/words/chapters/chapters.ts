import { v4 as uuidV4 } from 'uuid'
import { chapterFrom, chaptersOf } from '@core/chapters/chapters'
import type { Mark } from '@core/chapters/marks'
import type { Chapter, EpisodeText } from '@core/episode/fields'

/** One that is made here has a key of its own, since it may be moved to where another one began. */
const made = (mark: Mark): Chapter => ({ ...chapterFrom(mark), id: uuidV4() })

/** What can be done to an episode's chapters; each makes them its own where they came from elsewhere. */
export function chapterActs(text: () => EpisodeText, brought: () => readonly Mark[], write: (all: Chapter[]) => void) {
  const current = (): Chapter[] => chaptersOf(text(), brought()).chapters

  return {
    /** Begins one at a moment; answers its id. Where one begins in that tenth of a second already, that one. */
    add(ms: number): string {
      const there = current().find(({ fromMs }) => Math.abs(fromMs - ms) < 100)
      if (there) return there.id
      const chapter = made({ fromMs: Math.round(ms), title: '' })
      write([...current(), chapter])
      return chapter.id
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
      write([...kept, ...fresh.map(([fromMs, title]) => made({ fromMs, title }))])
    },
    keepAsOwn(): void {
      write(current())
    },
  }
}
