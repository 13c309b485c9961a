import fastifyCompress from '@fastify/compress'
import fastifyCookie from '@fastify/cookie'
import fastifyHelmet from '@fastify/helmet'
import fastifySwagger from '@fastify/swagger'
import Fastify, {
  type FastifyBaseLogger,
  type FastifyInstance,
  type FastifyReply,
  type FastifyRequest,
  type RouteOptions,
} from 'fastify'
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod'
import { accountRoutes } from '../people/accounts/routes'
import { guard, letAnyoneIn } from '../people/access/access'
import { refuseForeignOrigins } from '../people/access/foreignOrigins'
import { draftRoutes } from '../words/drafting/routes'
import { lentRoutes } from '../words/drafting/lent'
import { episodeRoutes } from '../show/episodes/routes'
import { eventRoutes } from './studio/eventRoutes'
import { feedRoutes } from '../feed/feeds/routes'
import { fileRoutes } from '../media/files/routes'
import { finishingRoutes } from '../production/finishing/routes'
import { mixingRoutes } from '../production/mixing/routes'
import { healthRoutes } from './health/routes'
import { historyRoutes } from '../show/history/routes'
import { checkingRoutes } from '../feed/checking/routes'
import { calendarRoutes } from '../release/calendar/routes'
import { commentRoutes } from '../site/comments/routes'
import { chapterRoutes } from '../words/chapters/routes'
import { directoryRoutes } from '../feed/directories/routes'
import { deliveryRoutes } from '../feed/delivery/routes'
import { mediaSender } from '../feed/delivery/send'
import { listenerRoutes } from '../feed/listeners/routes'
import { ownAddressRoutes } from '../feed/listeners/ownAddresses'
import { themeRoutes } from '../site/themes/routes'
import { customDomainRoutes } from '../site/customDomains/routes'
import { domainTable } from '../show/shows/domainTable'
import { mailRoutes } from '../release/mail/routes'
import { missingAddress } from '../platform/http/missingAddress'
import { readJson } from '../platform/http/json'
import { knownAddresses } from '../platform/http/knownAddresses'
import { pageHeaders } from '../platform/http/pageHeaders'
import { numbersRoutes } from '../numbers/figures/routes'
import { ownPageRoutes } from '../site/ownPages/routes'
import { pictureRoutes } from '../media/pictures/routes'
import { previewRoutes } from '../feed/preview/routes'
import type { Platform } from '../platform/platform'
import { nosniff } from '../platform/http/nosniff'
import { asAppError, installProblems, sendProblem } from '../platform/http/problems'
import { remoteRoutes } from '../production/remote/routes'
import { releaseRoutes } from '../release/releases/routes'
import { shelfRoutes } from '../production/shelf/routes'
import { sharingRoutes } from '../site/sharing/routes'
import { fastPath } from '../platform/http/fastPath'
import { showRoutes } from '../show/shows/routes'
import { siteRoutes } from '../site/pages/routes'
import { soundbiteFileRoutes, soundbiteRoutes } from '../production/soundbites/routes'
import { soundbiteService } from '../production/soundbites/service'
import { strandRoutes } from '../show/strands/routes'
import { studioRoutes } from './studio/routes'
import { bulkEditRoutes } from '../release/bulkEdits/routes'
import { transcriptFileRoutes } from '../words/transcripts/files'
import { transcriptRoutes } from '../words/transcripts/routes'
import { clockRoutes } from './clockOffset/routes'
import { uploadRoutes } from '../production/uploads/routes'

/** Puts the capabilities together; `onRoute` is told of each route. */
export async function createApp(platform: Platform, onRoute?: (route: RouteOptions) => void): Promise<FastifyInstance> {
  const { configuration, log } = platform
  const domains = domainTable(platform)
  await domains.load()
  const fast = fastPath(domains.addressOf)
  const sender = mediaSender(platform)
  const soundbites = soundbiteService(platform)
  const app = Fastify({
    // A logger for each request costs a quarter of the time of a short answer; it is there only where its lines are wanted.
    ...(log.isLevelEnabled('info')
      ? { loggerInstance: log as FastifyBaseLogger }
      : { serverFactory: fast.serverFactory }),
    rewriteUrl: request => domains.addressOf(request),
    // The nearest proxies only: what stands farther back in X-Forwarded-For was written by whoever sent the request.
    trustProxy: configuration.trustProxy > 0 && ((_address: string, hop: number) => hop < configuration.trustProxy),
    forceCloseConnections: true,
    frameworkErrors: (error: unknown, request: FastifyRequest, reply: FastifyReply) =>
      void sendProblem(reply, asAppError(error, request, log)),
  })
  if (onRoute) app.addHook('onRoute', onRoute)
  installProblems(app, log)
  missingAddress(app, knownAddresses(app), configuration.publicUrl)
  app.addHook('onRequest', (_request, reply, done) => {
    reply.headers(nosniff)
    done()
  })
  // What a request brings is JSON where no route says otherwise, and nothing is guessed.
  app.removeAllContentTypeParsers()
  app.addContentTypeParser('application/json', { parseAs: 'string' }, async (_request: unknown, text: string) =>
    readJson(text),
  )

  await app.register(async open => {
    letAnyoneIn(open)
    await open.register(healthRoutes(platform))
    await open.register(feedRoutes(platform, fast))
    await open.register(deliveryRoutes(platform, sender, fast))
    await open.register(siteRoutes(platform, fast))
    await open.register(async pages => {
      await pages.register(fastifyHelmet, pageHeaders(configuration))
      await pages.register(chapterRoutes(platform))
      await pages.register(soundbiteFileRoutes(platform, soundbites))
      await pages.register(transcriptFileRoutes(platform))
      await pages.register(ownAddressRoutes(platform, sender, soundbites))
      await pages.register(studioRoutes(platform))
    })
  })

  await app.register(
    async api => {
      api.setValidatorCompiler(validatorCompiler).setSerializerCompiler(serializerCompiler)
      await api.register(fastifySwagger, {
        openapi: { info: { title: 'Lake Letter', version: '1' }, servers: [{ url: configuration.publicUrl }] },
        transform: jsonSchemaTransform,
      })
      await api.register(fastifyCookie)
      refuseForeignOrigins(api, configuration.publicUrl)
      guard(api, platform)
      api.addHook('onRequest', async (_request, reply) => {
        reply.header('cache-control', 'no-store')
      })
      await api.register(uploadRoutes(platform))
      await api.register(eventRoutes(platform))
      await api.register(lentRoutes(platform))
      await api.register(async answers => {
        await answers.register(fastifyCompress, { encodings: ['br', 'gzip'] })
        await answers.register(async open => {
          letAnyoneIn(open)
          await open.register(accountRoutes(platform))
          open.get('/openapi.json', { schema: { hide: true } }, () => api.swagger())
        })
        await answers.register(clockRoutes(platform))
        await answers.register(mailRoutes(platform))
        await answers.register(calendarRoutes(platform))
        await answers.register(pictureRoutes(platform))
        await answers.register(showRoutes(platform))
        await answers.register(episodeRoutes(platform))
        await answers.register(historyRoutes(platform))
        await answers.register(bulkEditRoutes(platform))
        await answers.register(transcriptRoutes(platform))
        await answers.register(draftRoutes(platform))
        await answers.register(previewRoutes(platform))
        await answers.register(releaseRoutes(platform))
        await answers.register(fileRoutes(platform))
        await answers.register(finishingRoutes(platform))
        await answers.register(mixingRoutes(platform))
        await answers.register(soundbiteRoutes(platform, soundbites))
        await answers.register(shelfRoutes(platform))
        await answers.register(remoteRoutes(platform))
        await answers.register(checkingRoutes(platform))
        await answers.register(strandRoutes(platform))
        await answers.register(directoryRoutes(platform))
        await answers.register(listenerRoutes(platform))
        await answers.register(themeRoutes(platform))
        await answers.register(ownPageRoutes(platform))
        await answers.register(commentRoutes(platform))
        await answers.register(sharingRoutes(platform))
        await answers.register(customDomainRoutes(platform))
        await answers.register(numbersRoutes(platform))
      })
    },
    { prefix: '/api/v1' },
  )

  return app
}
