import { createHash, type Hash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { open } from 'node:fs/promises'
import { basename } from 'node:path'
import { pipeline, type Readable } from 'node:stream'
import { createGunzip } from 'node:zlib'
import { QueryTypes } from 'sequelize'
import { logReader } from '@core/counting/logs/reader'
import { logEntries } from '../../feed/delivery/logEntries'
import { transact } from '../../platform/database/transact'
import { keepLines, packed } from '../../platform/deliveries/lines'
import type { Platform } from '../../platform/platform'

/** So many bytes of whole lines are taken in at once. */
const bytesAtOnce = 512 * 1024
/** What goes on so long without an end is no line. */
const longestLine = 16 * bytesAtOnce
const newLine = 0x0a

/** How many lines of a log were new, and of those how many tell of audio of this house. */
export interface Brought {
  lines: number
  deliveries: number
}

/** What of a log was read before: its bytes, and their digest; null for nothing. */
interface Place {
  digest: string | null
  readBytes: number
}

/** Where another process brought something in, so that it must be looked again how far a log was read. */
export class BroughtElsewhere extends Error {
  override message = 'Another process is bringing in logs; try again when it has ended.'
}

/**
 * Brings in logs of proxies and delivery networks, also compressed by gzip, each line once: how far a log was read is written down
 * together with what was read, by the digest of all before, whatever the file is called by then.
 */
export function logBringer(platform: Pick<Platform, 'database' | 'clock' | 'askers'>) {
  const { database, clock } = platform

  /** How far a log was read, and how many lines all logs had by then. */
  async function placeIn(path: string): Promise<[place: Place, linesOfAll: number]> {
    const known = await database.query<{ digest: string; readBytes: number | bigint; lines: number }>(
      'SELECT digest, read_bytes AS readBytes, line_count AS `lines` FROM brought_logs ORDER BY read_bytes',
      { type: QueryTypes.SELECT },
    )
    const digests = new Set(known.map(({ digest }) => digest))
    const ends = [...new Set(known.map(({ readBytes }) => Number(readBytes)))]
    const hash = createHash('sha256')
    let place: Place = { digest: null, readBytes: 0 }
    let begin = 0
    for await (const chunk of contentOf(path)) {
      let from = 0
      while (ends.length > 0 && ends[0]! <= begin + chunk.length) {
        const end = ends.shift()! - begin
        hash.update(chunk.subarray(from, end))
        from = end
        const digest = digestOf(hash)
        if (digests.has(digest)) place = { digest, readBytes: begin + end }
      }
      if (ends.length === 0) break
      hash.update(chunk.subarray(from))
      begin += chunk.length
    }
    return [place, known.reduce((sum, { lines }) => sum + lines, 0)]
  }

  /** Takes some lines in, and writes down how far that is. */
  async function take(
    lines: readonly string[],
    readLine: ReturnType<typeof logReader>,
    [before, after]: [Place, Place],
    linesOfAll: number,
    name: string,
  ) {
    const read = lines.flatMap(line => readLine(line) ?? [])
    return transact(database, async transaction => {
      // Every log that is brought in has lines, so others that brought something in meanwhile show in the sum.
      const [all] = await database.query<{ many: string | number }>(
        'SELECT COALESCE(SUM(line_count), 0) AS many FROM brought_logs FOR UPDATE',
        { type: QueryTypes.SELECT, transaction },
      )
      if (Number(all!.many) !== linesOfAll) throw new BroughtElsewhere()
      const entries = await logEntries(platform, read, transaction)
      await database.query(
        before.digest === null
          ? 'INSERT INTO brought_logs (name, line_count, delivery_count, at, digest, read_bytes) VALUES (:name, :lines, :deliveries, :now, :digest, :readBytes)'
          : `UPDATE brought_logs SET name = :name, line_count = line_count + :lines, delivery_count = delivery_count + :deliveries,
              at = :now, digest = :digest, read_bytes = :readBytes WHERE digest = :before`,
        {
          replacements: {
            ...after,
            name,
            lines: lines.length,
            deliveries: entries.length,
            now: clock.now(),
            before: before.digest,
          },
          transaction,
        },
      )
      for (const batch of packed(entries)) await keepLines(database, clock.now(), batch, transaction)
      return entries.length
    })
  }

  return {
    /** Brings in what is new in a file. The line that it ends in the midst of is left for the next time. Throws `BroughtElsewhere`. */
    async bring(path: string): Promise<Brought> {
      let [place, linesOfAll] = await placeIn(path)
      const brought: Brought = { lines: 0, deliveries: 0 }
      const readLine = logReader()
      const hash = createHash('sha256')
      let [begin, waiting] = [0, Buffer.alloc(0)]
      const takeLines = async (): Promise<void> => {
        const whole = waiting.lastIndexOf(newLine) + 1
        if (whole === 0) {
          if (waiting.length > longestLine) throw new Error(`${basename(path)} has no lines, so it is no log.`)
          return
        }
        // As Node reads headers, each byte is a character.
        const lines = waiting
          .subarray(0, whole - 1)
          .toString('latin1')
          .split('\n')
        hash.update(waiting.subarray(0, whole))
        const after = { digest: digestOf(hash), readBytes: place.readBytes + whole }
        brought.deliveries += await take(lines, readLine, [place, after], linesOfAll, basename(path))
        brought.lines += lines.length
        linesOfAll += lines.length
        place = after
        waiting = Buffer.from(waiting.subarray(whole))
      }
      const readBefore = place.readBytes
      for await (const chunk of contentOf(path)) {
        const known = chunk.subarray(0, Math.max(0, readBefore - begin))
        hash.update(known)
        // The directives of a log stand at its head.
        if (begin === 0)
          for (const line of known.toString('latin1').split('\n')) if (line.startsWith('#')) readLine(line)
        begin += chunk.length
        waiting = Buffer.concat([waiting, chunk.subarray(known.length)])
        if (waiting.length >= bytesAtOnce) await takeLines()
      }
      await takeLines()
      return brought
    },
  }
}

const digestOf = (hash: Hash): string => hash.copy().digest('hex')

/** What is in a file, decompressed where it is gzip by its first bytes. */
async function* contentOf(path: string): AsyncGenerator<Buffer> {
  const file = await open(path)
  const head = Buffer.alloc(2)
  try {
    await file.read(head, 0, 2, 0)
  } finally {
    await file.close()
  }
  const bytes = createReadStream(path, { highWaterMark: 256 * 1024 })
  const isGzip = head[0] === 0x1f && head[1] === 0x8b
  const stream: Readable = isGzip ? pipeline(bytes, createGunzip(), () => undefined) : bytes
  for await (const chunk of stream) yield chunk as Buffer
}
