import { cut, letters } from './line'

/** How many letters of a title the lists of apps show, narrow ones and wide ones (common practice, no source: some forty). */
export const listLetters = [40, 60] as const

/** A title as a list shows it: cut after so many letters, with a sign that there is more. */
export const cutForList = (title: string, most: number): string =>
  letters(title) <= most ? title : `${cut(title, most - 1, () => 1).trimEnd()}…`
