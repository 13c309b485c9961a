import type { FastifyPluginAsync } from 'fastify'
import { Op } from 'sequelize'
import { Episode, PastDelivery } from '../episodes/models'
import { fileIn, withRole } from '../episodes/roles'
import { AppError } from '../errors'
import { AudioFile } from '../files/models'
import { deliverPicture } from '../pictures/deliverPicture'
import type { Platform } from '../platform'
import { deliver } from '../media/deliver'
import { deliveredName } from '../media/names'
import { preflight, publicAccess } from '../media/publicAccess'

const forever = 'public, max-age=31536000, immutable'

/** Delivered files, without sign-in: audio of released episodes and public pictures, each at an address that never changes its content. */
export const deliveryRoutes = ({ media, clock }: Platform): FastifyPluginAsync => async app => {
  app.addHook('onRequest', async (_request, reply) => { reply.headers(publicAccess) })
  for (const url of ['/media/:episodeId/:name', '/media/artwork/:name']) app.options(url, (_request, reply) => preflight(reply))

  app.route<{ Params: { episodeId: string; name: string } }>({
    method: ['GET', 'HEAD'],
    url: '/media/:episodeId/:name',
    async handler(request, reply) {
      const { episodeId, name } = request.params
      const file = /^[0-9a-f-]{36}$/.test(episodeId) ? await deliveredFile(episodeId, name, clock.now()) : null
      if (!file) throw new AppError('not-found', 'No released episode has this file.')
      return deliver(request, reply, media, { ...file.get(), lastModified: file.createdAt, cacheControl: forever })
    },
  })

  app.route<{ Params: { name: string } }>({
    method: ['GET', 'HEAD'],
    url: '/media/artwork/:name',
    handler: (request, reply) => deliverPicture(request, reply, media, request.params.name, 'everybody'),
  })
}

/** The file of a released episode at an address: the current one, or one that was replaced not long ago. What lives elsewhere was never here. */
async function deliveredFile(episodeId: string, name: string, now: Date): Promise<AudioFile | null> {
  const attributes = ['id', 'sha256', 'type', 'bytes', 'address', 'createdAt'] as const
  const episode = await Episode.findOne({ where: { id: episodeId, standing: 'released' }, attributes: ['id'], include: withRole('released', ...attributes) })
  if (!episode) return null
  const isIt = (file?: AudioFile | null): file is AudioFile => Boolean(file && !file.address && deliveredName(file) === name)
  const current = fileIn(episode, 'released')
  if (isIt(current)) return current
  const past = await PastDelivery.findAll({ where: { episodeId, until: { [Op.gt]: now } }, include: { model: AudioFile, as: 'file', attributes: [...attributes] } })
  return past.map(({ file }) => file).find(isIt) ?? null
}
