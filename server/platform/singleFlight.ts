/** Whoever asks for something while it is being made gets what is made; what has failed is made anew for the next. */
export function singleFlight<Result>() {
  const underway = new Map<string, Promise<Result>>()
  return {
    get(key: string, make: () => Promise<Result>): Promise<Result> {
      const known = underway.get(key)
      if (known) return known
      const made = make().finally(() => {
        if (underway.get(key) === made) underway.delete(key)
      })
      underway.set(key, made)
      return made
    },
    /** Whoever asks from now on does not wait for what was begun before. */
    forget(key?: string): void {
      if (key === undefined) underway.clear()
      else underway.delete(key)
    },
  }
}
