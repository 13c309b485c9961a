import { open, stat } from 'node:fs/promises'
import { hostname } from 'node:os'
import { QueryTypes, type Transaction } from 'sequelize'
import { transact } from '../../platform/database/transact'
import type { Platform } from '../../platform/platform'
import { repeat, type Repeated } from '../../platform/repeat'
import { logReader } from '@core/counting/logs/reader'
import { keepLines, packed } from '../../platform/deliveries/lines'
import { logEntries } from './logEntries'

const everyMs = 2_000
const mostBytesAtOnce = 4 * 1024 * 1024
const newLine = 0x0a
/** Of lines that stand for themselves, as deploy/nginx.conf has nginx write them. */
const readLine = logReader()
/** A log that was put aside gets what its proxy still held back, and is done when it has been quiet for so long. */
const quietMs = 3_000

/** How far a log was read: `readBytes` of the file that `inode` is. */
interface Place {
  inode: string
  readBytes: number
}

/**
 * Takes what a proxy noted of its deliveries into the log of deliveries, each line once: how far it has read is written down
 * together with what it read. The log may be put aside as `….1` and begun anew at any time, as logrotate does.
 */
export function proxyLog(platform: Pick<Platform, 'database' | 'clock' | 'askers'>, path: string) {
  const { database, clock } = platform
  const name = `${hostname()}:${path}`

  /** Takes in the next lines; tells whether there may be more. */
  async function readNext(transaction: Transaction): Promise<boolean> {
    const [row] = await database.query<{ inode: string; readBytes: string | number }>(
      'SELECT inode, read_bytes AS readBytes FROM proxy_logs WHERE name = ? FOR UPDATE SKIP LOCKED',
      { replacements: [name], type: QueryTypes.SELECT, transaction },
    )
    // Another process is at it.
    if (!row) return false
    const place = { inode: row.inode, readBytes: Number(row.readBytes) }
    const chunk = await nextChunk(path, place)
    if (!chunk) return false
    const entries = await logEntries(
      platform,
      chunk.lines.flatMap(line => readLine(line) ?? []),
      transaction,
    )
    for (const batch of packed(entries)) await keepLines(database, clock.now(), batch, transaction)
    await database.query('UPDATE proxy_logs SET inode = ?, read_bytes = ? WHERE name = ?', {
      replacements: [chunk.now.inode, chunk.now.readBytes, name],
      transaction,
    })
    return true
  }

  return {
    /** Takes in all that was noted since. */
    async read(): Promise<void> {
      await database.query('INSERT IGNORE INTO proxy_logs (name, inode, read_bytes) VALUES (?, 0, 0)', {
        replacements: [name],
      })
      while (await transact(database, readNext));
    },
  }
}

/** Looks into the proxy's log every two seconds. */
export function startProxyLog(
  platform: Pick<Platform, 'database' | 'clock' | 'askers'>,
  path: string,
  report: (error: unknown) => void,
): Repeated {
  const log = proxyLog(platform, path)
  return repeat(everyMs, () => log.read(), report)
}

/** The whole lines behind a place, and the place behind them; null where there is nothing new. */
async function nextChunk(path: string, { inode, readBytes }: Place): Promise<{ lines: string[]; now: Place } | null> {
  const current = await inodeOf(path)
  const aside = current !== inode && (await inodeOf(`${path}.1`)) === inode ? `${path}.1` : null
  if (aside) {
    const rest = await linesFrom(aside, readBytes)
    if (rest) return { lines: rest.lines, now: { inode, readBytes: rest.end } }
    if (Date.now() - (await stat(aside)).mtimeMs < quietMs) return null
  }
  if (!current) return null
  const begin = current === inode ? readBytes : 0
  const found = await linesFrom(path, begin)
  return found && { lines: found.lines, now: { inode: current, readBytes: found.end } }
}

async function linesFrom(path: string, begin: number): Promise<{ lines: string[]; end: number } | null> {
  const file = await open(path)
  try {
    const { size } = await file.stat()
    // A log that was cut off at its beginning begins again.
    const start = size < begin ? 0 : begin
    const buffer = Buffer.allocUnsafe(Math.min(mostBytesAtOnce, size - start))
    const { bytesRead } = await file.read(buffer, 0, buffer.length, start)
    // As Node reads headers, each byte is a character.
    const whole = buffer.subarray(0, bytesRead).lastIndexOf(newLine) + 1
    if (whole > 0)
      return {
        lines: buffer
          .subarray(0, whole - 1)
          .toString('latin1')
          .split('\n'),
        end: start + whole,
      }
    // What fills all the room without an end is no line of ours.
    return bytesRead === mostBytesAtOnce ? { lines: [], end: start + bytesRead } : null
  } finally {
    await file.close()
  }
}

async function inodeOf(path: string): Promise<string | null> {
  try {
    return String((await stat(path, { bigint: true })).ino)
  } catch {
    return null
  }
}
