import { LRUCache } from 'lru-cache'
import { v7 as uuidV7 } from 'uuid'
import type { Directory, DirectoryList, Listing, NewOwnListing } from '@contract/directories'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { releasedCount } from '../../show/episodes/released'
import { AppError, badInput } from '../../platform/http/errors'
import { Refused, Trouble } from '../../platform/outside/service'
import type { Platform } from '../../platform/platform'
import { touchFeed } from '../../show/shows/feedRevision'
import { Show } from '../../show/shows/models'
import { addressesOf } from '../../show/shows/service'
import { directoriesAt, type SubmissionState, type DirectoryAnswer } from './client'
import { lacking, noteState } from './follow'
import { ListingRow } from '../../show/shows/listings'

const shownLacking = 5
const knownMs = 60_000

/** Handing a show to directories, once each, and following it there. */
export function directoryService(platform: Platform) {
  const { configuration, database, clock, jobs } = platform
  const { directoriesUrl, publicUrl } = configuration
  const directories = directoriesUrl ? directoriesAt(directoriesUrl) : null
  const known = new LRUCache<string, DirectoryAnswer[]>({ max: 1, ttl: knownMs })

  async function told(): Promise<DirectoryAnswer[]> {
    if (!directories) return []
    const all = known.get('all') ?? (await directories.all())
    known.set('all', all)
    return all
  }

  async function find({ showId }: Scope): Promise<Show> {
    const show = await Show.findByPk(showId)
    if (!show) throw new AppError('not-found', 'There is no such show.')
    return show
  }

  async function listingOf(row: ListingRow, released: number): Promise<Listing> {
    const lacks = row.state === 'listed' ? await lacking(row) : []
    return {
      state: row.state,
      since: row.since.toISOString(),
      submittedAt: row.submittedAt.toISOString(),
      why: row.why,
      sentTo: row.sentTo,
      isClosed: Boolean(row.isClosed),
      listingAddress: row.listingAddress,
      fetchedAt: row.fetchedAt && row.fetchedAt.toISOString(),
      nextFetchAt: row.nextFetchAt && row.nextFetchAt.toISOString(),
      has: released - lacks.length,
      lacks: lacks.slice(0, shownLacking).map(({ id, title, number, releaseAt }) => ({
        id,
        title,
        number,
        releasedAt: releaseAt!.toISOString(),
      })),
      problem: row.problem,
    }
  }

  /** What a directory wants, and whether the show has it; what nobody here knows of is taken for there. */
  const wantsOf = ({ wants }: DirectoryAnswer, show: Show, released: number): Directory['wants'] =>
    wants.map(({ name, words }) => ({
      words,
      isThere: name === 'episode' ? released > 0 : name === 'artwork' ? !show.artworkIsProvisional : true,
    }))

  async function list(scope: Scope): Promise<DirectoryList> {
    const show = await find(scope)
    const [released, rows] = await Promise.all([
      releasedCount(show.id),
      ListingRow.findAll({ where: { showId: show.id }, order: [['submittedAt', 'ASC']] }),
    ])
    const { all, problem } = await told().then(
      all => ({ all, problem: null }),
      (error: unknown) => {
        if (error instanceof Trouble || error instanceof Refused) return { all: [], problem: error.message }
        throw error
      },
    )
    return {
      problem,
      feedAddress: addressesOf(publicUrl, show).feedAddress,
      released,
      directories: await Promise.all(
        all.map(async directory => {
          const row = rows.find(each => each.directory === directory.id)
          return {
            ...directory,
            wants: wantsOf(directory, show, released),
            listing: row ? await listingOf(row, released) : null,
          }
        }),
      ),
      own: rows.flatMap(({ id, name, directory, listingAddress }) =>
        directory === null && listingAddress !== null ? [{ id, name, listingAddress }] : [],
      ),
    }
  }

  /** Has a directory asked, and says what it answers; throws `directory-refused` where it refuses or is away. */
  async function asked(ask: () => Promise<SubmissionState>): Promise<SubmissionState> {
    try {
      return await ask()
    } catch (error) {
      if (error instanceof Trouble || error instanceof Refused) throw new AppError('directory-refused', error.message)
      throw error
    }
  }

  async function directoryOf(id: string): Promise<DirectoryAnswer> {
    const directory = (await told().catch(() => [])).find(each => each.id === id)
    if (!directory || !directories) throw badInput('directory', id, 'One of the directories that are set.')
    return directory
  }

  return {
    list,

    /** Hands a show in. Throws `directory-refused` where something is lacking, and `already-handed-in` where it was done before. */
    async submit(scope: Scope, id: string): Promise<DirectoryList> {
      const directory = await directoryOf(id)
      const show = await find(scope)
      if (show.isPrivate) throw new AppError('directory-refused', 'The show is private, so no directory can have it.')
      const lacks = wantsOf(directory, show, await releasedCount(show.id)).filter(({ isThere }) => !isThere)
      if (lacks.length > 0)
        throw new AppError('directory-refused', `${directory.name} wants: ${lacks.map(each => each.words).join('; ')}.`)
      const now = clock.now()
      // The name under which it is handed in is written down first, so that one who dies in between hands in the same.
      const row = await transact(database, async transaction => {
        const [listing, isNew] = await ListingRow.findOrCreate({
          where: { showId: show.id, directory: id },
          defaults: {
            id: uuidV7(),
            showId: show.id,
            directory: id,
            name: directory.name,
            submissionId: uuidV7(),
            state: 'reading',
            since: now,
            submittedAt: now,
          },
          transaction,
        })
        // One that was never answered is handed in once more, under the name that it has.
        if (!isNew && listing.state !== 'refused' && listing.nextFetchAt)
          throw new AppError(
            'already-handed-in',
            `${show.name} was handed in to ${directory.name} already. Every new episode goes there by itself.`,
          )
        if (!isNew && listing.state === 'refused')
          await listing.update(
            { submissionId: uuidV7(), state: 'reading', since: now, submittedAt: now, why: null },
            { transaction },
          )
        return listing
      })
      const { feedAddress } = addressesOf(publicUrl, show)
      try {
        const state = await asked(() => directories!.begin(id, row.submissionId!, feedAddress))
        await transact(database, transaction => noteState(platform, row, state, transaction))
      } catch (error) {
        if (error instanceof AppError)
          await row.update({ state: 'refused', why: error.message.slice(0, 500), since: now })
        throw error
      }
      return list(scope)
    },

    /** Confirms with the code that came by mail. Throws `bad-input` where it is another one. */
    async confirm(scope: Scope, id: string, code: string): Promise<DirectoryList> {
      const row = await ListingRow.findOne({ where: { showId: scope.showId, directory: id } })
      if (!row?.submissionId || !directories) throw badInput('directory', id, 'One that the show was handed in to.')
      try {
        const state = await directories.confirm(id, row.submissionId, code)
        await transact(database, transaction => noteState(platform, row, state, transaction))
      } catch (error) {
        if (error instanceof Refused)
          throw badInput('code', code, 'This is not the code; it stands in the mail that came last.')
        if (error instanceof Trouble) throw new AppError('directory-refused', error.message)
        throw error
      }
      return list(scope)
    },

    /** Adds a directory that somebody follows by hand. */
    async addOwn(scope: Scope, { name, listingAddress }: NewOwnListing): Promise<DirectoryList> {
      const now = clock.now()
      await transact(database, async transaction => {
        await ListingRow.create(
          {
            id: uuidV7(),
            showId: scope.showId,
            directory: null,
            name,
            listingAddress,
            state: 'listed',
            since: now,
            submittedAt: now,
          },
          { transaction },
        )
        await touchFeed(platform, scope.showId, transaction)
      })
      return list(scope)
    },

    /** Follows a directory no more; it keeps the show where it has it. */
    async drop(scope: Scope, id: string): Promise<DirectoryList> {
      await transact(database, async transaction => {
        const gone = await ListingRow.destroy({ where: { id, showId: scope.showId, directory: null }, transaction })
        if (gone === 0) throw badInput('listing', id, 'One that is followed here by hand.')
        await jobs.cancel('follow-listing', id, transaction)
        await touchFeed(platform, scope.showId, transaction)
      })
      return list(scope)
    },
  }
}
