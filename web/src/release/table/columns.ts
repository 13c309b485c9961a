import type { TableOrder } from '@contract/table'
import { t } from './messages'

/** The columns that can be chosen, and how wide each is at least; the title is always there. */
export const columns = {
  number: { name: t('number'), order: 'number', widthRem: 5.25 },
  season: { name: t('season'), order: 'season', widthRem: 5.25 },
  kind: { name: t('kind'), order: null, widthRem: 6.5 },
  date: { name: t('status'), order: 'date', widthRem: 12.75 },
  length: { name: t('length'), order: 'length', widthRem: 5 },
  tags: { name: t('tags'), order: null, widthRem: 9 },
  people: { name: t('people'), order: null, widthRem: 11 },
  explicit: { name: t('explicit'), order: null, widthRem: 6.5 },
  lacks: { name: t('missing'), order: null, widthRem: 9 },
  written: { name: t('lastChanged'), order: 'written', widthRem: 10.5 },
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
