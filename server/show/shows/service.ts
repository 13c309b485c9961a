import { deepEqual } from 'fast-equals'
import { Op, QueryTypes, type Transaction, UniqueConstraintError } from 'sequelize'
import { v7 as uuidV7 } from 'uuid'
import {
  categoryRule,
  type NewAddress,
  type NewShow,
  show as showView,
  type Show as ShowView,
  type ShowChange,
  type ShowListQuery,
  type ShowPage,
} from '@contract/shows'
import type { Role } from '@core/access/roles'
import { filesOfSet, type UsualSet } from '@core/mix/usualSet'
import { firstRecipe, type Recipe, recipeText } from '@core/audio/recipe'
import { isCategory } from '@core/feed/categories'
import { withAllFacts } from '@core/feed/facts'
import { podcastGuid } from '@core/feed/podcastGuid'
import type { RenderContext } from '@core/episode/rendered'
import { firstShareTexts } from '@core/sharing/texts'
import { cleanNotes } from '@core/notes/clean'
import { Membership } from '../../people/access/models'
import type { Scope } from '../../people/access/scope'
import { anywhere } from '../../platform/database/like'
import { transact } from '../../platform/database/transact'
import { AppError, badInput } from '../../platform/http/errors'
import { AudioFile } from '../../media/files/models'
import { Picture } from '../../media/pictures/models'
import { needArtwork, publish, usePictures } from '../../media/pictures/artwork'
import { publicPictureAddress } from '../../media/pictures/names'
import { pictureService } from '../../media/pictures/service'
import type { Platform } from '../../platform/platform'
import { isAnothersPast, PastAddress } from './addresses'
import { needElsewhere } from './elsewhere'
import { touchFeed } from './feedRevision'
import { Show } from './models'

/** Shows: made once, changed with care; an address that a show had leads to the one that it has. */
export function showService(
  platform: Pick<Platform, 'database' | 'media' | 'clock' | 'configuration' | 'jobs' | 'events'>,
) {
  const {
    database,
    clock,
    events,
    configuration: { publicUrl },
  } = platform
  const pictures = pictureService(platform)

  async function view(show: Show, role: Role): Promise<ShowView> {
    const [picture, [counted]] = await Promise.all([
      Picture.findByPk(show.artworkId, { rejectOnEmpty: true }),
      database.query<{ count: number | bigint }>(
        "SELECT COUNT(*) AS count FROM episodes WHERE show_id = ? AND status = 'released'",
        { replacements: [show.id], type: QueryTypes.SELECT },
      ),
    ])
    return showView.parse({
      ...show.get(),
      ...addressesOf(publicUrl, show),
      role,
      artworkAddress: publicPictureAddress(publicUrl, picture),
      artworkIsProvisional: Boolean(show.artworkIsProvisional),
      releasedCount: Number(counted?.count ?? 0),
      recipe: usualRecipeOf(show),
      shareTexts: show.shareTexts ?? firstShareTexts,
      feedFacts: withAllFacts(show.feedFacts),
    })
  }

  /** Makes a picture that an account has brought the artwork of a show. */
  async function takeArtwork(id: string, accountId: string | null, transaction: Transaction): Promise<void> {
    await needArtwork(pictures, 'artworkId', id, accountId, transaction)
    await publish([id], transaction)
  }

  const addressTaken = (slug: string): AppError =>
    new AppError('address-taken', `Another show lives at ${publicUrl}/${slug}, or did before.`, [
      { field: 'slug', value: slug, rule: 'Another show has this address, or had it.' },
    ])

  /** Throws `version-conflict` where another window was first. */
  function needVersion(show: Show, version: number): void {
    if (show.version !== version) throw new AppError('version-conflict', 'The show was changed in another window.')
  }

  async function find({ showId }: Scope, transaction?: Transaction): Promise<Show> {
    const show = await Show.findByPk(showId, { transaction, lock: transaction !== undefined })
    if (!show) throw new AppError('not-found', 'There is no such show.')
    return show
  }

  return {
    /** A page of the shows that an account is a member of, by their names. */
    async list(accountId: string, { find: words, after, limit }: ShowListQuery): Promise<ShowPage> {
      const mine =
        'FROM memberships m JOIN shows s ON s.id = m.show_id WHERE m.account_id = :accountId AND s.name LIKE :words'
      const replacements = {
        accountId,
        words: anywhere(words ?? ''),
        after: after ?? null,
        limit: limit + 1,
      }
      const behind = after ? 'AND (s.name, s.id) > (SELECT name, id FROM shows WHERE id = :after)' : ''
      const [rows, [counted]] = await Promise.all([
        database.query<Pick<Show, 'id' | 'slug' | 'name' | 'artworkId'>>(
          `SELECT s.id, s.slug, s.name, s.artwork_id AS artworkId ${mine} ${behind} ORDER BY s.name, s.id LIMIT :limit`,
          { replacements, type: QueryTypes.SELECT },
        ),
        database.query<{ total: number | bigint }>(`SELECT COUNT(*) AS total ${mine}`, {
          replacements,
          type: QueryTypes.SELECT,
        }),
      ])
      // One more than asked for tells whether there is another page.
      const shown = rows.slice(0, limit)
      const artwork = new Map(
        (await Picture.findAll({ where: { id: [...new Set(shown.map(({ artworkId }) => artworkId))] } })).map(
          picture => [picture.id, picture],
        ),
      )
      return {
        shows: shown.map(({ artworkId, ...show }) => ({
          ...show,
          artworkAddress: publicPictureAddress(publicUrl, artwork.get(artworkId)!),
        })),
        total: Number(counted!.total),
        after: rows.length > limit ? shown.at(-1)!.id : null,
      }
    },
    get: async (scope: Scope): Promise<ShowView> => view(await find(scope), scope.role),

    /** Makes a show, which the account keeps; its feed answers from then on. Throws `address-taken` where another show has the address part. */
    async create(accountId: string, { artworkId: given, ...wanted }: NewShow): Promise<ShowView> {
      const now = clock.now()
      const { feedAddress } = addressesOf(publicUrl, { slug: wanted.slug, hostName: null })
      const artworkId = given ?? (await pictures.addProvisional(wanted.slug))
      try {
        const show = await transact(database, async transaction => {
          if (await isAnothersPast(wanted.slug, null, transaction)) throw addressTaken(wanted.slug)
          if (given) await takeArtwork(given, accountId, transaction)
          else await publish([artworkId], transaction)
          const made = await Show.create(
            {
              id: uuidV7(),
              ...wanted,
              artworkId,
              artworkIsProvisional: !given,
              podcastGuid: podcastGuid(feedAddress),
              feedChangedAt: now,
              createdAt: now,
            },
            { transaction },
          )
          await Membership.create({ accountId, showId: made.id, role: 'keeper' }, { transaction })
          await events.note({ kind: 'membership', showId: made.id, id: accountId }, transaction)
          return made
        })
        return await view(await show.reload(), 'keeper')
      } catch (error) {
        if (!(error instanceof UniqueConstraintError)) throw error
        throw addressTaken(wanted.slug)
      }
    },

    /**
     * Gives a show another address part. The one before leads there from then on, and the feed says where it is; what it is known
     * by, its podcast:guid and those of its episodes, stays. Throws `address-taken` where another show has it, or had it before.
     */
    async moveTo(scope: Scope, { version, slug }: NewAddress): Promise<ShowView> {
      try {
        const show = await transact(database, async transaction => {
          const current = await find(scope, transaction)
          needVersion(current, version)
          if (current.slug === slug) return current
          if (await isAnothersPast(slug, current.id, transaction)) throw addressTaken(slug)
          await PastAddress.destroy({ where: { slug }, transaction })
          await PastAddress.create({ slug: current.slug, showId: current.id, leftAt: clock.now() }, { transaction })
          await current.update({ slug, version: version + 1 }, { transaction })
          await events.note({ kind: 'show', showId: current.id, id: current.id }, transaction)
          await touchFeed(platform, current.id, transaction)
          return current
        })
        return await view(await show.reload(), scope.role)
      } catch (error) {
        throw error instanceof UniqueConstraintError ? addressTaken(slug) : error
      }
    },

    /**
     * Changes a show's facts; the feed tells them at once. What changes nothing is no change. Throws `version-conflict`
     * where another window was first.
     */
    async change(scope: Scope, { version, ...wanted }: ShowChange): Promise<ShowView> {
      if (wanted.feedFacts) {
        const before = await find(scope)
        await needElsewhere(platform, before, withAllFacts({ ...before.feedFacts, ...wanted.feedFacts }))
      }
      const show = await transact(database, async transaction => {
        const current = await find(scope, transaction)
        needVersion(current, version)
        const facts = changedFacts(current, cleaned(wanted))
        if (Object.keys(facts).length === 0) return current
        if (facts.artworkId) await takeArtwork(facts.artworkId, scope.accountId, transaction)
        if (facts.usualSet) await needOnShelf(current.id, facts.usualSet, transaction)
        await usePictures(pictures, picturesOfHosts(facts.hosts ?? [], current.hosts), scope, transaction)
        await current.update(
          { ...facts, ...(facts.artworkId && { artworkIsProvisional: false }), version: version + 1 },
          { transaction },
        )
        await events.note({ kind: 'show', showId: current.id, id: current.id }, transaction)
        if (Object.keys(facts).some(fact => !inNoFeed.has(fact))) await touchFeed(platform, current.id, transaction)
        return current
      })
      return view(await show.reload(), scope.role)
    },
  }
}

/** Throws `bad-input` for the first music of a set that is not on the show's shelf. */
async function needOnShelf(showId: string, set: UsualSet, transaction: Transaction): Promise<void> {
  const there = await AudioFile.findAll({
    where: { id: filesOfSet(set), showId, address: null, origin: { [Op.ne]: 'mix' } },
    attributes: ['id'],
    lock: transaction.LOCK.SHARE,
    transaction,
  })
  for (const place of ['opening', 'closing'] as const) {
    const id = set[place]?.fileId
    if (id && !there.some(file => file.id === id))
      throw badInput(`usualSet.${place}.fileId`, id, 'A file of this show’s shelf, and one that is here.')
  }
}

/** Pictures of hosts that the show did not have before. */
function picturesOfHosts(hosts: Show['hosts'], before: Show['hosts']): { field: string; id: string }[] {
  const known = new Set(before.map(({ pictureId }) => pictureId))
  return hosts.flatMap(({ pictureId: id }, at) =>
    id && !known.has(id) ? [{ field: `hosts.${at}.pictureId`, id }] : [],
  )
}

/** What a show has ready for its episodes stands in no feed before they have it. */
const inNoFeed: ReadonlySet<string> = new Set([
  'shareTexts',
  'recipe',
  'usualSet',
  'notesTemplate',
  'usualLinks',
  'usualTags',
  'listenerZones',
])

const cleaned = <Wanted extends { notesTemplate?: string | undefined }>(wanted: Wanted): Wanted =>
  wanted.notesTemplate === undefined ? wanted : { ...wanted, notesTemplate: cleanNotes(wanted.notesTemplate) }

/** What of a change differs from what a show is. A new category leaves a subcategory behind that is not its own. */
function changedFacts(show: Show, wanted: Omit<ShowChange, 'version'>): Partial<Omit<ShowChange, 'version'>> {
  const category = wanted.category ?? show.category
  const left =
    wanted.category !== undefined && wanted.subcategory === undefined && !isCategory(category, show.subcategory)
  const facts = {
    ...wanted,
    ...(left && { subcategory: null }),
    ...(wanted.feedFacts && { feedFacts: { ...withAllFacts(show.feedFacts), ...wanted.feedFacts } }),
  }
  if (facts.subcategory !== undefined && !isCategory(category, facts.subcategory))
    throw badInput('subcategory', facts.subcategory, categoryRule)
  const isSame = (name: string, value: unknown): boolean =>
    name === 'recipe'
      ? recipeText(value as Recipe) === recipeText(usualRecipeOf(show)) && show.recipe !== null
      : name === 'feedFacts'
        ? deepEqual(withAllFacts(show.feedFacts), value)
        : deepEqual(show.get(name as keyof Show), value)
  return Object.fromEntries(
    Object.entries(facts).filter(([name, value]) => value !== undefined && !isSame(name, value)),
  )
}

/** A show as it would be with some facts changed. */
export const withFacts = (show: Show, wanted: Omit<ShowChange, 'version'>): Show =>
  Show.build({ ...show.get(), ...changedFacts(show, cleaned(wanted)) }, { isNewRecord: false })

/** What a show's addresses follow from. */
export type Addressed = Pick<Show, 'slug' | 'hostName'>
export const addressed = ['slug', 'hostName'] as const

/**
 * The addresses of a show: at its own host name where it has one, else at its part of the house's. What goes out to listeners with
 * an address of their own stays at the house's.
 */
export function addressesOf(base: string, { slug, hostName }: Addressed) {
  const pageAddress = hostName && !isSecret(base) ? atHost(base, hostName) : `${base}/${slug}`
  return { pageAddress, feedAddress: `${pageAddress}/feed.xml`, jsonAddress: `${pageAddress}/feed.json` }
}

/** Whether addresses that begin so are for a listener of their own only. */
export const isSecret = (base: string): boolean => new URL(base).pathname.includes('/_')

/** The beginning of addresses at another host, which is reached as the house is. */
function atHost(base: string, hostName: string): string {
  const { protocol, port } = new URL(base)
  return `${protocol}//${hostName}${port && `:${port}`}`
}

/** What of a show is told with each of its episodes. */
export const renderContextOf = (
  show: Pick<Show, 'name' | 'titlePattern'> & Addressed,
  publicUrl: string,
): RenderContext => ({
  name: show.name,
  titlePattern: show.titlePattern,
  address: addressesOf(publicUrl, show).pageAddress,
})

/** How a show's episodes are usually finished. */
export const usualRecipeOf = (show: Show): Recipe & { fromMs: null; toMs: null } => ({
  ...firstRecipe,
  ...show.recipe,
  fromMs: null,
  toMs: null,
})
