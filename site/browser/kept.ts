/** What this browser keeps for the next visit; where it keeps nothing, each visit begins anew. */
export function kept<Value>(name: string, first: Value, isFit: (value: unknown) => value is Value) {
  return {
    read(): Value {
      try {
        const value: unknown = JSON.parse(localStorage.getItem(name) ?? 'null')
        return isFit(value) ? value : first
      } catch {
        return first
      }
    },
    write(value: Value): void {
      try {
        localStorage.setItem(name, JSON.stringify(value))
      } catch {
        // Full, or not allowed: then it is not kept.
      }
    },
  }
}
