import { z } from 'zod'
import { keptSchemas } from '@core/episode/fields'
import { statuses } from '@core/release/status'
import { episodeSummary } from './episodes'

/** What an episode can lack. */
export const lacks = ['audio', 'title', 'number', 'hook', 'notes', 'tags', 'people'] as const
export type Lack = (typeof lacks)[number]

/** Statuses by which the table is narrowed: as they are, with changes that were not sent, or removed. */
export const tableStatuses = [...statuses, 'changed', 'removed'] as const
export const tableOrders = ['title', 'number', 'season', 'date', 'length', 'written'] as const
export type TableOrder = (typeof tableOrders)[number]

/** One row of all episodes. */
export const tableRow = episodeSummary.extend({
  season: z.number().nullable(),
  kind: keptSchemas.kind,
  tags: keptSchemas.tags,
  people: keptSchemas.people,
  explicit: z.boolean().nullable(),
  lacks: z.array(z.enum(lacks)),
})
export type TableRow = z.infer<typeof tableRow>

/** Which episodes, in which order, from where on. */
export const tableQuery = z.object({
  find: z.string().trim().max(300, 'At most 300 characters.').optional(),
  status: z.enum(tableStatuses).optional(),
  season: z.coerce.number().int('A whole number.').optional(),
  kind: keptSchemas.kind.optional(),
  tag: z.string().max(60, 'At most 60 characters.').optional(),
  lacks: z.enum(lacks).optional(),
  order: z.enum(tableOrders).default('date'),
  direction: z.enum(['up', 'down']).default('down'),
  from: z.coerce.number().int('A whole number.').min(0, 'At least 0.').default(0),
  limit: z.coerce.number().int('A whole number.').min(1, 'At least 1.').max(1000, 'At most 1,000.').default(100),
})
export type TableQuery = z.infer<typeof tableQuery>

export const tablePage = z.object({ rows: z.array(tableRow), total: z.number() })
export type TablePage = z.infer<typeof tablePage>
