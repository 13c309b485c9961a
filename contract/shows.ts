import { z } from 'zod'
import { roles } from '@core/access/roles'
import { reservedAddressParts } from '@core/address/slug'
import { keptSchemas, mostNotesCharacters, writtenSchemas } from '@core/episode/fields'
import type { Rhythm } from '@core/release/rhythm'
import { patternFault } from '@core/episode/titlePattern'
import { isCategory } from '@core/feed/categories'
import { type FeedFacts, feedFacts } from '@core/feed/facts'
import { templateFault } from '@core/notes/fill'
import { mostTemplateLetters, type ShareTexts, shareTextFault } from '@core/sharing/texts'
import { utf8Bytes } from '@core/words/line'
import { pictureId, words } from '@core/words/schemas'
import { rhythm } from './rhythm'
import { usualRecipe } from './sound'
import { usualSet } from '@core/mix/usualSet'

export const addressPart = z
  .string()
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

const mostDescriptionBytes = 4000
const episodicOrSerial = z.enum(['episodic', 'serial'])

const facts = z.object({
  name: words(120),
  description: z
    .string()
    // Some programs put a return on the clipboard for the end of a line.
    .overwrite(words => words.replace(/\r\n?/g, '\n').trim())
    .min(1, 'Must not be empty.')
    .refine(
      words => utf8Bytes(words) <= mostDescriptionBytes,
      'At most 4,000 bytes; letters outside a to z take two to four each.',
    ),
  language: z
    .string()
    .max(35, 'At most 35 characters.')
    .regex(/^[a-z]{2,3}(-[a-z0-9]{2,8})*$/i, 'A language tag, such as en or pt-br.'),
  author: words(120),
  ownerEmail: z.email('An email address, such as name@example.org.').max(254, 'At most 254 characters.'),
  category: z.string(),
  subcategory: z.string().nullable(),
  explicit: z.boolean(),
  type: episodicOrSerial,
  zone,
  artworkId: pictureId,
})

const shareText = z
  .string()
  .max(mostTemplateLetters, `At most ${mostTemplateLetters} characters.`)
  .superRefine(refusedFor(shareTextFault))

/** What a show has ready for its episodes. */
const habits = z.object({
  titlePattern: words(120).superRefine(refusedFor(patternFault)),
  /** HTML; cleaned before it is kept. */
  notesTemplate: z
    .string()
    .max(mostNotesCharacters, 'At most 100,000 characters, markup counted.')
    .superRefine(refusedFor(templateFault)),
  usualLinks: writtenSchemas.links,
  usualTags: writtenSchemas.tags,
  hosts: writtenSchemas.people,
  rhythm: rhythm.nullable(),
  /** What it says of an episode elsewhere. */
  shareTexts: z.object({ post: shareText, forum: shareText, mail: shareText }),
  /** One or two zones in which most listeners are. */
  listenerZones: z.array(zone).max(2, 'At most two zones.'),
})

function refusedFor(faultOf: (words: string) => string | null) {
  return (words: string, context: z.RefinementCtx): void => {
    const message = faultOf(words)
    if (message) context.addIssue({ code: 'custom', message })
  }
}

const knownCategory = <T extends { category?: string; subcategory?: string | null }>(show: T): boolean =>
  show.category === undefined || isCategory(show.category, show.subcategory ?? null)
export const categoryRule = 'A category of the fixed list, with a subcategory of its own or none.'
const categoryFault = { path: ['category'], message: categoryRule }

/** A show can begin without artwork; a provisional one is drawn for it. */
export const newShow = facts
  .extend({ slug: addressPart, artworkId: facts.shape.artworkId.nullable().optional() })
  .refine(knownCategory, categoryFault)
export type NewShow = z.infer<typeof newShow>

/** Another address part for a show. */
export const newAddress = z.object({ version: z.int32().min(0), slug: addressPart })
export type NewAddress = z.infer<typeof newAddress>

/** A change names the version it started from; what it does not name stays. */
export const showChange = facts
  .partial()
  .extend(habits.partial().shape)
  .extend({
    version: z.int32().min(0),
    recipe: usualRecipe.optional(),
    usualSet: usualSet.nullable().optional(),
    feedFacts: feedFacts.partial().optional(),
  })
  .refine(knownCategory, categoryFault)
export type ShowChange = z.infer<typeof showChange>

/** A show as it is kept; what was kept before a rule became stricter is told all the same. */
export const show = z.object({
  id: z.string(),
  /** What whoever asks is in it. */
  role: z.enum(roles),
  slug: z.string(),
  version: z.number(),
  name: z.string(),
  description: z.string(),
  language: z.string(),
  author: z.string(),
  ownerEmail: z.string(),
  category: z.string(),
  subcategory: z.string().nullable(),
  explicit: z.boolean(),
  type: episodicOrSerial,
  zone: z.string(),
  artworkId: z.string(),
  artworkAddress: z.string(),
  artworkIsProvisional: z.boolean(),
  feedAddress: z.string(),
  pageAddress: z.string(),
  podcastGuid: z.string(),
  releasedCount: z.number(),
  recipe: usualRecipe,
  /** What its episodes begin and end with; null where nobody has said. */
  usualSet: usualSet.nullable(),
  titlePattern: z.string(),
  notesTemplate: z.string(),
  usualLinks: keptSchemas.links,
  usualTags: keptSchemas.tags,
  hosts: keptSchemas.people,
  rhythm: z.custom<Rhythm | null>(),
  listenerZones: z.array(z.string()),
  shareTexts: z.custom<ShareTexts>(),
  feedFacts: z.custom<FeedFacts>(),
  /** How much of what the rules found in its feed must be mended. */
  feedFaults: z.number(),
})
export type Show = z.infer<typeof show>

/** A show in a list. */
export const showSummary = show.pick({ id: true, slug: true, name: true, artworkAddress: true })
export type ShowSummary = z.infer<typeof showSummary>

/** Which part of a list of shows, by their names: those with words in the name, behind a page that was had before. */
export const showListQuery = z.object({
  find: z.string().trim().max(120, 'At most 120 characters.').optional(),
  /** The `after` of the page before. */
  after: z.uuid('The `after` of a page that was had before.').optional(),
  limit: z.coerce.number().int('A whole number.').min(1, 'At least 1.').max(100, 'At most 100.').default(50),
})
export type ShowListQuery = z.infer<typeof showListQuery>

export const showPage = z.object({ shows: z.array(showSummary), total: z.number(), after: z.string().nullable() })
export type ShowPage = z.infer<typeof showPage>

/** An uploaded picture, or the square that would be cut from it. */
export const picture = z.object({ id: z.string(), address: z.string(), widthPx: z.number(), heightPx: z.number() })
export type Picture = z.infer<typeof picture>

const px = (least: number) =>
  z.coerce.number('A whole number of pixels.').int('A whole number of pixels.').min(least).max(100_000)

/** What a picture that is no artwork is of. */
export const pictureSubjects = ['person', 'chapter', 'header'] as const
export type PictureSubject = (typeof pictureSubjects)[number]
export const smallPictureQuery = z.object({ of: z.enum(pictureSubjects) })

export const cropQuery = z.object({ left: px(0), top: px(0), sidePx: px(1) }).partial()
