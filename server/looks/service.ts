import type { LookStep, ShowLook, TriedLook } from '@contract/looks'
import { type Look, withAllBlocks } from '@core/site/look'
import type { Transaction } from 'sequelize'
import type { Scope } from '../access/scope'
import { transact } from '../database/transact'
import { AppError } from '../errors'
import { publish, usePictures } from '../pictures/artwork'
import { Picture } from '../pictures/models'
import { pictureService } from '../pictures/service'
import type { Platform } from '../platform'
import { touchPages } from '../shows/feedRevision'
import { Show } from '../shows/models'
import { seedsOfArtwork } from '../site/look'

/** How the pages of a show look: one look is out, another may be tried meanwhile, and the one before is kept. */
export function lookService(platform: Platform) {
  const { database, events } = platform
  const pictures = pictureService(platform)

  async function view(showId: string): Promise<ShowLook> {
    const show = await Show.findByPk(showId, { rejectOnEmpty: true })
    return {
      version: Number(show.lookVersion),
      tried: withAllBlocks(show.triedLook ?? show.look),
      out: withAllBlocks(show.look),
      former: show.formerLook && withAllBlocks(show.formerLook),
      found: await seedsOfArtwork(platform, await Picture.findByPk(show.artworkId, { rejectOnEmpty: true })),
    }
  }

  /** Throws `version-conflict` where another window was first. */
  async function change(
    { showId }: Pick<Scope, 'showId'>,
    version: number,
    act: (show: Show, transaction: Transaction) => Promise<Partial<Pick<Show, 'look' | 'formerLook' | 'triedLook'>>>,
  ): Promise<ShowLook> {
    await transact(database, async transaction => {
      const show = await Show.findByPk(showId, { rejectOnEmpty: true, transaction, lock: true })
      if (Number(show.lookVersion) !== version)
        throw new AppError('version-conflict', 'The look was changed in another window.', undefined, {
          current: withAllBlocks(show.triedLook ?? show.look),
        })
      const changed = await act(show, transaction)
      await show.update({ ...changed, lookVersion: version + 1 }, { transaction })
      if (changed.look !== undefined) await touchPages(platform, showId, transaction)
      await events.note({ kind: 'show', showId, id: showId }, transaction)
    })
    return view(showId)
  }

  return {
    get: ({ showId }: Pick<Scope, 'showId'>): Promise<ShowLook> => view(showId),

    /** Tries another look; nobody sees it but the studio. */
    try: (scope: Scope, { version, look }: TriedLook): Promise<ShowLook> =>
      change(scope, version, async (show, transaction) => {
        const { headerPictureId: id } = look
        if (id && id !== show.look?.headerPictureId && id !== show.triedLook?.headerPictureId)
          await usePictures(pictures, [{ field: 'look.headerPictureId', id }], scope, transaction)
        return { triedLook: look }
      }),

    /** Has the look that is tried go out; the one before it is kept. */
    takeOver: (scope: Pick<Scope, 'showId'>, { version }: LookStep): Promise<ShowLook> =>
      change(scope, version, async ({ look, triedLook }, transaction) => {
        if (!triedLook) return {}
        if (triedLook.headerPictureId) await publish([triedLook.headerPictureId], transaction)
        return { look: triedLook, formerLook: withAllBlocks(look), triedLook: null }
      }),

    /** Has the look go out that was there before; the one that is out becomes that. */
    putBack: (scope: Pick<Scope, 'showId'>, { version }: LookStep): Promise<ShowLook> =>
      change(scope, version, async ({ look, formerLook }) =>
        formerLook ? { look: formerLook, formerLook: withAllBlocks(look), triedLook: null } : {},
      ),

    /** Leaves what was tried. */
    leave: (scope: Pick<Scope, 'showId'>, { version }: LookStep): Promise<ShowLook> =>
      change(scope, version, async () => ({ triedLook: null })),

    /** The look that is tried, or else the one that is out. */
    triedOf: ({ triedLook, look }: Pick<Show, 'triedLook' | 'look'>): Look => withAllBlocks(triedLook ?? look),
  }
}
