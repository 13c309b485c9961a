import type { FastifyPluginAsync } from 'fastify'
import { Op } from 'sequelize'
import { Episode, PastDelivery } from '../episodes/models'
import { AppError } from '../errors'
import { AudioFile } from '../files/models'
import type { Platform } from '../platform'
import { Picture } from '../shows/models'
import { deliver } from './deliver'

const forever = 'public, max-age=31536000, immutable'

/** Delivered files, without sign-in: audio of released episodes and pictures, each at an address that never changes its content. */
export const mediaRoutes = ({ media, clock }: Platform): FastifyPluginAsync => async app => {
  app.addHook('onRequest', async (_request, reply) => {
    reply.header('access-control-allow-origin', '*').header('cross-origin-resource-policy', 'cross-origin')
  })

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
    async handler(request, reply) {
      const [id] = request.params.name.split('.')
      const picture = await Picture.findByPk(id)
      if (!picture || request.params.name !== pictureName(picture)) throw new AppError('not-found', 'There is no such picture.')
      return deliver(request, reply, media, { ...picture.get(), sha256: picture.id, lastModified: picture.createdAt, cacheControl: forever })
    },
  })
}

/** The file of a released episode at an address: the current one, or one that was replaced not long ago. */
async function deliveredFile(episodeId: string, name: string, now: Date): Promise<AudioFile | null> {
  const attributes = { exclude: ['waveform', 'measurement'] }
  const episode = await Episode.findOne({ where: { id: episodeId, standing: 'released' }, include: { model: AudioFile, as: 'releasedFile', attributes } })
  if (!episode?.releasedFile || name === deliveredName(episode.releasedFile)) return episode?.releasedFile ?? null
  const past = await PastDelivery.findAll({ where: { episodeId, until: { [Op.gt]: now } }, include: { model: AudioFile, as: 'file', attributes } })
  return past.find(({ file }) => deliveredName(file!) === name)?.file ?? null
}

const endings: Readonly<Record<string, string>> = { 'audio/mpeg': 'mp3', 'audio/mp4': 'm4a', 'image/jpeg': 'jpg', 'image/png': 'png', 'audio/wav': 'wav', 'audio/flac': 'flac', 'audio/ogg': 'ogg' }

/** The last part of the address of a delivered file: another content, another name. */
export const deliveredName = (file: { sha256: string; type: string }): string => `${file.sha256.slice(0, 16)}.${endings[file.type]}`
export const pictureName = (picture: { id: string; type: string }): string => `${picture.id}.${endings[picture.type]}`
