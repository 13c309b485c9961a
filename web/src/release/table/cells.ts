import type { TableRow } from '@contract/table'
import { clock } from '@core/words/amounts'
import { shortDay, shortMoment } from '../../platform/time/times'
import type { TableColumn } from './columns'
import { t } from './messages'

const kinds = { full: t('full'), trailer: t('trailer'), bonus: t('bonus') } as const

function standsAt({ status, releaseAt, changedSinceRelease }: TableRow, zone: string): string {
  if (status === 'draft') return t('draft')
  if (status === 'scheduled') return t('scheduledAt', { moment: shortMoment(releaseAt!, zone) })
  const day = shortDay(releaseAt!, zone)
  return status === 'retired'
    ? t('retiredOn', { day })
    : t(changedSinceRelease ? 'releasedOnAndChanged' : 'releasedOn', { day })
}

/** What stands in a column of a row; moments are told in the show’s zone. */
export function cellWords(row: TableRow, column: TableColumn, zone: string): string {
  switch (column) {
    case 'number':
      return String(row.number ?? '')
    case 'season':
      return String(row.season ?? '')
    case 'kind':
      return kinds[row.kind]
    case 'date':
      return standsAt(row, zone)
    case 'length':
      return row.durationMs === null ? '' : clock(row.durationMs)
    case 'tags':
      return row.tags.join(', ')
    case 'people':
      return [...new Set(row.people.map(({ name }) => name))].join(', ')
    case 'explicit':
      return row.explicit === null ? t('asTheShowInSentence') : row.explicit ? t('yesInSentence') : t('noInSentence')
    case 'lacks':
      return row.lacks.join(', ')
    case 'written':
      return shortMoment(row.updatedAt, zone)
  }
}

/** Whether a column is read down, figure under figure. */
export const hasFigures = (column: TableColumn): boolean =>
  column === 'number' || column === 'season' || column === 'date' || column === 'length' || column === 'written'
