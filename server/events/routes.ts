import type { FastifyPluginAsync } from 'fastify'
import { signedIn } from '../access/access'
import { accountService, sessionCookie } from '../accounts/service'
import { nosniff } from '../nosniff'
import type { Platform } from '../platform'

/** So often a line is sent where there is no news: it shows both sides that the other is there. */
const pulseMs = 20_000

/** `GET /events`: server-sent events (HTML Standard, section 9.2), resumed by `Last-Event-ID`. */
export const eventRoutes =
  (platform: Platform): FastifyPluginAsync =>
  async app => {
    const { events, log } = platform
    const accounts = accountService(platform)

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
      const pulse = setInterval(() => {
        // Who has signed out meanwhile hears no more.
        accounts.accountOf(request.cookies[sessionCookie]!).then(
          account => (account ? raw.write(':\n\n') : raw.end()),
          error => log.error(error),
        )
      }, pulseMs)
      raw.once('close', () => {
        clearInterval(pulse)
        listening.then(
          stop => stop(),
          () => undefined,
        )
      })
      return reply
    })
  }
