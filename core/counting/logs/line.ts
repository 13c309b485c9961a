/** What a web server, a proxy or a delivery network noted of an answer. */
export interface LogLine {
  at: Date
  method: string
  /** As it was asked for, with its query. */
  path: string
  status: number
  /** Of the body; null where the log does not tell. */
  bytesSent: number | null
  /** Both included; null where the whole was sent, or the log does not tell. */
  range: { start: number; end: number } | null
  agent: string
  address: string
}
