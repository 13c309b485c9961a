import type { ServerResponse } from 'node:http'
import { pieceBytes, type StoredPieces } from '../../platform/storage/pieces'

/** So much may wait for the line before it is waited for; the pieces are shared, so what waits takes no memory of its own. */
const mostWaitingBytes = 1024 * 1024

/** What is sent: bytes of a stored file from `start` to `end`, both included. */
export interface Part {
  sha256: string
  fileBytes: number
  start: number
  end: number
}

/** Sends a part of a stored file as the body of an answer whose head is written. Answers how many bytes were handed to the line. */
export function sendPart(response: ServerResponse, pieces: StoredPieces, part: Part): number | Promise<number> {
  const { sha256, fileBytes, start, end } = part
  const index = Math.floor(start / pieceBytes)
  const piece = pieces.piece(sha256, index, fileBytes)
  // Most are short and in memory.
  if (!Buffer.isBuffer(piece) || end >= (index + 1) * pieceBytes) return sendLong(response, pieces, part)
  response.end(within(piece, index, start, end))
  return end - start + 1
}

async function sendLong(
  response: ServerResponse,
  pieces: StoredPieces,
  { sha256, fileBytes, start, end }: Part,
): Promise<number> {
  let handedOver = 0
  const last = Math.floor(end / pieceBytes)
  for (let index = Math.floor(start / pieceBytes); index <= last; index++) {
    const known = pieces.piece(sha256, index, fileBytes)
    const piece = within(Buffer.isBuffer(known) ? known : await known, index, start, end)
    if (response.destroyed) return handedOver
    handedOver += piece.length
    if (index === last) response.end(piece)
    else {
      response.write(piece)
      if (response.writableLength > mostWaitingBytes) await drained(response)
    }
  }
  return handedOver
}

const within = (piece: Buffer, index: number, start: number, end: number): Buffer =>
  piece.subarray(Math.max(0, start - index * pieceBytes), Math.min(pieceBytes, end + 1 - index * pieceBytes))

/** Resolves when the line has taken what waited, or is gone. */
function drained(response: ServerResponse): Promise<void> {
  return new Promise(resolve => {
    const done = (): void => {
      response.off('drain', done).off('close', done)
      resolve()
    }
    response.once('drain', done).once('close', done)
  })
}
