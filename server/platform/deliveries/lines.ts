import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import { LRUCache } from 'lru-cache'
import type { Sequelize, Transaction } from 'sequelize'

/** An entry of the log of deliveries. */
export interface DeliveryEntry {
  at: Date
  kind: 'media' | 'feed'
  showId: string
  episodeId: string | null
  status: number
  /** Null where a proxy sent them. */
  bytesSent: number | null
  /** Both included; null where the whole was asked for. */
  range: { start: number; end: number } | null
  agent: string
  /** Without its end. */
  address: string
  /** How many such answers the same program at the same address got within a second or so; not told where that is one. */
  times?: number
}

type Line = [
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
/** What a line can come to: the longest agent, each of its characters as an escape of six, and room for the rest. */
const longestAgent = 255
const longestLine = 6 * longestAgent + 500

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

  add({ at, kind, showId, episodeId, status, bytesSent, range, agent, address, times }: DeliveryEntry): void {
    const episode = episodeId ? `"${episodeId}"` : 'null'
    const bounds = range ? `[${range.start},${range.end}]` : 'null'
    const more = times === undefined ? '' : `,${times}`
    this.used += this.bytes.write(
      `[${+at},"${kind}","${showId}",${episode},${status},${bytesSent},${bounds},${quotedAgent(agent)},"${address}"${more}]\n`,
      this.used,
    )
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

const quoted = new LRUCache<string, string>({ max: 5_000 })

function quotedAgent(agent: string): string {
  let known = quoted.get(agent)
  if (known === undefined) {
    known = JSON.stringify(agent.slice(0, longestAgent))
    quoted.set(agent, known)
  }
  return known
}

/** The entries of a batch. */
export async function unpack(packed: Buffer): Promise<DeliveryEntry[]> {
  const lines = (await promisify(gunzip)(packed)).toString().trimEnd().split('\n')
  return lines.map(line => {
    const [at, kind, showId, episodeId, status, bytesSent, range, agent, address, times] = JSON.parse(line) as Line
    return {
      at: new Date(at),
      kind,
      showId,
      episodeId,
      status,
      bytesSent,
      range: range && { start: range[0], end: range[1] },
      agent,
      address,
      ...(times !== undefined && { times }),
    }
  })
}
