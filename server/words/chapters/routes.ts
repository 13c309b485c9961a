import type { FastifyPluginAsync } from 'fastify'
import { AppError } from '../../platform/http/errors'
import { preflight } from '../../platform/storage/publicAccess'
import { sendWritten } from '../../platform/storage/written'
import type { Platform } from '../../platform/platform'
import { chapterFiles } from './service'

/** What the feed names as an episode's chapters. */
export const chapterRoutes =
  (platform: Platform): FastifyPluginAsync =>
  async app => {
    const files = chapterFiles(platform)

    app.options('/:show/:episode/chapters.json', (_request, reply) => preflight(reply))
    app.get<{ Params: { show: string; episode: string } }>('/:show/:episode/chapters.json', async (request, reply) => {
      const { show, episode } = request.params
      const told = files.atHand(show, episode) ?? (await files.current(show, episode))
      if (!told) throw new AppError('not-found', 'There are no chapters at this address.')
      return sendWritten(request, reply, told.answer, platform.clock.now())
    })
  }
