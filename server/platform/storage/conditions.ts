import { readHttpDate } from '@core/feed/dates'

/** What a stored answer is known by. */
export interface Validators {
  /** A strong entity tag, with its quotes. */
  etag: string
  lastModified: Date
}

type Headers = Readonly<Record<string, string | string[] | undefined>>

/**
 * Evaluates a request's preconditions in the order of RFC 9110 section 13.2.2 for GET and HEAD:
 * `pass`, or the status to answer with.
 */
export function precondition(headers: Headers, { etag, lastModified }: Validators): 'pass' | 304 | 412 {
  const ifMatch = text(headers['if-match'])
  const ifUnmodified = date(headers['if-unmodified-since'])
  if (ifMatch !== null) {
    if (!lists(ifMatch, etag, strong)) return 412
  } else if (ifUnmodified !== null && seconds(lastModified) > ifUnmodified) return 412

  const ifNoneMatch = text(headers['if-none-match'])
  // Section 13.1.3: a recipient MUST ignore If-Modified-Since where the request has If-None-Match.
  if (ifNoneMatch !== null) return ifNoneMatch === etag || lists(ifNoneMatch, etag, weak) ? 304 : 'pass'
  const ifModified = date(headers['if-modified-since'])
  return ifModified !== null && seconds(lastModified) <= ifModified ? 304 : 'pass'
}

/** Whether a Range header may be followed: section 13.1.5, If-Range compares strongly and to the second. */
export function rangeHolds(headers: Headers, { etag, lastModified }: Validators): boolean {
  const ifRange = text(headers['if-range'])
  if (ifRange === null) return true
  return /^(W\/)?"/.test(ifRange) ? strong(ifRange, etag) : date(ifRange) === seconds(lastModified)
}

const strong = (one: string, other: string): boolean => one === other && !one.startsWith('W/')
const weak = (one: string, other: string): boolean => one.replace(/^W\//, '') === other.replace(/^W\//, '')

function lists(header: string, etag: string, same: (one: string, other: string) => boolean): boolean {
  return header.trim() === '*' || (header.match(/(W\/)?"[^"]*"/g) ?? []).some(tag => same(tag, etag))
}

function text(header: string | string[] | undefined): string | null {
  return typeof header === 'string' ? header : null
}

/** A date header in whole seconds; null where there is none or it is no HTTP-date (section 13.1.3: then "MUST ignore"). */
function date(header: string | string[] | undefined): number | null {
  const ms = typeof header === 'string' ? readHttpDate(header) : null
  return ms === null ? null : ms / 1000
}

const seconds = (moment: Date): number => Math.floor(+moment / 1000)
