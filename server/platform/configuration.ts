import { z } from 'zod'
import { withoutSlashesBehind } from '@core/address/slashes'

const schema = z.object({
  PORT: z.coerce.number().int().min(0).max(65_535).default(4310),
  HOST: z.string().default('127.0.0.1'),
  PUBLIC_URL: z.url().optional(),
  DATABASE_URL: z.url(),
  MEDIA_DIR: z.string().default('.run/media'),
  WEB_DIR: z.string().default('dist/web'),
  SERVER_DIR: z.string().default('dist/server'),
  MAX_UPLOAD_BYTES: z.coerce.number().int().positive().default(2_000_000_000),
  FETCH_ALLOW: z.string().default(''),
  DNS_SERVERS: z
    .string()
    .default('')
    .transform(words =>
      words
        .split(',')
        .map(each => each.trim())
        .filter(Boolean),
    )
    .refine(
      servers => servers.every(each => /^[\d.]+(:\d{1,5})?$|^\[[\da-f:]+\](:\d{1,5})?$/i.test(each)),
      'Addresses separated by commas, such as 192.0.2.53 or 192.0.2.53:53.',
    ),
  CACHE_BYTES: z.coerce.number().int().min(0).default(64_000_000),
  MEDIA_ACCEL: z
    .string()
    .regex(/^(\/[\w.-]+)+\/$/, 'The part of an address where the proxy finds the stored files, such as /stored/.')
    .optional(),
  MEDIA_ACCEL_LOG: z.string().min(1).optional(),
  LOGS_DIR: z.string().min(1).optional(),
  LOG_DAYS: z.coerce.number().int().min(7).max(3_650).default(90),
  PLACES_FILE: z.string().min(1).optional(),
  PROGRAMS_FILE: z.string().min(1).optional(),
  RUN_JOBS: z.enum(['yes', 'no']).default('yes'),
  LISTENER_URL: z.url().optional(),
  TRANSCRIPTION_URL: z.url({ protocol: /^https?$/ }).optional(),
  HUB_URL: z.url({ protocol: /^https?$/ }).optional(),
  DIRECTORIES_URL: z.url({ protocol: /^https?$/ }).optional(),
  OUTBOX_URL: z.url({ protocol: /^https?$/ }).optional(),
  MOVABLE_CLOCK: z.enum(['yes', 'no']).default('no'),
  SMTP_URL: z.url({ protocol: /^smtps?$/ }).optional(),
  MAIL_FROM: z.string().min(3).max(320).optional(),
  LOG_LEVEL: z.enum(['trace', 'debug', 'info', 'warn', 'error', 'silent']).default('warn'),
  TRUST_PROXY: z
    .string()
    .regex(/^(true|false|\d{1,2})$/, 'How many proxies stand before the server: 0, 1, 2 …')
    .default('0'),
})

export interface Configuration {
  port: number
  host: string
  /** Without a trailing slash. */
  publicUrl: string
  databaseUrl: string
  mediaDir: string
  webDir: string
  /** Where the built server lies, for the programs of its worker threads. */
  serverDir: string
  maxUploadBytes: number
  /** Hosts with ports (`127.0.0.1:4312`) that are fetched from although they are not public; for stand-ins. */
  fetchAllow: readonly string[]
  /** Name servers that are asked about host names; those of the machine where there is none. */
  dnsServers: readonly string[]
  listenerUrl: string | null
  /** Of the service that drafts transcripts, without a trailing slash; null where there is none. */
  transcriptionUrl: string | null
  /** The WebSub hub that is told of changed feeds. */
  hubUrl: string | null
  /** Of the directories that shows are handed to. */
  directoriesUrl: string | null
  /** Of the stand-in that shows mail. */
  outboxUrl: string | null
  /** Whether the clock may be moved forward; for the demo. */
  canMoveClock: boolean
  /** Where mail is handed over; null where none is sent. */
  smtpUrl: string | null
  /** Whom it is from, as RFC 5322 writes it. */
  mailFrom: string
  /** How many bytes a process keeps in memory of feeds and pages as they are sent, and as many of audio. */
  cacheBytes: number
  /** Where a proxy finds stored files and sends them itself; null where the server sends them. */
  mediaAccel: string | null
  /** The log in which that proxy notes what it delivered; null where none is read. */
  mediaAccelLog: string | null
  /** A folder whose logs of proxies and delivery networks are brought in; null where there is none. */
  logsDir: string | null
  /** So many days what single listeners fetched is kept, and then the month that it is of goes. */
  logDays: number
  /** A table of places that is taken instead of the one that ships. */
  placesFile: string | null
  /** A list of programs, robots and data centres that is taken instead of the one that ships. */
  programsFile: string | null
  /** Whether the server runs jobs and the release clock itself; where it does not, workers do. */
  runsJobs: boolean
  logLevel: string
  /** How many proxies stand before the server; so many entries of X-Forwarded-For are believed. */
  trustProxy: number
}

/** Variables that have another name than once: whoever still sets one would miss what it did. */
const renamed = { COPYIST_URL: 'TRANSCRIPTION_URL', TRAVEL: 'MOVABLE_CLOCK' } as const

/** Reads the configuration from environment variables, once. Throws one Error that names every bad variable. */
export function readConfiguration(environment: NodeJS.ProcessEnv): Configuration {
  const former = Object.entries(renamed).filter(([name]) => environment[name] !== undefined)
  if (former.length > 0)
    throw new Error(
      `The configuration cannot be used. ${former.map(([name, now]) => `${name} is called ${now} now`).join('; ')}.`,
    )
  const read = schema.safeParse(environment)
  if (!read.success) {
    const faults = read.error.issues.map(
      issue => `${issue.path.join('.')}=${String(environment[String(issue.path[0])] ?? '')}: ${issue.message}`,
    )
    throw new Error(`The configuration cannot be used. ${faults.join('; ')}`)
  }
  const { data } = read
  return {
    port: data.PORT,
    host: data.HOST,
    publicUrl: withoutSlashesBehind(data.PUBLIC_URL ?? `http://${data.HOST}:${data.PORT}`),
    databaseUrl: data.DATABASE_URL,
    mediaDir: data.MEDIA_DIR,
    webDir: data.WEB_DIR,
    serverDir: data.SERVER_DIR,
    maxUploadBytes: data.MAX_UPLOAD_BYTES,
    fetchAllow: data.FETCH_ALLOW.split(',')
      .map(each => each.trim())
      .filter(Boolean),
    dnsServers: data.DNS_SERVERS,
    listenerUrl: data.LISTENER_URL ?? null,
    transcriptionUrl: data.TRANSCRIPTION_URL ? withoutSlashesBehind(data.TRANSCRIPTION_URL) : null,
    hubUrl: data.HUB_URL ?? null,
    directoriesUrl: data.DIRECTORIES_URL ? withoutSlashesBehind(data.DIRECTORIES_URL) : null,
    outboxUrl: data.OUTBOX_URL ?? null,
    canMoveClock: data.MOVABLE_CLOCK === 'yes',
    smtpUrl: data.SMTP_URL ?? null,
    mailFrom:
      data.MAIL_FROM ?? `Lake Letter <lake-letter@${new URL(data.PUBLIC_URL ?? `http://${data.HOST}`).hostname}>`,
    cacheBytes: data.CACHE_BYTES,
    mediaAccel: data.MEDIA_ACCEL ?? null,
    mediaAccelLog: data.MEDIA_ACCEL_LOG ?? null,
    logsDir: data.LOGS_DIR ?? null,
    logDays: data.LOG_DAYS,
    placesFile: data.PLACES_FILE ?? null,
    programsFile: data.PROGRAMS_FILE ?? null,
    runsJobs: data.RUN_JOBS === 'yes',
    logLevel: data.LOG_LEVEL,
    trustProxy: data.TRUST_PROXY === 'true' ? 1 : Number(data.TRUST_PROXY) || 0,
  }
}
