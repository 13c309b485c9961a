import { mostFeedBytes } from '@contract/feed'
import type { NamedAddress } from '@core/feed/addresses'
import { id3v2Length } from '@core/audio/mp3Frame'
import { mp3Opening } from '@core/audio/mp3Opening'
import { sniff } from '@core/audio/sniff'
import type { FeedAnswer, MetAddress } from '@core/feed/met'
import { amount } from '@core/words/amounts'
import type { Configuration } from '../../platform/configuration'
import { AppError } from '../../platform/http/errors'
import { readText, TooMuchText } from '../../platform/foreignText/run'
import { draw, PictureFailure } from '../../media/pictures/draw'
import { type RemoteAnswer, remoteFetcher } from '../../platform/outside/fetch'
import { Refusal } from '../../platform/refusal'

const patienceMs = 10_000
const atOnce = 6
/** As much of a file of sound as tells what it is and how long. */
const openingBytes = 16 * 1024
const leastBytes = 2 * 1024
const mostPictureBytes = 12_000_000
const mostTextBytes = 5_000_000

/** A feed as it answered, and how it answers otherwise. */
export interface AskedFeed {
  body: Buffer
  contentType: string
  /** Where it was in the end. */
  address: string
  answer: FeedAnswer
}

/** Asks feeds, and what they name, as apps and directories do: without credentials, and never in private networks. */
export function feedAsker(configuration: Pick<Configuration, 'fetchAllow' | 'publicUrl' | 'serverDir'>) {
  const own = new URL(configuration.publicUrl)
  const ownHost = `${own.hostname}:${own.port || (own.protocol === 'https:' ? 443 : 80)}`
  const fetchRemote = remoteFetcher([...configuration.fetchAllow, ownHost], patienceMs)
  const accept = { accept: 'application/rss+xml, application/xml, text/xml, */*;q=0.5' }

  /** Throws `feed-refused` where nothing answers there, or too much. */
  async function feed(address: string, signal: AbortSignal): Promise<AskedFeed> {
    const whole = await refusing(address, () =>
      fetchRemote(address, { mostBytes: mostFeedBytes + 1, headers: accept, signal }),
    )
    if (whole.body.length > mostFeedBytes)
      throw refused(address, `It is larger than ${amount(mostFeedBytes)}, which is as much of a feed as is read.`)
    const { headers, status } = whole
    const contentType = headers['content-type'] ?? ''
    const [conditional, compressed, head] = await Promise.all([
      conditionOf(whole, condition => fetchRemote(whole.address, { mostBytes: 1, headers: condition, signal })),
      quietly(() => fetchRemote(whole.address, { mostBytes: 1, headers: { 'accept-encoding': 'gzip, br' }, signal })),
      quietly(() => fetchRemote(whole.address, { method: 'HEAD', mostBytes: 0, signal })),
    ])
    return {
      body: whole.body,
      contentType,
      address: whole.address,
      answer: {
        status,
        contentType,
        cacheControl: headers['cache-control'] ?? '',
        hasEtag: headers.etag !== undefined,
        hasLastModified: headers['last-modified'] !== undefined,
        conditionalStatus: conditional?.status ?? null,
        isCompressed: compressed?.headers['content-encoding'] !== undefined,
        headStatus: head?.status ?? null,
        redirects: whole.via,
      },
    }
  }

  /** What answers at each of the addresses. */
  async function named(addresses: readonly NamedAddress[], signal: AbortSignal): Promise<Map<string, MetAddress>> {
    const met = new Map<string, MetAddress>()
    const next = addresses.values()
    const asking = Array.from({ length: atOnce }, async () => {
      for (const { address, as } of next) met.set(address, await meet(address, as, signal))
    })
    await Promise.all(asking)
    return met
  }

  async function meet(address: string, as: NamedAddress['as'], signal: AbortSignal): Promise<MetAddress> {
    try {
      if (as === 'audio') {
        const part = await opening(address, 0, signal)
        const head = await quietly(() => fetchRemote(address, { method: 'HEAD', mostBytes: 0, signal }))
        const total = /\/(\d+)$/.exec(part.headers['content-range'] ?? '')?.[1] ?? part.headers['content-length']
        return {
          ...metOf(part),
          ...(await soundOf(address, part, signal)),
          bytes: total === undefined ? null : Number(total),
          takesRanges: part.status === 206,
          headStatus: head?.status ?? null,
        }
      }
      const isPicture = as === 'artwork'
      const whole = await fetchRemote(address, { mostBytes: isPicture ? mostPictureBytes : mostTextBytes, signal })
      if (whole.status !== 200) return metOf(whole)
      if (isPicture) return { ...metOf(whole), picture: await pictureOf(whole.body) }
      return {
        ...metOf(whole),
        ...(await faultOf(`${as} fault`, whole.body)),
      }
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      return { ...nothing, problem: error.detail }
    }
  }

  const opening = (address: string, from: number, signal: AbortSignal): Promise<RemoteAnswer> =>
    fetchRemote(address, { range: { from, to: from + openingBytes - 1 }, mostBytes: openingBytes, signal })

  /** What a file of sound is, and how long, as far as its beginning tells; behind a tag with pictures that is another piece. */
  async function soundOf(
    address: string,
    part: RemoteAnswer,
    signal: AbortSignal,
  ): Promise<Pick<MetAddress, 'form' | 'durationMs'>> {
    const tagBytes = id3v2Length(part.body, 0)
    const isFurther = part.status === 206 && tagBytes > 0 && tagBytes + leastBytes > part.body.length
    const further = isFurther ? await quietly(() => opening(address, tagBytes, signal)) : null
    const bytes = further?.body ?? part.body
    const form = bytes.length < leastBytes ? 'unknown' : sniff(bytes)
    return {
      form: form === 'unknown' || form === 'empty' ? null : form,
      durationMs: form === 'mp3' ? (mp3Opening(bytes)?.durationMs ?? null) : null,
    }
  }

  async function faultOf(
    kind: 'transcript fault' | 'chapters fault',
    bytes: Buffer,
  ): Promise<Pick<MetAddress, 'fault' | 'form'>> {
    try {
      return await readText({ kind, bytes }, configuration)
    } catch (error) {
      if (error instanceof TooMuchText) return { fault: error.message, form: null }
      throw error
    }
  }

  async function pictureOf(bytes: Buffer): Promise<MetAddress['picture']> {
    try {
      return await draw({ kind: 'size', bytes }, configuration)
    } catch (error) {
      if (error instanceof PictureFailure) return null
      throw error
    }
  }

  return { feed, named }
}

const nothing: MetAddress = {
  status: null,
  problem: null,
  contentType: '',
  bytes: null,
  takesRanges: false,
  headStatus: null,
  redirects: 0,
  picture: null,
  form: null,
  durationMs: null,
  fault: null,
}

const metOf = ({ status, headers, redirects }: RemoteAnswer): MetAddress => ({
  ...nothing,
  status,
  contentType: headers['content-type'] ?? '',
  redirects,
})

/** Asks whether it has changed, by what it was given; null where nothing was. */
async function conditionOf(
  { headers, status }: RemoteAnswer,
  ask: (condition: Record<string, string>) => Promise<RemoteAnswer>,
): Promise<RemoteAnswer | null> {
  const { etag, 'last-modified': modified } = headers
  if (status !== 200 || (!etag && !modified)) return null
  return quietly(() => ask(etag ? { 'if-none-match': etag } : { 'if-modified-since': modified! }))
}

/** What does not answer a second time says nothing. */
async function quietly(ask: () => Promise<RemoteAnswer>): Promise<RemoteAnswer | null> {
  try {
    return await ask()
  } catch (error) {
    if (error instanceof Refusal) return null
    throw error
  }
}

async function refusing<T>(address: string, ask: () => Promise<T>): Promise<T> {
  try {
    return await ask()
  } catch (error) {
    if (error instanceof Refusal) throw refused(address, `${error.title}. ${error.detail}`)
    throw error
  }
}

const refused = (address: string, detail: string): AppError =>
  new AppError('feed-refused', detail, [{ field: 'address', value: address.slice(0, 80), rule: detail }])
