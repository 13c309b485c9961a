import type { FastifyReply, FastifyRequest } from 'fastify'
import { AppError } from '../../platform/http/errors'
import { deliver } from '../../platform/storage/deliver'
import type { MediaStore } from '../../platform/storage/store'
import { Picture } from './models'
import type { WebForms } from './webForms'
import { pictureName } from './names'

const parts = /^([0-9a-f]{64})(?:-(\d{2,4}))?\.(jpg|png|webp)$/

/** Sends the picture of a name such as `{id}.jpg`, or `{id}-160.jpg` for a smaller one, the whole where there is no smaller one; or `{id}-160.webp`. */
export async function deliverPicture(
  request: FastifyRequest,
  reply: FastifyReply,
  media: MediaStore,
  forms: WebForms,
  name: string,
  isFor: 'everybody' | 'the studio',
): Promise<FastifyReply> {
  const [, id, px, ending] = parts.exec(name) ?? []
  const picture = id ? await Picture.findByPk(id) : null
  if (!picture || (isFor === 'everybody' && !picture.isPublic)) throw noSuchPicture()
  const isWeb = ending === 'webp'
  if (!isWeb && pictureName(picture) !== `${id}.${ending}`) throw noSuchPicture()
  const whole = { sha256: picture.id, bytes: picture.bytes }
  const form = isWeb ? await forms.of(picture, Number(px)) : (px && picture.smaller?.[px]) || whole
  if (!form) throw noSuchPicture()
  const keep = isFor === 'everybody' ? 'public' : 'private'
  return deliver(request, reply, media, {
    ...form,
    bytes: Number(form.bytes),
    type: isWeb ? 'image/webp' : picture.type,
    lastModified: picture.createdAt,
    cacheControl: `${keep}, max-age=31536000, immutable`,
  })
}

const noSuchPicture = (): AppError => new AppError('not-found', 'There is no such picture.')
