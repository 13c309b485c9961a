import { z } from 'zod'
import { mostNotesCharacters } from '@core/episode/fields'
import { words } from '@core/words/schemas'

/** HTML of a page; cleaned before it is kept. */
const content = z.string().max(mostNotesCharacters, 'At most 100,000 characters, markup counted.')

export const newOwnPage = z.object({ title: words(120) })
export type NewOwnPage = z.infer<typeof newOwnPage>

export const ownPageChange = z.object({ version: z.int32().min(0), title: words(120), content })
export type OwnPageChange = z.infer<typeof ownPageChange>

export const ownPage = z.object({
  id: z.string(),
  version: z.number(),
  title: z.string(),
  content: z.string(),
  address: z.string(),
})
export type OwnPage = z.infer<typeof ownPage>
export const ownPageList = z.object({ pages: z.array(ownPage) })
export type OwnPageList = z.infer<typeof ownPageList>
