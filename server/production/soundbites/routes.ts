import type { FastifyPluginAsync } from 'fastify'
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { slugFrom } from '@core/address/slug'
import { accessTo } from '../../people/access/access'
import { deliver } from '../../platform/storage/deliver'
import { preflight, publicAccess } from '../../platform/storage/publicAccess'
import type { Platform } from '../../platform/platform'
import { sent, type SoundbiteService } from './service'

/** A soundbite that is marked otherwise stays at its address. */
const askEachTime = 'no-cache'

/** Soundbites of released episodes, for anybody to listen to and pass on. */
export const soundbiteFileRoutes =
  (platform: Platform, soundbites: SoundbiteService): FastifyPluginAsync =>
  async app => {
    const url = '/:show/:episode/soundbites/:soundbite.mp3'
    app.options(url, (_request, reply) => preflight(reply))
    app.route<{ Params: { show: string; episode: string; soundbite: string } }>({
      method: ['GET', 'HEAD'],
      url,
      async handler(request, reply) {
        const { show, episode, soundbite } = request.params
        reply.headers(publicAccess)
        const file = await soundbites.ofReleased('everybody', show, episode, soundbite)
        return deliver(request, reply, platform.media, { ...sent(file), cacheControl: `public, ${askEachTime}` })
      },
    })
  }

/** Soundbites of any episode, for whoever works on it. */
export const soundbiteRoutes =
  (platform: Platform, soundbites: SoundbiteService): FastifyPluginAsyncZod =>
  async app => {
    app.route({
      method: ['GET', 'HEAD'],
      url: '/episodes/:id/soundbites/:soundbite/download',
      ...accessTo('episode', 'read'),
      schema: {
        params: z.object({ id: z.uuid(), soundbite: z.string() }),
        querystring: z.object({ name: z.string().max(300).default('') }),
      },
      async handler(request, reply) {
        const file = await soundbites.ofDraft(request.scope, request.params.soundbite)
        const name = `${slugFrom(request.query.name) || 'soundbite'}.mp3`
        reply.header('content-disposition', `attachment; filename="${name}"`)
        return deliver(request, reply, platform.media, { ...sent(file), cacheControl: `private, ${askEachTime}` })
      },
    })
  }
