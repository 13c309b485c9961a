import { literal, type Transaction, UniqueConstraintError } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import type { NewShow, Show as ShowView, ShowChange } from '@contract/shows'
import { firstRecipe, type Recipe } from '@core/audio/recipe'
import { podcastGuid } from '@core/feed/podcastGuid'
import { AppError, badInput } from '../errors'
import { Episode } from '../episodes/models'
import { noteFeedWrite } from '../feeds/freshness'
import { pictureName } from '../media/routes'
import type { Platform } from '../platform'
import { Picture, Show } from './models'

/** Shows: made once, changed with care; the address of a show and of its feed never changes. */
export function showService({ database, clock, configuration: { publicUrl } }: Pick<Platform, 'database' | 'clock' | 'configuration'>) {
  async function view(show: Show): Promise<ShowView> {
    const { createdAt: _createdAt, feedRevision: _revision, feedChangedAt: _changedAt, ...facts } = show.get()
    const [picture, releasedCount] = await Promise.all([
      Picture.findByPk(show.artworkId, { rejectOnEmpty: true }),
      Episode.count({ where: { showId: show.id, standing: 'released' } }),
    ])
    return {
      ...facts,
      ...addressesOf(publicUrl, show.slug),
      artworkAddress: `${publicUrl}/media/artwork/${pictureName(picture)}`,
      releasedCount,
      recipe: usualRecipeOf(show),
      subcategory: show.subcategory,
      version: Number(show.version),
    }
  }

  async function needPicture(id: string, transaction?: Transaction): Promise<void> {
    if (!await Picture.findByPk(id, { transaction })) throw badInput('artworkId', id, 'Upload the artwork first.')
  }

  async function find(id: string): Promise<Show> {
    const show = /^[0-9a-f-]{36}$/.test(id) ? await Show.findByPk(id) : null
    if (!show) throw new AppError('not-found', 'There is no such show.')
    return show
  }

  return {
    list: async (): Promise<ShowView[]> => Promise.all((await Show.findAll({ order: [['createdAt', 'ASC']] })).map(view)),
    get: async (id: string): Promise<ShowView> => view(await find(id)),

    /** Makes a show; its feed answers from then on. Throws `address-taken` where another show has the address part. */
    async create(wanted: NewShow): Promise<ShowView> {
      await needPicture(wanted.artworkId)
      const now = clock.now()
      const { feedAddress } = addressesOf(publicUrl, wanted.slug)
      try {
        const show = await Show.create({ id: uuidV7(), ...wanted, podcastGuid: podcastGuid(feedAddress), feedChangedAt: now, createdAt: now })
        return await view(await show.reload())
      } catch (error) {
        if (!(error instanceof UniqueConstraintError)) throw error
        const fault = { field: 'slug', value: wanted.slug, rule: 'Another show has this address.' }
        throw new AppError('address-taken', `Another show lives at ${publicUrl}/${wanted.slug}.`, [fault])
      }
    },

    /** Changes a show's facts; the feed tells them at once. Throws `version-conflict` with the newest facts where another window was first. */
    async change(id: string, { version, ...facts }: ShowChange): Promise<ShowView> {
      const show = await database.transaction(async transaction => {
        await find(id)
        const current = await Show.findByPk(id, { lock: true, transaction, rejectOnEmpty: true })
        if (current.version !== version) {
          throw new AppError('version-conflict', 'The show was changed in another window.', undefined, { current: current.get(), yours: facts })
        }
        if (facts.artworkId) await needPicture(facts.artworkId, transaction)
        await current.update({ ...facts, version: version + 1 }, { transaction })
        await touchFeed(id, clock.now(), transaction)
        return current
      })
      return view(await show.reload())
    },
  }
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
