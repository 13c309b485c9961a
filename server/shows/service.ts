import { fn, col, literal, type Transaction, UniqueConstraintError } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import { categoryRule, type NewShow, type Show as ShowView, type ShowChange } from '@contract/shows'
import { firstRecipe, type Recipe, recipeText } from '@core/audio/recipe'
import { isCategory } from '@core/feed/categories'
import { podcastGuid } from '@core/feed/podcastGuid'
import { transact } from '../database/transact'
import { AppError, badInput } from '../errors'
import { Episode } from '../episodes/models'
import { noteFeedWrite } from '../feeds/freshness'
import { Picture } from '../pictures/models'
import { publicPictureAddress } from '../pictures/names'
import { pictureService } from '../pictures/service'
import type { Platform } from '../platform'
import { Show } from './models'

/** Shows: made once, changed with care; the address of a show and of its feed never changes. */
export function showService(platform: Pick<Platform, 'database' | 'media' | 'clock' | 'configuration'>) {
  const { database, clock, configuration: { publicUrl } } = platform
  const pictures = pictureService(platform)

  /** Shows as they are told, with two questions for all of them. */
  async function views(shows: readonly Show[]): Promise<ShowView[]> {
    const [artwork, counts] = await Promise.all([
      Picture.findAll({ where: { id: [...new Set(shows.map(({ artworkId }) => artworkId))] } }),
      Episode.findAll({
        where: { showId: shows.map(({ id }) => id), standing: 'released' },
        attributes: ['showId', [fn('COUNT', col('id')), 'count']], group: ['showId'], raw: true,
      }) as unknown as { showId: string; count: number }[],
    ])
    const pictureOf = new Map(artwork.map(picture => [picture.id, picture]))
    const countOf = new Map(counts.map(({ showId, count }) => [showId, Number(count)]))
    return shows.map(show => {
      const { createdAt: _createdAt, feedRevision: _revision, feedChangedAt: _changedAt, ...facts } = show.get()
      return {
        ...facts,
        ...addressesOf(publicUrl, show.slug),
        artworkAddress: publicPictureAddress(publicUrl, pictureOf.get(show.artworkId)!),
        artworkIsProvisional: Boolean(show.artworkIsProvisional),
        releasedCount: countOf.get(show.id) ?? 0,
        recipe: usualRecipeOf(show),
        subcategory: show.subcategory,
        version: Number(show.version),
      }
    })
  }
  const view = async (show: Show): Promise<ShowView> => (await views([show]))[0]!

  /** Makes a picture an artwork, which everybody may see from then on. */
  async function takeArtwork(id: string, transaction: Transaction): Promise<void> {
    const picture = await Picture.findByPk(id, { transaction })
    if (!picture) throw badInput('artworkId', id, 'Upload the artwork first.')
    if (picture.widthPx !== picture.heightPx) throw badInput('artworkId', id, 'Artwork is square; this picture was not taken as artwork.')
    await picture.update({ isPublic: true }, { transaction })
  }

  async function find(id: string, transaction?: Transaction): Promise<Show> {
    const show = /^[0-9a-f-]{36}$/.test(id) ? await Show.findByPk(id, { transaction, lock: transaction !== undefined }) : null
    if (!show) throw new AppError('not-found', 'There is no such show.')
    return show
  }

  return {
    list: async (): Promise<ShowView[]> => views(await Show.findAll({ order: [['createdAt', 'ASC'], ['id', 'ASC']] })),
    get: async (id: string): Promise<ShowView> => view(await find(id)),

    /** Makes a show; its feed answers from then on. Throws `address-taken` where another show has the address part. */
    async create({ artworkId: given, ...wanted }: NewShow): Promise<ShowView> {
      const now = clock.now()
      const { feedAddress } = addressesOf(publicUrl, wanted.slug)
      const artworkId = given ?? await pictures.addProvisional(wanted.slug)
      try {
        const show = await transact(database, async transaction => {
          await takeArtwork(artworkId, transaction)
          return Show.create({
            id: uuidV7(), ...wanted, artworkId, artworkIsProvisional: !given, podcastGuid: podcastGuid(feedAddress), feedChangedAt: now, createdAt: now,
          }, { transaction })
        })
        return await view(await show.reload())
      } catch (error) {
        if (!(error instanceof UniqueConstraintError)) throw error
        const fault = { field: 'slug', value: wanted.slug, rule: 'Another show has this address.' }
        throw new AppError('address-taken', `Another show lives at ${publicUrl}/${wanted.slug}.`, [fault])
      }
    },

    /**
     * Changes a show's facts; the feed tells them at once. What changes nothing is no change. Throws `version-conflict`
     * with the newest facts where another window was first.
     */
    async change(id: string, { version, ...wanted }: ShowChange): Promise<ShowView> {
      const show = await transact(database, async transaction => {
        const current = await find(id, transaction)
        if (current.version !== version) {
          throw new AppError('version-conflict', 'The show was changed in another window.', undefined, { current: current.get(), yours: wanted })
        }
        const facts = changedFacts(current, wanted)
        if (Object.keys(facts).length === 0) return current
        if (facts.artworkId) await takeArtwork(facts.artworkId, transaction)
        await current.update({ ...facts, ...(facts.artworkId && { artworkIsProvisional: false }), version: version + 1 }, { transaction })
        // How episodes are usually finished stands in no feed.
        if (Object.keys(facts).some(fact => fact !== 'recipe')) await touchFeed(id, clock.now(), transaction)
        return current
      })
      return view(await show.reload())
    },
  }
}

/** What of a change differs from what a show is. A new category leaves a subcategory behind that is not its own. */
function changedFacts(show: Show, wanted: Omit<ShowChange, 'version'>): Partial<Omit<ShowChange, 'version'>> {
  const category = wanted.category ?? show.category
  const left = wanted.category !== undefined && wanted.subcategory === undefined && !isCategory(category, show.subcategory)
  const facts = left ? { ...wanted, subcategory: null } : wanted
  if (facts.subcategory !== undefined && !isCategory(category, facts.subcategory)) throw badInput('subcategory', facts.subcategory, categoryRule)
  const isSame = (name: string, value: unknown): boolean => name === 'recipe'
    ? recipeText(value as Recipe) === recipeText(usualRecipeOf(show)) && show.recipe !== null
    : show.get(name as keyof Show) === value
  return Object.fromEntries(Object.entries(facts).filter(([name, value]) => value !== undefined && !isSame(name, value)))
}

/** Says that what a show's feed and pages tell has changed; in the transaction that changes it. */
export async function touchFeed(showId: string, at: Date, transaction: Transaction): Promise<void> {
  noteFeedWrite(transaction)
  await Show.update({ feedRevision: literal('feed_revision + 1'), feedChangedAt: at }, { where: { id: showId }, transaction })
}

/** The addresses that follow from a show's address part. */
export const addressesOf = (publicUrl: string, slug: string) => ({
  pageAddress: `${publicUrl}/${slug}`,
  feedAddress: `${publicUrl}/${slug}/feed.xml`,
})

/** How a show's episodes are usually finished. */
export const usualRecipeOf = (show: Show): Recipe & { fromMs: null; toMs: null } => ({ ...firstRecipe, ...show.recipe, fromMs: null, toMs: null })
