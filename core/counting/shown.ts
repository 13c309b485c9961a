/** Fewer people are not told apart: it would tell who they are. */
export const fewestShown = 5

/** Figures by name, the highest first; those of fewer than five people together, under no name. */
export interface Shown {
  rows: { name: string; downloads: number }[]
  /** How many names have fewer than five, and how many they have together; null where that is fewer than five too. */
  few: { names: number; downloads: number | null } | null
}

/** Figures as they may be shown. */
export function shown(figures: readonly { name: string; downloads: number }[]): Shown {
  const sorted = figures
    .filter(({ downloads }) => downloads > 0)
    .toSorted((one, other) => other.downloads - one.downloads || (one.name < other.name ? -1 : 1))
  const few = sorted.filter(({ downloads }) => downloads < fewestShown)
  const together = few.reduce((sum, { downloads }) => sum + downloads, 0)
  return {
    rows: sorted.slice(0, sorted.length - few.length),
    few: few.length > 0 ? { names: few.length, downloads: together < fewestShown ? null : together } : null,
  }
}
