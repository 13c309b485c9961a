import type { TableOrder } from '@contract/table'

/** The columns that can be chosen, and how wide each is at least; the title is always there. */
export const columns = {
  number: { name: 'Number', order: 'number', widthRem: 5.25 },
  season: { name: 'Season', order: 'season', widthRem: 5.25 },
  kind: { name: 'Kind', order: null, widthRem: 6.5 },
  date: { name: 'Status', order: 'date', widthRem: 12.75 },
  length: { name: 'Length', order: 'length', widthRem: 5 },
  tags: { name: 'Tags', order: null, widthRem: 9 },
  people: { name: 'People', order: null, widthRem: 11 },
  explicit: { name: 'Explicit', order: null, widthRem: 6.5 },
  lacks: { name: 'Missing', order: null, widthRem: 9 },
  written: { name: 'Last changed', order: 'written', widthRem: 10.5 },
} as const satisfies Record<string, { name: string; order: TableOrder | null; widthRem: number }>
export type TableColumn = keyof typeof columns
export const tableColumns = Object.keys(columns) as readonly TableColumn[]

export const usualColumns: readonly TableColumn[] = ['number', 'date', 'length', 'tags', 'lacks']

/** Columns as the address names them; the usual ones where it names none that there are. */
export function readColumns(given: unknown): readonly TableColumn[] {
  const names = typeof given === 'string' ? given.split(',') : []
  const chosen = tableColumns.filter(name => names.includes(name))
  return chosen.length > 0 ? chosen : usualColumns
}

export const writeColumns = (chosen: readonly TableColumn[]): string | undefined => {
  const written = tableColumns.filter(name => chosen.includes(name)).join(',')
  return written === usualColumns.join(',') ? undefined : written
}
