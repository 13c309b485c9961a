import type { FastifyReply, FastifyRequest } from 'fastify'
import type { CommentPage } from '@site/facts'
import { renderCommentPage } from '@site/pages'
import { commentTaking } from '../comments/taking'
import { publicOutlet } from '../../show/episodes/audience'
import { outgoingOf } from '../../show/episodes/outgoing'
import { releasedEpisode } from '../../show/episodes/released'
import type { Platform } from '../../platform/platform'
import { askerOf } from '../../platform/http/fastPath'
import { publicShowAt } from '../../show/shows/addresses'
import { Show } from '../../show/shows/models'
import { addressesOf } from '../../show/shows/service'
import { publicEpisode, publicShow } from './facts'

/** A comment is not longer than this, whatever it is written in. */
export const mostCommentBytes = 20_000

/** Takes what a form brings, and says what became of it on a page of its own. */
export function commenting(platform: Platform) {
  const taking = commentTaking(platform)
  const { publicUrl, trustProxy } = platform.configuration
  const asker = askerOf(trustProxy)
  const { audience } = publicOutlet(publicUrl)

  /** The show and the episode that listeners may write to; null where they may not. */
  async function find(slug: string, path: string) {
    const row = await publicShowAt(slug)
    if (!row?.takesComments) return null
    const released = await releasedEpisode(row.id, audience, path)
    return released && { row, released }
  }

  async function page(
    row: Show,
    released: NonNullable<Awaited<ReturnType<typeof find>>>['released'],
    outcome: Outcome,
  ) {
    const show = await publicShow(platform, row, publicUrl)
    const { title, pageAddress } = publicEpisode(
      outgoingOf(released, () => null),
      row,
      publicUrl,
    )
    return renderCommentPage({ show, title, pageAddress, ...outcome }, platform.siteAssets)
  }

  return {
    /** Null where listeners cannot write to what is there. */
    async take(request: FastifyRequest, reply: FastifyReply, slug: string, path: string): Promise<FastifyReply | null> {
      const found = await find(slug, path)
      if (!found) return null
      const said = new URLSearchParams(String(request.body))
      const [name, words] = [said.get('name') ?? '', said.get('words') ?? '']
      const taken = await taking.take(
        found.row,
        found.released,
        { name, words, trap: said.get('website') ?? '' },
        asker(request.raw),
      )
      // RFC 9110 section 15.4.4: what is fetched from there can be fetched again without being sent again.
      if (taken.kind === 'taken')
        return reply
          .code(303)
          .header('location', `${addressesOf(publicUrl, found.row).pageAddress}/${path}/comments`)
          .send()
      const problem = taken.kind === 'faulty' ? taken.fault : 'too many comments'
      return reply
        .code(taken.kind === 'faulty' ? 422 : 429)
        .send(await page(found.row, found.released, { problem, name, words }))
    },

    /** What is said behind a comment that was taken. */
    async thanks(slug: string, path: string): Promise<string | null> {
      const found = await find(slug, path)
      return found && page(found.row, found.released, { problem: null, name: '', words: '' })
    },
  }
}

type Outcome = Pick<CommentPage, 'problem' | 'name' | 'words'>
