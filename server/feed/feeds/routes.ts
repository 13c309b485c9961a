import type { IncomingMessage, ServerResponse } from 'node:http'
import type { FastifyPluginAsync } from 'fastify'
import { AppError } from '../../platform/http/errors'
import { askedDomainOf } from '../../show/shows/domainTable'
import { preflight } from '../../platform/storage/publicAccess'
import { notAcceptable, sendingOf } from '../../platform/storage/written'
import type { Platform } from '../../platform/platform'
import { redirect } from '../../platform/http/redirect'
import { askerOf, type FastPath } from '../../platform/http/fastPath'
import { addressesOf } from '../../show/shows/service'
import type { WrittenAnswer } from '../../show/shows/writtenAnswers'
import { feedReaders } from './readers'
import { feedService } from './service'

/** `/{show}/feed.xml` and its other forms and parts, for directories and listening apps. */
export const feedRoutes =
  (platform: Platform, fast: FastPath): FastifyPluginAsync =>
  async app => {
    const {
      clock,
      configuration: { publicUrl, trustProxy },
    } = platform
    const feeds = feedService(platform)
    const asker = askerOf(trustProxy)
    const readers = feedReaders(platform)
    app.addHook('onClose', () => readers.flush())

    const feedsOfShow = [
      '/feed.xml',
      '/feed.json',
      '/parts/:part/feed.xml',
      '/parts/:part/feed.json',
      '/strands/:strand/feed.xml',
    ] as const
    for (const path of feedsOfShow) {
      app.options(`/:show${path}`, (_request, reply) => preflight(reply))
      app.get<{ Params: { show: string; part?: string; strand?: string } }>(`/:show${path}`, async (request, reply) => {
        const { show, part = '', strand = '' } = request.params
        const name = path.slice(1).replace(':part', part).replace(':strand', strand)
        const told =
          feeds.atHand(show, name) ??
          (await feeds.unchanged(show, name, request.raw)) ??
          (await feeds.current(show, name))
        if (!told) throw new AppError('not-found', 'There is no feed at this address.')
        // One feed has one address; other spellings of it lead there.
        if (told.slug !== show || told.hostName !== askedDomainOf(request.raw))
          return redirect(reply, `${addressesOf(publicUrl, told).pageAddress}/${name}`)
        if (told.movedTo) return redirect(reply, told.movedTo)
        if (!send(request.raw, reply.raw, told)) throw notAcceptable()
        return reply.hijack()
      })
    }

    fast.add((request, response) => {
      const [, show, name] =
        /^\/([^/?]+)\/((?:(?:parts|strands)\/[a-z0-9-]+\/)?feed\.(?:xml|json))$/.exec(request.url!) ?? []
      if (!show || (request.method !== 'GET' && request.method !== 'HEAD')) return false
      const feed = feeds.atHand(show, name)
      return feed !== null && !feed.movedTo && feed.hostName === askedDomainOf(request) && send(request, response, feed)
    })

    /** Sends a feed; false where the request takes none of its encodings. */
    function send(
      request: IncomingMessage,
      response: ServerResponse,
      { showId, path, answer }: WrittenAnswer,
    ): boolean {
      const at = clock.now()
      const sending = sendingOf(request, answer, at)
      if (!sending) return false
      const { status, head, body } = sending
      const sent = request.method === 'HEAD' ? null : body
      response.writeHead(status, [...head]).end(sent ?? undefined)
      const [address, userAgent] = [asker(request), request.headers['user-agent'] ?? '']
      const whole = sent?.length ?? 0
      const note = (bytes: number): void =>
        readers.note({
          showId,
          name: path,
          userAgent,
          address,
          status,
          bytes,
          hasIt: status === 304 || (sent !== null && bytes === whole),
          at,
        })
      const left = (): number => (response.writableFinished ? 0 : response.writableLength)
      // Most are on the line at once; only of those that are not the end must be waited for.
      if (left() === 0 || response.destroyed) note(whole)
      else response.once('close', () => note(Math.max(0, whole - left())))
      return true
    }
  }
