import { createHash, randomBytes } from 'node:crypto'
import type { FastifyPluginAsync } from 'fastify'
import { AppError } from '../../platform/http/errors'
import { AudioFile, deliveryOf } from '../../media/files/models'
import { deliver } from '../../platform/storage/deliver'
import type { Platform } from '../../platform/platform'
import { TranscriptDraft } from './models'

/** A secret that opens one sound for as long as its draft is worked on, and what is kept of it (OWASP session management: 128 bits at least). */
export function newToken(): { token: string; hash: string } {
  const token = randomBytes(32).toString('base64url')
  return { token, hash: hashOf(token) }
}
const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex')

export const lentAddress = (publicUrl: string, token: string, file: Pick<AudioFile, 'name'>): string =>
  `${publicUrl}/api/v1/lent/${token}/sound${/\.[a-z0-9]{2,4}$/i.exec(file.name)?.[0].toLowerCase() ?? ''}`

/** Sounds that are not released yet, for the copyist that was asked to write them down, and nobody else. */
export const lentRoutes =
  ({ media }: Platform): FastifyPluginAsync =>
  async app => {
    app.route<{ Params: { token: string; name: string } }>({
      method: ['GET', 'HEAD'],
      url: '/lent/:token/:name',
      config: { access: 'anyone' },
      async handler(request, reply) {
        const tokenHash = hashOf(request.params.token)
        const draft = await TranscriptDraft.findOne({ where: { tokenHash, state: 'working' }, attributes: ['fileId'] })
        const file = draft && (await AudioFile.findByPk(draft.fileId))
        if (!file || file.address) throw new AppError('not-found', 'Nothing is lent at this address.')
        return deliver(request, reply, media, deliveryOf(file, 'private, no-store'))
      },
    })
  }
