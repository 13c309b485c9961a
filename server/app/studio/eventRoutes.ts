import type { ServerResponse } from 'node:http'
import type { FastifyPluginAsync } from 'fastify'
import { signedIn } from '../../people/access/access'
import { accountService, sessionCookie } from '../../people/accounts/service'
import { nosniff } from '../../platform/http/nosniff'
import type { Platform } from '../../platform/platform'

/** So often a line is sent where there is no news: it shows both sides that the other is there. */
const pulseMs = 20_000
/** So often it is looked whether those who listen are still signed in. */
const signedInMs = 1_000

/** `GET /events`: server-sent events (HTML Standard, section 9.2), resumed by `Last-Event-ID`. */
export const eventRoutes =
  (platform: Platform): FastifyPluginAsync =>
  async app => {
    const { events, log } = platform
    const accounts = accountService(platform)
    const streams = new Map<ServerResponse, string>()

    /** Ends the streams of those who have signed out, by one question for all of them. */
    async function endSignedOut(): Promise<void> {
      if (streams.size === 0) return
      const good = await accounts.stillSignedIn([...new Set(streams.values())])
      for (const [stream, token] of streams) if (!good.has(token)) stream.end()
    }
    let isLooking = false
    const look = setInterval(() => {
      if (isLooking) return
      isLooking = true
      endSignedOut()
        .catch((error: unknown) => log.error(error))
        .finally(() => {
          isLooking = false
        })
    }, signedInMs)
    app.addHook('onClose', async () => clearInterval(look))

    app.get('/events', { ...signedIn, schema: { hide: true } }, async (request, reply) => {
      const { raw } = reply.hijack()
      const write = (lines: string): void => void raw.write(`${lines}\n\n`)
      raw.writeHead(200, {
        'content-type': 'text/event-stream',
        'cache-control': 'no-store',
        'x-accel-buffering': 'no',
        ...nosniff,
      })
      write('retry: 1000')

      const last = Number(request.headers['last-event-id'])
      const listening = events.listen(
        {
          accountId: request.account.id,
          tell: ({ number, ...news }) => write(`id: ${number}\nevent: news\ndata: ${JSON.stringify(news)}`),
          tellAll: number => write(`id: ${number}\nevent: all\ndata: {}`),
        },
        Number.isSafeInteger(last) && last > 0 ? last : undefined,
      )
      // The line is cut where nothing would come over it; the browser asks for another one.
      listening.catch(error => {
        log.error(error)
        raw.destroy()
      })
      streams.set(raw, request.cookies[sessionCookie]!)
      const pulse = setInterval(() => write(':'), pulseMs)
      raw.once('close', () => {
        streams.delete(raw)
        clearInterval(pulse)
        listening.then(
          stop => stop(),
          () => undefined,
        )
      })
      return reply
    })
  }
