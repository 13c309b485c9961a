import { DateTime } from 'luxon'
import { z } from 'zod'
import type { LogLine } from './line'

/** A longer line is none of a log. */
const longestLine = 64 * 1024

/**
 * Reads the lines of a log, whichever of three forms it has: the combined one of web servers, JSON lines, or the extended form of the
 * W3C (Extended Log File Format, working draft WD-logfile-960323), whose directives say what the columns are. Null for what is no
 * line of these, such as half of one.
 */
export function logReader(): (line: string) => LogLine | null {
  let columns: readonly string[] = []
  let separator = /\s+/
  return line => {
    if (line.length > longestLine) return null
    if (line.startsWith('#')) {
      const [, fields] = /^#Fields:\s*(.+)$/i.exec(line) ?? []
      if (fields !== undefined) {
        columns = fields.trim().split(/\s+/)
        separator = fields.includes('\t') ? /\t/ : /\s+/
      }
      return null
    }
    if (line.startsWith('{')) return readJson(line)
    return columns.length > 0 ? readExtended(line, columns, separator) : readCombined(line)
  }
}

const combined =
  /^(\S+) \S+ \S+ \[([^\]]{20,40})\] "([A-Z]{1,16}) (\S+)(?: [^" ]*)?" (\d{3}) (\d+|-) "[^"\\]*(?:\\.[^"\\]*)*" "([^"\\]*(?:\\.[^"\\]*)*)"/

/** `192.0.2.7 - - [20/Nov/2026:06:10:00 +0100] "GET /media/… HTTP/1.1" 206 960000 "-" "Kelp/3.1"`; it does not tell which range. */
function readCombined(line: string): LogLine | null {
  const [, address, time, method, path, status, bytes, agent] = combined.exec(line) ?? []
  const at = time === undefined ? null : commonLogMoment(time)
  if (!at) return null
  return {
    at,
    method: method!,
    path: path!,
    status: Number(status),
    bytesSent: bytes === '-' ? null : Number(bytes),
    range: null,
    agent: agent === '-' ? '' : agent!.replaceAll(/\\(["\\])/g, '$1'),
    address: address!,
  }
}

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** `20/Nov/2026:06:10:00 +0100`; null where there is no such moment. */
function commonLogMoment(time: string): Date | null {
  const read = /^(\d{2})\/(\w{3})\/(\d{4}):(\d{2}):(\d{2}):(\d{2}) ([+-]\d{2})(\d{2})$/.exec(time)
  if (!read) return null
  const [, day, month, year, hour, minute, second, zone, minutes] = read
  const at = new Date(
    `${year}-${String(months.indexOf(month!) + 1).padStart(2, '0')}-${day}T${hour}:${minute}:${second}${zone}:${minutes}`,
  )
  // The language takes the 31st of February for the 3rd of March.
  const isThere = Number(day) <= new Date(Date.UTC(Number(year), months.indexOf(month!) + 1, 0)).getUTCDate()
  return isThere && !Number.isNaN(+at) ? at : null
}

/** Names under which programs write the same; the first that is there counts. */
const names = {
  at: ['at', 'time', 'timestamp', 'ts', '@timestamp', 'time_iso8601', 'msec', 'date'],
  method: ['method', 'request_method', 'httpMethod'],
  path: ['path', 'request_uri', 'uri', 'url'],
  status: ['status', 'status_code', 'response_status'],
  bytesSent: ['bytesSent', 'body_bytes_sent', 'bytes_sent', 'bytes', 'size'],
  range: ['range', 'sent_http_content_range', 'content_range'],
  agent: ['agent', 'user_agent', 'http_user_agent', 'userAgent'],
  address: ['address', 'remote_addr', 'client_ip', 'remote_ip', 'ip'],
} as const

const plain = z.record(z.string(), z.unknown())

function readJson(line: string): LogLine | null {
  let read: z.infer<typeof plain>
  try {
    read = plain.parse(JSON.parse(line))
  } catch {
    return null
  }
  const of = (what: keyof typeof names): string | number | null => {
    const value = names[what].map(name => read[name]).find(each => each !== undefined && each !== null)
    return typeof value === 'string' || typeof value === 'number' ? value : null
  }
  return lineOf({
    at: moment(of('at')),
    method: of('method'),
    path: withoutHost(of('path')),
    status: of('status'),
    bytesSent: of('bytesSent'),
    range: of('range'),
    agent: of('agent'),
    address: of('address'),
  })
}

/** A moment in seconds or milliseconds since 1970, or as ISO 8601 writes it, with its zone. */
function moment(value: string | number | null): Date | null {
  if (value === null) return null
  const seconds = Number(value)
  if (value !== '' && Number.isFinite(seconds)) return new Date(Math.round(seconds < 1e11 ? seconds * 1000 : seconds))
  const read = DateTime.fromISO(String(value), { zone: 'utc' })
  return read.isValid ? read.toJSDate() : null
}

const withoutHost = (path: string | number | null): string | null =>
  typeof path === 'string' ? path.replace(/^https?:\/\/[^/]*/i, '') : null

function readExtended(line: string, columns: readonly string[], separator: RegExp): LogLine | null {
  const values = line.trim().split(separator)
  if (values.length < columns.length) return null
  const of = (...wanted: string[]): string | null => {
    const at = columns.findIndex(column => wanted.includes(column.toLowerCase()))
    const value = at < 0 ? undefined : values[at]
    return value === undefined || value === '-' ? null : value
  }
  const [date, time] = [of('date'), of('time')]
  const query = of('cs-uri-query')
  const path = of('cs-uri-stem', 'cs-uri')
  return lineOf({
    // The times of this form are in GMT.
    at: date && time ? moment(`${date}T${time}Z`) : null,
    method: of('cs-method'),
    path: path && query ? `${path}?${query}` : path,
    status: of('sc-status'),
    bytesSent: of('sc-bytes', 'bytes'),
    range: of('sc(content-range)', 'sc-content-range'),
    agent: unescaped(of('cs(user-agent)') ?? ''),
    address: of('c-ip'),
  })
}

/** Blanks cannot stand in a column: some write them as +, some in hexadecimal digits. */
function unescaped(text: string): string {
  const blanks = text.includes('%20') ? text : text.replaceAll('+', ' ')
  try {
    return decodeURIComponent(blanks)
  } catch {
    return blanks
  }
}

type Read = Record<
  'method' | 'path' | 'status' | 'bytesSent' | 'range' | 'agent' | 'address',
  string | number | null
> & {
  at: Date | null
}

function lineOf({ at, method, path, status, bytesSent, range, agent, address }: Read): LogLine | null {
  if (!at || Number.isNaN(+at) || typeof method !== 'string' || typeof path !== 'string') return null
  const code = Number(status)
  if (!Number.isInteger(code) || code < 100 || code > 599) return null
  const bytes = bytesSent === null || bytesSent === '' ? null : Number(bytesSent)
  const [, start, end] =
    /^bytes[ =](\d{1,15})-(\d{1,15})(?:\/|$)/.exec(String(range ?? '').replaceAll('%20', ' ')) ?? []
  return {
    at,
    method,
    path,
    status: code,
    bytesSent: bytes !== null && Number.isSafeInteger(bytes) && bytes >= 0 ? bytes : null,
    range: start === undefined ? null : { start: Number(start), end: Number(end) },
    agent: String(agent ?? ''),
    address: String(address ?? ''),
  }
}
