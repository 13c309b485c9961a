import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import type { Sequelize, Transaction } from 'sequelize'
import { type Source, sources } from '@core/counting/count'
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
  /** Whether it is an old line, by which all in one neighbourhood are one listener. */
  isCoarse: boolean
  /** How many such answers the same program at the same address got within a second or so. */
  times: number
}

/** An answer that went out, without to whom. */
type Answered = Omit<DeliveryEntry, keyof Listener | 'isCoarse'>
/** Before whom it went to is told from the address. */
export type Noted = Answered & { address: string }

/**
 * Numbers in a fixed order; what is text stands in the batch once, before it is first used, and is told by its place among all
 * texts. -1 stands for null.
 */
type Line = [
  at: number,
  kind: number,
  showId: number,
  episodeId: number,
  fileId: number,
  agent: number,
  who: number,
  place: number,
  status: number,
  bytesSent: number,
  start: number,
  end: number,
  times: number,
  source: number,
  flags: number,
]
const kinds = ['media', 'feed'] as const
const flagOf = { head: 1, hosted: 2, prefetch: 4 }

/** As lines were when they had an address without its end instead of who asked. */
type OldLine = [
  at: number,
  kind: DeliveryEntry['kind'],
  showId: string,
  episodeId: string | null,
  status: number,
  bytesSent: number | null,
  range: [number, number] | null,
  agent: string,
  address: string,
  times?: number,
]

const batchBytes = 512 * 1024
/** What a line can come to: the longest agent and place, each of their characters as an escape of six, and room for the rest. */
const longestLine = 6 * (longestAgent + longestPlace) + 700

/**
 * Entries of a batch as they are kept: a line of JSON for each, and for each text that is new. Each becomes bytes at once: tens of
 * thousands a second that lived on as objects until they are written would keep the collector busy.
 */
export class Lines {
  private readonly bytes = Buffer.allocUnsafe(batchBytes)
  private readonly texts = new Map<string, number>()
  private used = 0
  count = 0

  get isFull(): boolean {
    return batchBytes - this.used < longestLine
  }

  add(entry: Answered, { who, place, isHosted, agent }: Listener & Pick<Answered, 'agent'>): void {
    const { at, kind, showId, episodeId, fileId, status, bytesSent, range, times, source } = entry
    const texts = `${this.text(showId)},${this.text(episodeId)},${this.text(fileId)},${this.text(agent.slice(0, longestAgent))},${this.text(who)},${this.text(place)}`
    const sent = `${status},${bytesSent ?? -1},${range ? range.start : -1},${range ? range.end : -1},${times}`
    const flags =
      (entry.method === 'HEAD' ? flagOf.head : 0) |
      (isHosted ? flagOf.hosted : 0) |
      (entry.isPrefetch ? flagOf.prefetch : 0)
    this.write(`[${+at},${kinds.indexOf(kind)},${texts},${sent},${sources.indexOf(source)},${flags}]\n`)
    this.count++
  }

  /** All of it, compressed by gzip. */
  pack(): Promise<Buffer> {
    return promisify(gzip)(this.bytes.subarray(0, this.used), { level: 1 })
  }

  private text(text: string | null): number {
    if (text === null) return -1
    let place = this.texts.get(text)
    if (place === undefined) {
      place = this.texts.size
      this.texts.set(text, place)
      this.write(`${JSON.stringify(text)}\n`)
    }
    return place
  }

  private write(line: string): void {
    this.used += this.bytes.write(line, this.used)
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
    batches.at(-1)!.add(entry, entry)
  }
  return batches
}

/** The entries of a batch. */
export async function unpack(packed: Buffer): Promise<DeliveryEntry[]> {
  const lines = (await promisify(gunzip)(packed)).toString().trimEnd()
  const entries: DeliveryEntry[] = []
  const texts: string[] = []
  // Within a line an end of a line is always an escape.
  for (const line of JSON.parse(`[${lines.replaceAll('\n', ',')}]`) as (string | Line | OldLine)[]) {
    if (typeof line === 'string') texts.push(line)
    else entries.push(isOld(line) ? readOld(line) : read(line, texts))
  }
  return entries
}

const isOld = (line: Line | OldLine): line is OldLine => typeof line[1] === 'string'

function read(line: Line, texts: readonly string[]): DeliveryEntry {
  const [at, kind, show, episode, file, agent, who, place, status, sent, start, end, times, source, flags] = line
  return {
    at: new Date(at),
    kind: kinds[kind]!,
    showId: texts[show]!,
    episodeId: episode < 0 ? null : texts[episode]!,
    fileId: file < 0 ? null : texts[file]!,
    method: flags & flagOf.head ? 'HEAD' : 'GET',
    status,
    bytesSent: sent < 0 ? null : sent,
    range: start < 0 ? null : { start, end },
    agent: texts[agent]!,
    who: texts[who]!,
    place: place < 0 ? null : texts[place]!,
    source: sources[source]!,
    isHosted: (flags & flagOf.hosted) > 0,
    isPrefetch: (flags & flagOf.prefetch) > 0,
    isCoarse: false,
    times,
  }
}

/** Who asked is told by the neighbourhood of an address. */
function readOld([
  at,
  kind,
  showId,
  episodeId,
  status,
  bytesSent,
  range,
  agent,
  address,
  times = 1,
]: OldLine): DeliveryEntry {
  return {
    at: new Date(at),
    kind,
    showId,
    episodeId,
    fileId: null,
    method: 'GET',
    status,
    bytesSent,
    range: range && { start: range[0], end: range[1] },
    agent,
    who: createHash('sha256').update(`${address} ${agent}`).digest('hex').slice(0, 16),
    place: null,
    source: 'feed',
    isHosted: false,
    isPrefetch: false,
    isCoarse: true,
    times,
  }
}
