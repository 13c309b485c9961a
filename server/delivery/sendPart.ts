import { once } from 'node:events'
import type { ServerResponse } from 'node:http'
import type { OpenFile } from '../media/store'

/** So much is read, and kept in memory, at one go. */
const pieceBytes = 256 * 1024

/** Sends a part of a stored file as the body of an answer whose head is written; no more is read than the line takes. */
export async function sendPart(response: ServerResponse, file: OpenFile, { start, end }: { start: number; end: number }): Promise<void> {
  let at = start
  for (; end - at >= pieceBytes; at += pieceBytes) {
    const piece = await file.bytes(at, at + pieceBytes - 1)
    if (response.destroyed) return
    if (!response.write(piece)) await Promise.race([once(response, 'drain'), once(response, 'close')])
    if (response.destroyed) return
  }
  response.end(await file.bytes(at, end))
}
