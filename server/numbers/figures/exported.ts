import type { ShowNumbers } from '@contract/numbers'
import { csv } from '@core/words/csv'

/** A show's numbers as rows for a spreadsheet: what is told apart, by which name, and how many. */
export function numbersCsv({
  total,
  days,
  apps,
  devices,
  places,
  sources,
  refusals,
  subscribers,
}: ShowNumbers): string {
  const few = 'fewer than 5 each'
  const named = (what: string, { rows, few: rest }: ShowNumbers['apps']): (string | number)[][] => [
    ...rows.map(({ name, downloads }) => [what, name, downloads]),
    ...(rest ? [[what, few, rest.downloads ?? 'fewer than 5']] : []),
  ]
  return csv([
    ['what', 'name', 'downloads'],
    ['all', '', total],
    ...days.map(({ day, downloads }) => ['day', day, downloads]),
    ...named('app', apps),
    ...named('device', devices),
    ...named('country', places),
    ...sources.map(({ source, downloads }) => ['source', source, downloads]),
    ...refusals.map(({ refusal, listeners }) => ['not counted', refusal, listeners]),
    ...(subscribers ?? []).map(({ day, told, fetchers }) => ['subscribers, estimated', day, told + fetchers]),
  ])
}
