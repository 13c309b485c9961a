import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import { LRUCache } from 'lru-cache'
import type { Sequelize, Transaction } from 'sequelize'
import type { Source } from '@core/counting/count'
import { longestAgent } from '@core/counting/programs'
import type { Listener } from './listener'
import { longestPlace } from './places'

/** An entry of the log of deliveries. */
export interface DeliveryEntry extends Listener {
  at: Date
  kind: 'media' | 'feed'
  showId: string
  episodeId: string | null
  /** Null for a feed, and in old lines. */
  fileId: string | null
  method: 'GET' | 'HEAD'
  status: number
  /** Null where a proxy sent them. */
  bytesSent: number | null
  /** Both included; null where the whole was asked for. */
  range: { start: number; end: number } | null
  agent: string
  source: Source
  /** Whether a browser said that nobody had pressed anything yet. */
  isPrefetch: boolean
  /** Of an old line: who is told by the neighbourhood of an address, and one neighbourhood is one listener. */
  isCoarse?: true
  /** How many such answers the same program at the same address got within a second or so; not told where that is one. */
  times?: number
}

/** An answer that went out, before whom it went to is told from the address. */
export type Noted = Omit<DeliveryEntry, keyof Listener> & { address: string }

type Line = [
  at: number,
  kind: DeliveryEntry['kind'],
  showId: string,
  episodeId: string | null,
  status: number,
  bytesSent: number | null,
  range: [number, number] | null,
  agent: string,
  who: string,
  times: number,
  fileId: string | null,
  method: DeliveryEntry['method'],
  source: Source,
  place: string | null,
  isHosted: 0 | 1,
  isPrefetch: 0 | 1,
]
/** As lines were when they had an address without its end instead of who asked, and nothing behind. */
type OldLine = readonly unknown[]

const batchBytes = 512 * 1024
/** What a line can come to: the longest agent and place, each of their characters as an escape of six, and room for the rest. */
const longestLine = 6 * (longestAgent + longestPlace) + 500

/**
 * Entries of a batch as they are kept: a line of JSON for each, its values in a fixed order. Each becomes bytes at once:
 * tens of thousands a second that lived on as objects until they are written would keep the collector busy.
 */
export class Lines {
  private readonly bytes = Buffer.allocUnsafe(batchBytes)
  private used = 0
  count = 0

  get isFull(): boolean {
    return batchBytes - this.used < longestLine
  }

  add(entry: DeliveryEntry): void {
    const { at, kind, showId, status, bytesSent, range, agent, who, times = 1, method, source } = entry
    const bounds = range ? `[${range.start},${range.end}]` : 'null'
    const asked = `"${showId}",${quotedId(entry.episodeId)},${status},${bytesSent},${bounds}`
    const asker = `${quoted(agent.slice(0, longestAgent))},"${who}",${times}`
    const rest = `"${method}","${source}",${entry.place ? quoted(entry.place) : 'null'},${+entry.isHosted},${+entry.isPrefetch}`
    this.used += this.bytes.write(`[${+at},"${kind}",${asked},${asker},${quotedId(entry.fileId)},${rest}]\n`, this.used)
    this.count++
  }

  /** All of it, compressed by gzip. */
  pack(): Promise<Buffer> {
    return promisify(gzip)(this.bytes.subarray(0, this.used), { level: 1 })
  }
}

/** Writes a batch down. */
export async function keepLines(
  database: Sequelize,
  at: Date,
  lines: Lines,
  transaction: Transaction | null = null,
): Promise<void> {
  await database.query('INSERT INTO delivery_log (at, entries, packed) VALUES (?, ?, ?)', {
    replacements: [at, lines.count, await lines.pack()],
    transaction,
  })
}

/** Entries in as many batches as they need. */
export function packed(entries: readonly DeliveryEntry[]): Lines[] {
  const batches: Lines[] = []
  for (const entry of entries) {
    if (batches.length === 0 || batches.at(-1)!.isFull) batches.push(new Lines())
    batches.at(-1)!.add(entry)
  }
  return batches
}

const known = new LRUCache<string, string>({ max: 5_000 })

function quoted(text: string): string {
  let json = known.get(text)
  if (json === undefined) {
    json = JSON.stringify(text)
    known.set(text, json)
  }
  return json
}

const quotedId = (id: string | null): string => (id ? `"${id}"` : 'null')

/** The entries of a batch. */
export async function unpack(packed: Buffer): Promise<DeliveryEntry[]> {
  const lines = (await promisify(gunzip)(packed)).toString().trimEnd().split('\n')
  return lines.map(line => read(JSON.parse(line) as Line | OldLine))
}

function read(line: Line | OldLine): DeliveryEntry {
  const [at, kind, showId, episodeId, status, bytesSent, range, agent, who, times = 1] = line as Line
  const entry = {
    at: new Date(at),
    kind,
    showId,
    episodeId,
    status,
    bytesSent,
    range: range && { start: range[0], end: range[1] },
    agent,
    ...(times > 1 && { times }),
  }
  if (line.length < 11) return { ...entry, ...oldOnes(agent, who) }
  const [, , , , , , , , , , fileId, method, source, place, isHosted, isPrefetch] = line as Line
  return { ...entry, who, fileId, method, source, place, isHosted: isHosted === 1, isPrefetch: isPrefetch === 1 }
}

/** What is told of an old line, which had the neighbourhood of an address for who asked. */
const oldOnes = (agent: string, neighbourhood: string) => ({
  who: createHash('sha256').update(`${neighbourhood} ${agent}`).digest('hex').slice(0, 16),
  isCoarse: true as const,
  fileId: null,
  method: 'GET' as const,
  source: 'feed' as const,
  place: null,
  isHosted: false,
  isPrefetch: false,
})
