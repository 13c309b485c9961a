import { z } from 'zod'
import { reservedAddressParts } from '@core/address/slug'
import { isCategory } from '@core/feed/categories'
import { usualRecipe } from './sound'

const line = (most: number) => z.string().trim().min(1, 'Must not be empty.').max(most, `At most ${most.toLocaleString('en')} characters.`)

export const addressPart = z.string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'Small letters a to z, digits and single hyphens between them.')
  .max(60, 'At most 60 characters.')
  .refine(part => !reservedAddressParts.includes(part), 'Lake Letter keeps this word for itself; take another.')

const zone = z.string().refine(name => {
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: name }))
  } catch {
    return false
  }
}, 'A time zone of the IANA list, such as Europe/Lisbon.')

const facts = z.object({
  name: line(120),
  description: line(4000),
  language: z.string().regex(/^[a-z]{2,3}(-[a-z0-9]{2,8})*$/i, 'A language tag, such as en or pt-br.'),
  author: line(120),
  ownerEmail: z.email('An e-mail address, such as name@example.org.').max(254, 'At most 254 characters.'),
  category: z.string(),
  subcategory: z.string().nullable(),
  explicit: z.boolean(),
  type: z.enum(['episodic', 'serial']),
  zone,
  artworkId: z.string().regex(/^[0-9a-f]{64}$/, 'The id of a picture that was uploaded.'),
})

const knownCategory = <T extends { category?: string; subcategory?: string | null }>(show: T): boolean =>
  show.category === undefined || isCategory(show.category, show.subcategory ?? null)
const categoryRule = { path: ['category'], message: 'A category of the fixed list, with a subcategory of its own or none.' }

export const newShow = facts.extend({ slug: addressPart }).refine(knownCategory, categoryRule)
export type NewShow = z.infer<typeof newShow>

/** A change names the version it started from; what it does not name stays. */
export const showChange = facts.partial().extend({ version: z.number().int(), recipe: usualRecipe.optional() }).refine(knownCategory, categoryRule)
export type ShowChange = z.infer<typeof showChange>

export const show = facts.extend({
  id: z.string(),
  slug: z.string(),
  version: z.number(),
  feedAddress: z.string(),
  pageAddress: z.string(),
  artworkAddress: z.string(),
  podcastGuid: z.string(),
  releasedCount: z.number(),
  recipe: usualRecipe,
})
export type Show = z.infer<typeof show>

/** An uploaded picture, or the square that would be cut from it. */
export const picture = z.object({ id: z.string(), address: z.string(), widthPx: z.number(), heightPx: z.number() })
export type Picture = z.infer<typeof picture>

export const cropQuery = z.object({
  left: z.coerce.number().int().min(0),
  top: z.coerce.number().int().min(0),
  sidePx: z.coerce.number().int().min(1),
}).partial()
