import { lookup as lookUp, type LookupAddress } from 'node:dns'
import { type IncomingMessage, request as requestHttp } from 'node:http'
import { request as requestHttps } from 'node:https'
import { isIP, type LookupFunction } from 'node:net'
import ipaddr from 'ipaddr.js'
import { Refusal } from '../refusal'

/** What keeps an address from being asked now says nothing of the address. */
export class NotNow extends Refusal {}

const mostRedirects = 5
const usualPatienceMs = 10_000

/** An answer from an address of the outside world: its head, and its body up to what was asked for. */
export interface RemoteAnswer {
  status: number
  headers: IncomingMessage['headers']
  body: Buffer
  /** Where it came from in the end, and over which redirects. */
  address: string
  redirects: number
  via: readonly { status: number; to: string }[]
}

export interface RemoteRequest {
  method?: 'GET' | 'HEAD'
  range?: { from: number; to: number }
  mostBytes: number
  /** What is asked beside, such as whether it has changed. */
  headers?: Readonly<Record<string, string>>
  /** Takes the body piece by piece, which then is not kept; false where it has seen enough. */
  onBytes?: (chunk: Buffer) => boolean
  /** Looks at where a redirect leads, before that is asked; what it throws ends the request. */
  onRedirect?: (address: string) => Promise<void>
  /** Ends the request, whatever it is doing. */
  signal?: AbortSignal
}

/**
 * Fetches as a listening app would, without credentials, and never from private, loopback or link-local addresses
 * (OWASP SSRF prevention cheat sheet): what a name stands for is checked where the connection is made, so neither a
 * redirect nor a name that changes its meaning leads there. `allow` lists hosts with ports that are let through.
 */
export function remoteFetcher(allow: readonly string[], patienceMs = usualPatienceMs) {
  function mayReach(address: string, url: URL): boolean {
    if (allow.includes(`${url.hostname}:${url.port || (url.protocol === 'https:' ? 443 : 80)}`)) return true
    const parsed = ipaddr.process(address)
    return parsed.range() === 'unicast'
  }

  function checkedLookup(url: URL): LookupFunction {
    return (hostname, options, callback) =>
      lookUp(hostname, { ...options, all: true }, (error, addresses: LookupAddress[]) => {
        if (error) return callback(error, '')
        if (addresses.some(({ address }) => !mayReach(address, url))) return callback(notPublic(url), '')
        if (options.all) (callback as unknown as (error: null, all: LookupAddress[]) => void)(null, addresses)
        else callback(null, addresses[0]!.address, addresses[0]!.family)
      })
  }

  function once(
    url: URL,
    { method = 'GET', range, mostBytes, headers: also, onBytes, signal }: RemoteRequest,
  ): Promise<Omit<RemoteAnswer, 'address' | 'redirects' | 'via'>> {
    const host = url.hostname.replace(/^\[|\]$/g, '')
    if (isIP(host) && !mayReach(host, url)) throw notPublic(url)
    return new Promise((resolve, reject) => {
      const headers = {
        'user-agent': 'Lake Letter',
        accept: 'audio/*, */*;q=0.5',
        'accept-encoding': 'identity',
        ...(range && { range: `bytes=${range.from}-${range.to}` }),
        ...also,
      }
      const outgoing = (url.protocol === 'https:' ? requestHttps : requestHttp)(url, {
        method,
        headers,
        lookup: checkedLookup(url),
        agent: false,
        signal,
      })
      const timer = setTimeout(() => outgoing.destroy(neverAnswered(url, patienceMs)), patienceMs)
      const end = (act: () => void): void => {
        clearTimeout(timer)
        act()
        outgoing.destroy()
      }
      outgoing.on('error', error => end(() => reject(failureOf(url, error, signal))))
      outgoing.once('response', incoming => {
        const parts: Buffer[] = []
        let bytes = 0
        const done = (): void =>
          end(() =>
            resolve({
              status: incoming.statusCode ?? 0,
              headers: incoming.headers,
              body: Buffer.concat(parts).subarray(0, mostBytes),
            }),
          )
        incoming.on('data', (chunk: Buffer) => {
          timer.refresh()
          bytes += chunk.length
          if (!onBytes) parts.push(chunk)
          if ((onBytes && !onBytes(chunk)) || bytes >= mostBytes) done()
        })
        incoming.once('end', done)
        incoming.on('error', error => end(() => reject(failureOf(url, error, signal))))
      })
      outgoing.end()
    })
  }

  return async function fetchRemote(address: string, asked: RemoteRequest): Promise<RemoteAnswer> {
    let url = readAddress(address)
    const via: { status: number; to: string }[] = []
    for (let redirects = 0; ; redirects++) {
      asked.signal?.throwIfAborted()
      const answer = await once(url, asked)
      const { location } = answer.headers
      if (answer.status < 300 || answer.status >= 400 || !location)
        return { ...answer, address: url.href, redirects, via }
      if (redirects === mostRedirects)
        throw new Refusal(
          'The address leads on and on',
          `${address} was redirected more than ${mostRedirects} times.`,
          'Give the address of the file itself.',
        )
      if (!URL.canParse(location, url))
        throw new Refusal(
          'The address leads to none',
          `${url.host} sends on to “${location.slice(0, 80)}”, which is no address.`,
          'Give the address of the file itself.',
        )
      url = readAddress(new URL(location, url).href)
      via.push({ status: answer.status, to: url.href })
      await asked.onRedirect?.(url.href)
    }
  }
}

/** Reads an address that a person named. Throws a Refusal that says what is wrong with it. */
export function readAddress(address: string): URL {
  const url = URL.canParse(address) ? new URL(address) : null
  if (!url || !/^https?:$/.test(url.protocol))
    throw new Refusal(
      'This is no web address',
      `“${address.slice(0, 80)}” does not begin with http:// or https://.`,
      'Copy the address of the file from its host.',
    )
  if (url.username || url.password)
    throw new Refusal(
      'The address holds a password',
      `${url.host}: apps send no name and password.`,
      'Give an address that answers without them.',
    )
  return url
}

const notPublic = (url: URL): Refusal =>
  new Refusal(
    'The address is not public',
    `${url.host} lies in a private network, where no listening app can reach it.`,
    'Give an address that answers on the public internet.',
  )
const neverAnswered = (url: URL, patienceMs: number): Refusal =>
  new Refusal(
    'The address does not answer',
    `${url.host} sent nothing for ${patienceMs / 1000} seconds.`,
    'Try again later, or ask its host.',
  )

function failureOf(url: URL, error: Error, signal?: AbortSignal): Error {
  if (error instanceof Refusal) return error
  // Whoever ended it says why.
  if (signal?.aborted) return signal.reason as Error
  return unreachable(url, error)
}

function unreachable(url: URL, error: Error): Refusal {
  const { code } = error as NodeJS.ErrnoException
  const why =
    code === 'ENOTFOUND' || code === 'EAI_AGAIN'
      ? `There is no host named ${url.hostname}.`
      : code === 'ECONNREFUSED'
        ? `${url.host} takes no connections.`
        : `The connection to ${url.host} broke off.`
  return new (code === 'EAI_AGAIN' ? NotNow : Refusal)(
    'The address cannot be reached',
    why,
    'Check the address, or try again later.',
  )
}
