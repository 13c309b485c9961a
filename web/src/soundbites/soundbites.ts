import { v4 as uuidV4 } from 'uuid'
import { longestSoundbiteMs, mostSoundbites, type Soundbite, shortestSoundbiteMs } from '@core/episode/fields'
import { soundbiteFrom } from '@core/soundbites/soundbites'

type Edge = 'fromMs' | 'toMs'

/** What can be done to an episode's soundbites, which lie within a sound that ends at `endMs`. */
export function soundbiteActs(all: () => readonly Soundbite[], endMs: () => number, write: (all: Soundbite[]) => void) {
  const within = (ms: number): number => Math.round(Math.min(Math.max(ms, 0), endMs()))

  function change(id: string, part: Partial<Soundbite>): void {
    write(all().map(each => (each.id === id ? { ...each, ...part } : each)))
  }

  return {
    change,
    isFull: (): boolean => all().length >= mostSoundbites,
    /** Marks one that begins at a moment; answers its id. */
    add(atMs: number): string {
      const made = soundbiteFrom(uuidV4(), atMs, endMs())
      write([...all(), made])
      return made.id
    },
    /** Moves beginning or end, which stop before the other comes too close or gets too far. */
    move(id: string, edge: Edge, ms: number): void {
      const own = all().find(each => each.id === id)
      if (!own) return
      const moved =
        edge === 'fromMs'
          ? Math.min(Math.max(within(ms), own.toMs - longestSoundbiteMs), own.toMs - shortestSoundbiteMs)
          : Math.max(Math.min(within(ms), own.fromMs + longestSoundbiteMs), own.fromMs + shortestSoundbiteMs)
      change(id, { [edge]: moved })
    },
    remove(id: string): void {
      write(all().filter(each => each.id !== id))
    },
  }
}
