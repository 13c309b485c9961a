const tabKey = 'lake-letter:tab'
/** A living window writes what is unsent again at every try to send it; what is this old belongs to a window that is gone. */
const goneAfterMs = 30_000

/** This window's name, kept over a reload. */
function tab(): string {
  const known = sessionStorage.getItem(tabKey)
  if (known) return known
  const made = crypto.getRandomValues(new Uint32Array(2)).join('-')
  sessionStorage.setItem(tabKey, made)
  return made
}

/** Where things of one kind lie in the browser that windows have written and the server does not have yet, each by an id. */
export function unsentBox<Unsent extends { atMs: number }>(prefix: string) {
  const keyOf = (id: string): string => `${prefix}:${id}:${tab()}`
  return {
    keep(id: string, unsent: Unsent): void {
      localStorage.setItem(keyOf(id), JSON.stringify(unsent))
    },
    /** The same of what is JSON already. */
    keepWritten(id: string, json: string): void {
      localStorage.setItem(keyOf(id), json)
    },
    drop(id: string): void {
      localStorage.removeItem(keyOf(id))
    },
    /** Takes out what this window, or one that is gone, left unsent; the newest wins. */
    take(id: string, nowMs: number): Unsent | null {
      const own = keyOf(id)
      const found = Object.keys(localStorage)
        .filter(key => key.startsWith(`${prefix}:${id}:`))
        .map(key => ({ key, unsent: JSON.parse(localStorage.getItem(key)!) as Unsent }))
        .filter(({ key, unsent }) => key === own || nowMs - unsent.atMs > goneAfterMs)
        .sort((a, b) => b.unsent.atMs - a.unsent.atMs)
      for (const { key } of found) localStorage.removeItem(key)
      return found[0]?.unsent ?? null
    },
  }
}
