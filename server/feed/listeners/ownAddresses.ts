import { LRUCache } from 'lru-cache'
import type { FastifyPluginAsync, FastifyReply, FastifyRequest } from 'fastify'
import { settledAt } from '@core/feed/dates'
import { writeChapters } from '../../words/chapters/service'
import type { MediaSender } from '../delivery/send'
import { type Deliverable, readDeliverables } from '../delivery/deliverables'
import type { Audience, Outlet } from '../../show/episodes/audience'
import { AppError } from '../../platform/http/errors'
import { anyListener, listenerBase, listenersFeed } from '../feeds/service'
import { deliver } from '../../platform/storage/deliver'
import { headersOf, headOf } from '../../platform/storage/head'
import { digestOf, encoded, sendWritten, type Written, writtenOf } from '../../platform/storage/written'
import { publicAccess } from '../../platform/storage/publicAccess'
import { nosniff } from '../../platform/http/nosniff'
import type { Platform } from '../../platform/platform'
import { currentSlug } from '../../show/shows/addresses'
import { Show } from '../../show/shows/models'
import { Strand } from '../../show/shows/strands'
import { writeSearch } from '../../site/pages/searching'
import { writePage } from '../../site/pages/service'
import { sent, type SoundbiteService } from '../../production/soundbites/service'
import { writeTranscriptFile } from '../../words/transcripts/files'
import type { FeedListener } from './models'
import { listenerService } from './service'

/** What is for one person is kept by nobody between, and named by no search engine. */
const forOne = { 'cache-control': 'private, no-cache', 'x-robots-tag': 'noindex, nofollow', ...nosniff }
/** Feeds stay written for so many listeners. */
const mostFeeds = 500

interface Holder {
  listener: FeedListener
  show: Show
  audience: Audience
}

/** All that goes out to listeners with an address of their own, at the addresses that it has for everybody behind `/_{secret}`. */
export const ownAddressRoutes =
  (platform: Platform, { send }: MediaSender, soundbites: SoundbiteService): FastifyPluginAsync =>
  async app => {
    const { clock, media, configuration } = platform
    const { publicUrl } = configuration
    const listeners = listenerService(platform)
    const feeds = new LRUCache<string, Written>({ max: mostFeeds })

    /** Whoever has a secret, with what it is to. Throws `not-found`, also where it was withdrawn. */
    async function holderOf(secret: string, slug: string | null): Promise<Holder> {
      const listener = await listeners.holder(secret)
      const show = listener && (await Show.findByPk(listener.showId))
      const isThere = show && (slug === null || show.slug === ((await currentSlug(slug)) ?? slug))
      if (!isThere) throw nothingThere()
      return { listener, show, audience: { strandId: listener.strandId } }
    }

    async function feedFor({ listener, show }: Holder): Promise<Written> {
      const strand = listener.strandId ? await Strand.findByPk(listener.strandId) : null
      const { bodies, tag, lastModified } = await listenersFeed(platform, show, strand)
      const own = `${tag}${digestOf(Buffer.from(listener.secret)).slice(0, 8)}`
      const known = feeds.get(own)
      if (known) return known
      const words = bodies.identity.toString().replaceAll(`/_${anyListener}/`, `/_${listener.secret}/`)
      const answer = writtenOf(
        'application/rss+xml; charset=utf-8',
        await encoded(Buffer.from(words)),
        own,
        lastModified,
        {
          ...publicAccess,
          ...forOne,
        },
      )
      feeds.set(own, answer)
      return answer
    }

    app.get<{ Params: { secret: string; show: string } }>('/_:secret/:show/feed.xml', async (request, reply) => {
      const holder = await holderOf(request.params.secret, request.params.show)
      const answer = await feedFor(holder)
      await listeners.noteFetch(holder.listener, request.headers['user-agent'] ?? '')
      return sendWritten(request, reply, answer, clock.now())
    })

    app.route<{ Params: { secret: string; episode: string; name: string } }>({
      method: ['GET', 'HEAD'],
      url: '/_:secret/media/:episode/:name',
      async handler(request, reply) {
        const { secret, episode, name } = request.params
        const { audience, show } = await holderOf(secret, null)
        const file = (await readDeliverables(episode, audience, clock.now())).get(name)
        if (!file || file.showId !== show.id) throw nothingThere()
        reply.hijack()
        send(request.raw, reply.raw, { episodeId: episode, file: ofOne(file), source: 'private' })
      },
    })

    /** Registers what is written of a released episode, or of the show, for whoever has a secret. */
    function written<Params extends { show: string }>(
      url: string,
      write: (
        show: Show,
        params: Params,
        lastModified: Date,
        outlet: Outlet,
        query: string,
      ) => Promise<{ answer: Written } | null>,
      headers: Record<string, string>,
    ): void {
      app.get(url, async (request: FastifyRequest, reply: FastifyReply) => {
        const params = request.params as Params & { secret: string }
        const { show, audience } = await holderOf(params.secret, params.show)
        const outlet = { audience, base: listenerBase(publicUrl, params.secret), headers: { ...headers, ...forOne } }
        const told = await write(show, params, settledAt(show.feedChangedAt), outlet, request.url.split('?')[1] ?? '')
        if (!told) throw nothingThere()
        return sendWritten(request, reply, told.answer, clock.now())
      })
    }
    type OfEpisode = { show: string; episode: string }
    written('/_:secret/:show', (show, _params, at, outlet) => writePage(platform, show, '', at, outlet), {})
    app.get<{ Params: { secret: string; show: string }; Querystring: { q?: unknown } }>(
      '/_:secret/:show/search',
      async (request, reply) => {
        const { secret, show: slug } = request.params
        const { show, audience } = await holderOf(secret, slug)
        const { q } = request.query
        const outlet = { audience, base: listenerBase(publicUrl, secret), headers: {} }
        return reply
          .type('text/html; charset=utf-8')
          .headers(forOne)
          .send(await writeSearch(platform, show, typeof q === 'string' ? q : '', outlet))
      },
    )
    written<OfEpisode>(
      '/_:secret/:show/:episode',
      (show, { episode }, at, outlet, query) => writePage(platform, show, `${episode}?${query}`, at, outlet),
      {},
    )
    written<OfEpisode>(
      '/_:secret/:show/:episode/chapters.json',
      (show, { episode }, at, outlet) => writeChapters(show, episode, at, publicUrl, outlet),
      publicAccess,
    )
    written<OfEpisode & { file: string }>(
      '/_:secret/:show/:episode/:file(^transcript\\..+$)',
      (show, { episode, file }, at, outlet) => writeTranscriptFile(show, `${episode}/${file}`, at, outlet),
      publicAccess,
    )

    app.route<{ Params: { secret: string; show: string; episode: string; soundbite: string } }>({
      method: ['GET', 'HEAD'],
      url: '/_:secret/:show/:episode/soundbites/:soundbite.mp3',
      async handler(request, reply) {
        const { secret, show, episode, soundbite } = request.params
        const { audience } = await holderOf(secret, show)
        const file = await soundbites.ofReleased(audience, show, episode, soundbite)
        reply.headers({ ...publicAccess, ...forOne })
        return deliver(request, reply, media, { ...sent(file), cacheControl: forOne['cache-control'] })
      },
    })
  }

/** A file as it is sent to one person: nobody between keeps it for others. */
function ofOne(file: Deliverable): Deliverable {
  const cacheControl = file.cacheControl.replace('public', 'private')
  const head = headOf({
    ...headersOf(file.head),
    'cache-control': cacheControl,
    'x-robots-tag': forOne['x-robots-tag'],
  })
  return { ...file, cacheControl, head }
}

const nothingThere = (): AppError => new AppError('not-found', 'There is nothing at this address, or no more.')
