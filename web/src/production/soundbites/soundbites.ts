import { v4 as uuidV4 } from 'uuid'
import { mostSoundbites, type Soundbite } from '@core/episode/fields'
import { movedEdge, soundbiteFrom } from '@core/soundbites/soundbites'

/** What can be done to an episode's soundbites, which lie within a sound that ends at `endMs`. */
export function soundbiteActs(all: () => readonly Soundbite[], endMs: () => number, write: (all: Soundbite[]) => void) {
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
    /** Moves beginning or end as far as either goes. */
    move(id: string, edge: 'fromMs' | 'toMs', ms: number): void {
      const own = all().find(each => each.id === id)
      if (own) change(id, { [edge]: movedEdge(own, edge, ms, endMs()) })
    },
    remove(id: string): void {
      write(all().filter(each => each.id !== id))
    },
  }
}
