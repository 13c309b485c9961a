import type { IncomingMessage, ServerResponse } from 'node:http'
import type { Source } from '@core/counting/count'
import { type Answer, answerTo } from '../../platform/storage/deliver'
import { headOf } from '../../platform/storage/head'
import { storedPieces } from '../../platform/storage/pieces'
import { publicAccess } from '../../platform/storage/publicAccess'
import { nosniff } from '../../platform/http/nosniff'
import type { Platform } from '../../platform/platform'
import { askerOf } from '../../platform/http/fastPath'
import type { Deliverable } from './deliverables'
import { sendPart } from './sendPart'

/** Sends files of episodes, or has the proxy in front send them, and notes what went out. */
export function mediaSender({
  media,
  deliveries,
  log,
  configuration: { mediaAccel, cacheBytes, trustProxy },
}: Pick<Platform, 'media' | 'deliveries' | 'log' | 'configuration'>) {
  const asker = askerOf(trustProxy)
  const pieces = storedPieces(media, cacheBytes)

  return {
    close: (): void => pieces.close(),
    send(
      request: IncomingMessage,
      response: ServerResponse,
      { episodeId, file, source }: { episodeId: string; file: Deliverable; source: Source },
    ): void {
      const shownAt = mediaAccel && media.shownAt(file.sha256)
      const { status, head, part } = shownAt ? handedOn(file, mediaAccel + shownAt) : answerTo(request, file, file.head)
      response.writeHead(status, [...head])
      const delivery = {
        kind: 'media' as const,
        showId: file.showId,
        episodeId,
        fileId: file.fileId,
        source,
        address: asker(request),
        status,
        part,
        isRange: status === 206,
      }
      const follow = (handedOver: number | null): void => deliveries.follow(delivery, request, response, handedOver)
      if (!part) {
        response.end()
        // A proxy asks by HEAD whether a file may go out, and notes by itself what went.
        if (!shownAt || request.method !== 'HEAD') follow(shownAt ? null : 0)
        return
      }
      const handedOver = sendPart(response, pieces, { sha256: file.sha256, fileBytes: file.bytes, ...part })
      if (typeof handedOver === 'number') follow(handedOver)
      else {
        handedOver
          .catch((error: unknown) => {
            log.error(error)
            response.destroy()
            return 0
          })
          .then(follow)
          .catch(error => log.error(error))
      }
    },
  }
}
export type MediaSender = ReturnType<typeof mediaSender>

const alongside = headOf({ ...publicAccess, ...nosniff })

/** Which file it is, for a proxy that sends it: conditions and ranges are the proxy's to look at. */
function handedOn({ type, cacheControl }: Deliverable, address: string): Answer {
  // Without a length the proxy would close the line behind each answer.
  const file = ['x-accel-redirect', address, 'content-length', '0', 'content-type', type, 'cache-control', cacheControl]
  return { status: 200, head: [...file, ...alongside], part: null }
}
