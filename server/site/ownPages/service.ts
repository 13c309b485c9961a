import { v7 as uuidV7 } from 'uuid'
import type { NewOwnPage, OwnPageChange, OwnPageList } from '@contract/ownPages'
import { slugFrom } from '@core/address/slug'
import { cleanNotes } from '@core/notes/clean'
import { keptParts } from '@core/site/places'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { Episode } from '../../show/episodes/models'
import { AppError, badInput } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { lockShow, touchPages } from '../../show/shows/feedRevision'
import { Show } from '../../show/shows/models'
import { OwnPage } from '../../show/shows/ownPages'
import { addressed, addressesOf } from '../../show/shows/service'

const mostPages = 20

/** The pages that makers write for their shows' sites. */
export function ownPageService(platform: Pick<Platform, 'database' | 'clock' | 'configuration' | 'events'>) {
  const { database, clock, configuration } = platform

  async function list({ showId }: Pick<Scope, 'showId'>): Promise<OwnPageList> {
    const [show, pages] = await Promise.all([
      Show.findByPk(showId, { attributes: [...addressed], rejectOnEmpty: true }),
      OwnPage.findAll({ where: { showId }, order: [['createdAt', 'ASC']] }),
    ])
    const { pageAddress } = addressesOf(configuration.publicUrl, show)
    return {
      pages: pages.map(({ id, version, title, content, slug }) => ({
        id,
        version: Number(version),
        title,
        content,
        address: `${pageAddress}/${slug}`,
      })),
    }
  }

  return {
    list,

    /** Makes a page; its address part is made of its title, and is no episode's and no other page's. The show's row is locked, as when an episode gets its own. */
    async create({ showId }: Pick<Scope, 'showId'>, { title }: NewOwnPage): Promise<OwnPageList> {
      await transact(database, async transaction => {
        await lockShow(showId, transaction)
        const known = await OwnPage.findAll({ where: { showId }, attributes: ['slug'], transaction, raw: true })
        if (known.length >= mostPages) throw badInput('title', title, `At most ${mostPages} pages.`)
        const isFree = async (slug: string): Promise<boolean> =>
          !keptParts.includes(slug) &&
          !known.some(page => page.slug === slug) &&
          (await Episode.count({ where: { showId, slug }, transaction })) === 0
        const wished = slugFrom(title, { maxLength: 50 }) || 'page'
        let slug = wished
        for (let number = 2; !(await isFree(slug)); number++) slug = `${wished}-${number}`
        await OwnPage.create(
          { id: uuidV7(), showId, slug, title, content: '', createdAt: clock.now() },
          { transaction },
        )
        await touchPages(platform, showId, transaction)
      })
      return list({ showId })
    },

    /** Throws `version-conflict` where another window was first. */
    async change(
      { id, showId }: Pick<Scope, 'id' | 'showId'>,
      { version, title, content }: OwnPageChange,
    ): Promise<OwnPageList> {
      await transact(database, async transaction => {
        const page = await OwnPage.findByPk(id, { rejectOnEmpty: true, transaction, lock: true })
        if (Number(page.version) !== version)
          throw new AppError('version-conflict', 'The page was changed in another window.')
        await page.update({ title, content: cleanNotes(content), version: version + 1 }, { transaction })
        await touchPages(platform, showId, transaction)
      })
      return list({ showId })
    },

    async remove({ id, showId }: Pick<Scope, 'id' | 'showId'>): Promise<OwnPageList> {
      await transact(database, async transaction => {
        await OwnPage.destroy({ where: { id }, transaction })
        await touchPages(platform, showId, transaction)
      })
      return list({ showId })
    },
  }
}
