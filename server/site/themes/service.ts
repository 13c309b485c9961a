import type { ThemeStep, ShowTheme, TriedTheme } from '@contract/siteThemes'
import { type SiteTheme, withAllBlocks } from '@core/site/siteTheme'
import type { Transaction } from 'sequelize'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { AppError } from '../../platform/http/errors'
import { publish, usePictures } from '../../media/pictures/artwork'
import { Picture } from '../../media/pictures/models'
import { pictureService } from '../../media/pictures/service'
import type { Platform } from '../../platform/platform'
import { touchPages } from '../../show/shows/feedRevision'
import { Show } from '../../show/shows/models'
import { seedsOfArtwork } from '../pages/siteTheme'

/** How the pages of a show look: one look is out, another may be tried meanwhile, and the one before is kept. */
export function themeService(platform: Platform) {
  const { database, events } = platform
  const pictures = pictureService(platform)

  async function view(showId: string): Promise<ShowTheme> {
    const show = await Show.findByPk(showId, { rejectOnEmpty: true })
    return {
      version: Number(show.themeVersion),
      tried: withAllBlocks(show.triedTheme ?? show.theme),
      out: withAllBlocks(show.theme),
      former: show.formerTheme && withAllBlocks(show.formerTheme),
      found: await seedsOfArtwork(platform, await Picture.findByPk(show.artworkId, { rejectOnEmpty: true })),
    }
  }

  /** Throws `version-conflict` where another window was first. */
  async function change(
    { showId }: Pick<Scope, 'showId'>,
    version: number,
    act: (show: Show, transaction: Transaction) => Promise<Partial<Pick<Show, 'theme' | 'formerTheme' | 'triedTheme'>>>,
  ): Promise<ShowTheme> {
    await transact(database, async transaction => {
      const show = await Show.findByPk(showId, { rejectOnEmpty: true, transaction, lock: true })
      if (Number(show.themeVersion) !== version)
        throw new AppError('version-conflict', 'The look was changed in another window.', undefined, {
          current: withAllBlocks(show.triedTheme ?? show.theme),
        })
      const changed = await act(show, transaction)
      await show.update({ ...changed, themeVersion: version + 1 }, { transaction })
      if (changed.theme !== undefined) await touchPages(platform, showId, transaction)
      await events.note({ kind: 'show', showId, id: showId }, transaction)
    })
    return view(showId)
  }

  return {
    get: ({ showId }: Pick<Scope, 'showId'>): Promise<ShowTheme> => view(showId),

    /** Tries another look; nobody sees it but the studio. */
    try: (scope: Scope, { version, theme }: TriedTheme): Promise<ShowTheme> =>
      change(scope, version, async (show, transaction) => {
        const { headerPictureId: id } = theme
        if (id && id !== show.theme?.headerPictureId && id !== show.triedTheme?.headerPictureId)
          await usePictures(pictures, [{ field: 'theme.headerPictureId', id }], scope, transaction)
        return { triedTheme: theme }
      }),

    /** Has the look that is tried go out; the one before it is kept. */
    takeOver: (scope: Pick<Scope, 'showId'>, { version }: ThemeStep): Promise<ShowTheme> =>
      change(scope, version, async ({ theme, triedTheme }, transaction) => {
        if (!triedTheme) return {}
        if (triedTheme.headerPictureId) await publish([triedTheme.headerPictureId], transaction)
        return { theme: triedTheme, formerTheme: withAllBlocks(theme), triedTheme: null }
      }),

    /** Has the look go out that was there before; the one that is out becomes that. */
    putBack: (scope: Pick<Scope, 'showId'>, { version }: ThemeStep): Promise<ShowTheme> =>
      change(scope, version, async ({ theme, formerTheme }) =>
        formerTheme ? { theme: formerTheme, formerTheme: withAllBlocks(theme), triedTheme: null } : {},
      ),

    /** Leaves what was tried. */
    leave: (scope: Pick<Scope, 'showId'>, { version }: ThemeStep): Promise<ShowTheme> =>
      change(scope, version, async () => ({ triedTheme: null })),

    /** The look that is tried, or else the one that is out. */
    triedOf: ({ triedTheme, theme }: Pick<Show, 'triedTheme' | 'theme'>): SiteTheme =>
      withAllBlocks(triedTheme ?? theme),
  }
}
