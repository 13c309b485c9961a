import { randomBytes } from 'node:crypto'
import { Op } from 'sequelize'
import type { Comment as CommentView, CommentChange, CommentList, CommentListQuery } from '@contract/comments'
import { linksIn } from '@core/comments/comment'
import { readSnapshot } from '@core/episode/snapshot'
import type { Scope } from '../../people/access/scope'
import { transact } from '../../platform/database/transact'
import { Episode } from '../../show/episodes/models'
import { AppError } from '../../platform/http/errors'
import type { Platform } from '../../platform/platform'
import { touchPages } from '../../show/shows/feedRevision'
import { Show } from '../../show/shows/models'
import { addressed, addressesOf } from '../../show/shows/service'
import { Comment, CommentBan } from './models'

const onPage = 50

/** Comments, as its makers read it. */
export function commentService(platform: Pick<Platform, 'database' | 'clock' | 'configuration' | 'events'>) {
  const { database, clock, configuration } = platform

  async function viewsOf(showId: string, rows: readonly Comment[]): Promise<CommentView[]> {
    const [show, bans] = await Promise.all([
      Show.findByPk(showId, { attributes: [...addressed], rejectOnEmpty: true }),
      CommentBan.findAll({ where: { showId, asker: rows.map(({ asker }) => asker) }, attributes: ['asker'] }),
    ])
    const banned = new Set(bans.map(({ asker }) => asker))
    const { pageAddress } = addressesOf(configuration.publicUrl, show)
    return rows.map(({ id, version, name, words, answer, state, cameAt, asker, episode }) => ({
      id,
      version: Number(version),
      episode: {
        id: episode!.id,
        title: episode!.released ? readSnapshot(episode!.released).title : episode!.title,
        pageAddress: episode!.slug && `${pageAddress}/${episode!.slug}`,
      },
      name,
      words,
      answer,
      state,
      links: linksIn(words),
      cameAt: cameAt.toISOString(),
      isBanned: banned.has(asker),
    }))
  }
  const withEpisode = { model: Episode, as: 'episode', attributes: ['id', 'title', 'slug', 'released'] }

  async function list(
    { showId }: Pick<Scope, 'showId'>,
    { state, after }: CommentListQuery = {},
    limit = onPage,
  ): Promise<CommentList> {
    const [show, waiting, rows] = await Promise.all([
      Show.findByPk(showId, { attributes: ['takesComments'], rejectOnEmpty: true }),
      Comment.count({ where: { showId, state: 'waiting' } }),
      Comment.findAll({
        // Their ids are as old as they are.
        where: { showId, ...(state && { state }), ...(after && { id: { [Op.lt]: after } }) },
        include: withEpisode,
        order: [['id', 'DESC']],
        limit: limit + 1,
      }),
    ])
    const shown = rows.slice(0, limit)
    return {
      takesComments: Boolean(show.takesComments),
      waiting,
      comments: await viewsOf(showId, shown),
      after: rows.length > limit ? shown.at(-1)!.id : null,
    }
  }

  return {
    list,

    /** Opens or closes a show to what listeners write; what was shown stays there. */
    async open({ showId }: Pick<Scope, 'showId'>, takesComments: boolean): Promise<CommentList> {
      await transact(database, async transaction => {
        const show = await Show.findByPk(showId, { rejectOnEmpty: true, transaction, lock: true })
        await show.update(
          { takesComments, commentSalt: show.commentSalt ?? randomBytes(16).toString('hex') },
          { transaction },
        )
        await touchPages(platform, showId, transaction)
      })
      return list({ showId })
    },

    /** Shows it, hides it, answers it, bans whoever wrote it. Throws `version-conflict` where another window was first. */
    async change(
      { id, showId }: Pick<Scope, 'id' | 'showId'>,
      { version, isBanned, ...wanted }: CommentChange,
    ): Promise<CommentView> {
      await transact(database, async transaction => {
        const comment = await Comment.findByPk(id, { rejectOnEmpty: true, transaction, lock: true })
        if (Number(comment.version) !== version)
          throw new AppError('version-conflict', 'Somebody did something with it in another window.')
        const { asker, name } = comment
        if (isBanned === true) await CommentBan.upsert({ showId, asker, name, bannedAt: clock.now() }, { transaction })
        if (isBanned === false) await CommentBan.destroy({ where: { showId, asker }, transaction })
        const answer = wanted.answer === '' ? null : wanted.answer
        await comment.update(
          { ...wanted, ...(answer !== undefined && { answer }), version: version + 1 },
          { transaction },
        )
        await touchPages(platform, showId, transaction)
      })
      const row = await Comment.findByPk(id, { include: withEpisode, rejectOnEmpty: true })
      return (await viewsOf(showId, [row]))[0]!
    },

    /** All of a show, as a table for whoever takes them along (RFC 4180). */
    async asTable(scope: Pick<Scope, 'showId'>): Promise<string> {
      const lines = [['came at', 'episode', 'name', 'words', 'state', 'answer']]
      let after: string | undefined
      do {
        const page = await list(scope, { after }, 500)
        for (const { cameAt, episode, name, words, state, answer } of page.comments)
          lines.push([cameAt, episode.title, name, words, state, answer ?? ''])
        after = page.after ?? undefined
      } while (after)
      return lines.map(cells => cells.map(cell).join(',')).join('\r\n') + '\r\n'
    },
  }
}

/**
 * A cell of a table; what a spreadsheet would take for a formula is marked as words, also where it takes semicolons or tabs, and not
 * commas, for what parts cells (OWASP, CSV injection: = + - @, tab, carriage return, and their full-width forms).
 */
const cell = (words: string): string =>
  `"${words.replace(/(^|[;\t\r\n])(?=[=+\-@\t\r＝＋－＠])/g, "$1'").replaceAll('"', '""')}"`

/** What is shown of what was written to an episode, the oldest first. */
export async function shownComments(
  episodeId: string,
): Promise<Pick<Comment, 'name' | 'words' | 'answer' | 'cameAt'>[]> {
  return Comment.findAll({ where: { episodeId, state: 'shown' }, order: [['id', 'ASC']], limit: 500 })
}

/** What was shown last of all that was written to a show's episodes. */
export const newestComments = (showId: string, limit: number): Promise<Comment[]> =>
  Comment.findAll({
    where: { showId, state: 'shown' },
    order: [['id', 'DESC']],
    limit,
  })
