import type { FastifyPluginAsync } from 'fastify'
import { QueryTypes } from 'sequelize'
import type { Platform } from '../../platform/platform'
import { heldLoop } from './heldLoop'

/** `/healthz`: the process is up, and how long its event loop was held since it began. `/readyz`: database and media store answer. */
export const healthRoutes =
  ({ database, media }: Platform): FastifyPluginAsync =>
  async app => {
    const loop = heldLoop()
    app.addHook('onListen', async () => loop.begin())
    app.addHook('onClose', async () => loop.end())

    app.get('/healthz', async () => ({ status: 'up', eventLoopDelayMs: loop.told() }))

    app.get('/readyz', async (_request, reply) => {
      const answers = async (check: Promise<unknown>): Promise<'answers' | 'does not answer'> =>
        check.then(
          () => 'answers' as const,
          () => 'does not answer' as const,
        )
      const parts = {
        database: await answers(database.query('SELECT 1', { type: QueryTypes.SELECT })),
        media: await answers(media.check()),
      }
      const ready = Object.values(parts).every(part => part === 'answers')
      return reply.code(ready ? 200 : 503).send({ status: ready ? 'ready' : 'not ready', ...parts })
    })
  }
