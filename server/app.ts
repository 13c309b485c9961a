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
import { accountRoutes } from './accounts/routes'
import { guard, letAnyoneIn } from './access/access'
import { refuseForeignOrigins } from './access/foreignOrigins'
import { draftRoutes } from './drafting/routes'
import { lentRoutes } from './drafting/lent'
import { episodeRoutes } from './episodes/routes'
import { eventRoutes } from './events/routes'
import { feedRoutes } from './feeds/routes'
import { fileRoutes } from './files/routes'
import { finishingRoutes } from './finishing/routes'
import { healthRoutes } from './health/routes'
import { historyRoutes } from './history/routes'
import { checkingRoutes } from './checking/routes'
import { calendarRoutes } from './calendar/routes'
import { commentRoutes } from './comments/routes'
import { chapterRoutes } from './chapters/routes'
import { directoryRoutes } from './directories/routes'
import { deliveryRoutes } from './delivery/routes'
import { mediaSender } from './delivery/send'
import { listenerRoutes } from './listeners/routes'
import { ownAddressRoutes } from './listeners/ownAddresses'
import { lookRoutes } from './looks/routes'
import { hostRoutes } from './hosts/routes'
import { hostTable } from './shows/hostTable'
import { mailRoutes } from './mail/routes'
import { missingAddress } from './missingAddress'
import { readJson } from './json'
import { knownAddresses } from './knownAddresses'
import { pageHeaders } from './pageHeaders'
import { ownPageRoutes } from './ownPages/routes'
import { pictureRoutes } from './pictures/routes'
import { previewRoutes } from './preview/routes'
import type { Platform } from './platform'
import { nosniff } from './nosniff'
import { asAppError, installProblems, sendProblem } from './problems'
import { remoteRoutes } from './remote/routes'
import { releaseRoutes } from './releases/routes'
import { shelfRoutes } from './shelf/routes'
import { sharingRoutes } from './sharing/routes'
import { shortWay } from './shortWay'
import { showRoutes } from './shows/routes'
import { siteRoutes } from './site/routes'
import { soundbiteFileRoutes, soundbiteRoutes } from './soundbites/routes'
import { soundbiteService } from './soundbites/service'
import { strandRoutes } from './strands/routes'
import { studioRoutes } from './studio/routes'
import { togetherRoutes } from './together/routes'
import { transcriptFileRoutes } from './transcripts/files'
import { transcriptRoutes } from './transcripts/routes'
import { travelRoutes } from './travel/routes'
import { uploadRoutes } from './uploads/routes'

/** Puts the capabilities together; `onRoute` is told of each route. */
export async function createApp(platform: Platform, onRoute?: (route: RouteOptions) => void): Promise<FastifyInstance> {
  const { configuration, log } = platform
  const hosts = hostTable(platform)
  await hosts.load()
  const short = shortWay(hosts)
  const sender = mediaSender(platform)
  const soundbites = soundbiteService(platform)
  const app = Fastify({
    // A logger for each request costs a quarter of the time of a short answer; it is there only where its lines are wanted.
    ...(log.isLevelEnabled('info')
      ? { loggerInstance: log as FastifyBaseLogger }
      : { serverFactory: short.serverFactory }),
    rewriteUrl: request => hosts.addressOf(request),
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
    await open.register(feedRoutes(platform, short))
    await open.register(deliveryRoutes(platform, sender, short))
    await open.register(siteRoutes(platform, short))
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
        await answers.register(travelRoutes(platform))
        await answers.register(mailRoutes(platform))
        await answers.register(calendarRoutes(platform))
        await answers.register(pictureRoutes(platform))
        await answers.register(showRoutes(platform))
        await answers.register(episodeRoutes(platform))
        await answers.register(historyRoutes(platform))
        await answers.register(togetherRoutes(platform))
        await answers.register(transcriptRoutes(platform))
        await answers.register(draftRoutes(platform))
        await answers.register(previewRoutes(platform))
        await answers.register(releaseRoutes(platform))
        await answers.register(fileRoutes(platform))
        await answers.register(finishingRoutes(platform))
        await answers.register(soundbiteRoutes(platform, soundbites))
        await answers.register(shelfRoutes(platform))
        await answers.register(remoteRoutes(platform))
        await answers.register(checkingRoutes(platform))
        await answers.register(strandRoutes(platform))
        await answers.register(directoryRoutes(platform))
        await answers.register(listenerRoutes(platform))
        await answers.register(lookRoutes(platform))
        await answers.register(ownPageRoutes(platform))
        await answers.register(commentRoutes(platform))
        await answers.register(sharingRoutes(platform))
        await answers.register(hostRoutes(platform))
      })
    },
    { prefix: '/api/v1' },
  )

  return app
}
