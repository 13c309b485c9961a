import type { FastifyReply, FastifyRequest } from 'fastify'
import { AppError } from '../errors'
import { deliver } from '../media/deliver'
import type { MediaStore } from '../media/store'
import { Picture } from './models'
import { pictureName } from './names'

const parts = /^([0-9a-f]{64})(?:-(\d{2,4}))?\.(jpg|png)$/

/** Sends the picture of a name such as `{id}.jpg`, or `{id}-160.jpg` for a smaller one; the whole where there is no smaller one. */
export async function deliverPicture(
  request: FastifyRequest,
  reply: FastifyReply,
  media: MediaStore,
  name: string,
  isFor: 'everybody' | 'the studio',
): Promise<FastifyReply> {
  const [, id, px, ending] = parts.exec(name) ?? []
  const picture = id ? await Picture.findByPk(id) : null
  if (!picture || pictureName(picture) !== `${id}.${ending}` || (isFor === 'everybody' && !picture.isPublic))
    throw new AppError('not-found', 'There is no such picture.')
  const form = (px && picture.smaller?.[px]) || { sha256: picture.id, bytes: picture.bytes }
  const keep = isFor === 'everybody' ? 'public' : 'private'
  return deliver(request, reply, media, {
    ...form,
    bytes: Number(form.bytes),
    type: picture.type,
    lastModified: picture.createdAt,
    cacheControl: `${keep}, max-age=31536000, immutable`,
  })
}
