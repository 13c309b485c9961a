import { randomBytes } from 'node:crypto'
import { mkdtemp, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { FastifyInstance, InjectOptions, LightMyRequestResponse } from 'fastify'
import { pino } from 'pino'
import { QueryTypes, Sequelize } from 'sequelize'
import sharp from 'sharp'
import type { Episode } from '@contract/episodes'
import type { EpisodeText } from '@core/episode/fields'
import type { Show } from '@contract/shows'
import type { Sound } from '@contract/sound'
import type { Access } from '../people/access/access'
import { houseScope } from '../people/access/scope'
import { createApp } from '../app/app'
import { MovableClock } from '../platform/clock'
import { readConfiguration } from '../platform/configuration'
import { openDatabase } from '../app/openDatabase'
import { migrate } from '../platform/database/migrate'
import { transact } from '../platform/database/transact'
import { Episode as EpisodeRow } from '../show/episodes/models'
import { openDeliveries } from '../platform/deliveries/open'
import { createEvents } from '../platform/events/events'
import { jobList } from '../app/jobList'
import { createJobs } from '../platform/jobs/jobs'
import { openDiskStore } from '../platform/storage/diskStore'
import type { Platform } from '../platform/platform'
import { uploadService } from '../production/uploads/service'

export const account = { email: 'demo@lakeletter.example', password: 'lake-letter-demo' }
export const morning = new Date('2026-03-10T05:00:00Z')

/** An episode together with its sound. */
export type WholeEpisode = Episode & { sound: Sound }

/** A whole house on a database of its own: for each test file one, on the MariaDB that the test script started. */
export interface House {
  app: FastifyInstance
  /** Every route as it was registered. */
  routes: { method: string; url: string; schema: unknown; access: Access | undefined }[]
  platform: Platform
  clock: MovableClock
  cookie: string
  /** Where the media store keeps what is on its way. */
  inbox: string
  mediaFolder: string
  call(method: InjectOptions['method'], path: string, body?: unknown): Promise<LightMyRequestResponse>
  makeShow(slug: string): Promise<Show>
  /** An episode with audio and title, ready for release. */
  makeReady(showId: string, title: string, sound?: string): Promise<WholeEpisode>
  get(episodeId: string): Promise<WholeEpisode>
  /** Does something to an episode as it is now, under `/episodes/:id/:name`. Throws where that is refused. */
  step(episodeId: string, name: string, body?: object): Promise<Episode>
  release(episodeId: string, when?: object): Promise<Episode>
  /** An episode that is out, with these words. */
  makeReleased(showId: string, title: string, text?: Partial<EpisodeText>): Promise<Episode>
  bring(episodeId: string, path: string): Promise<void>
  /** Does what is to be done on sound: measuring, finishing. Throws what went wrong in it. */
  workOnSound(): Promise<void>
  close(): Promise<void>
}

export const sounds = join(import.meta.dirname, '../../demo/sounds')

export async function openHouse(environment: Record<string, string> = {}): Promise<House> {
  const databaseUrl = await freshDatabase()
  const folder = await mkdtemp(join(tmpdir(), 'lake-letter-test-'))
  const clock = new MovableClock(morning)
  const failures: unknown[] = []
  const configuration = readConfiguration({
    DATABASE_URL: databaseUrl,
    PUBLIC_URL: 'http://lake.example',
    LOG_LEVEL: 'silent',
    WEB_DIR: join(import.meta.dirname, 'web'),
    ...environment,
  })
  const database = openDatabase(databaseUrl)
  await withSchema(database)
  const report = (error: unknown): void => {
    failures.push(error)
  }
  const events = createEvents(database, clock, report)
  const platform: Platform = {
    configuration,
    clock,
    database,
    log: pino({ level: 'silent' }),
    media: await openDiskStore(folder),
    jobs: createJobs(database, clock, events, report),
    events,
    ...openDeliveries(configuration, database, clock, report),
    siteAssets: {
      script: '/assets/site.js',
      styles: ['/assets/site.css'],
      fonts: { literata: '/assets/literata.woff2', 'public-sans': '/assets/public-sans.woff2' },
    },
  }
  const routes: House['routes'] = []
  platform.jobs.use(jobList(platform))
  const app = await createApp(platform, route => {
    const { method, url, schema } = route
    // What a route declares can be added by the part that it belongs to, after this.
    for (const each of [method].flat())
      routes.push({
        method: each,
        url,
        schema,
        get access() {
          return route.config?.access
        },
      })
  })
  await app.ready()
  const first = await app.inject({ method: 'POST', url: '/api/v1/accounts', payload: account })
  const cookie = String(first.headers['set-cookie']).split(';')[0]!

  const call: House['call'] = (method, path, body) =>
    app.inject({
      method,
      url: `/api/v1${path}`,
      headers: { cookie },
      ...(body !== undefined && { payload: body as object }),
    })
  const get: House['get'] = async id => ({
    ...(await call('GET', `/episodes/${id}`)).json<Episode>(),
    sound: (await call('GET', `/episodes/${id}/sound`)).json<Sound>(),
  })
  const done = (answer: LightMyRequestResponse): Episode => {
    if (answer.statusCode !== 200) throw new Error(`${answer.statusCode}: ${answer.body}`)
    return answer.json()
  }
  const step: House['step'] = async (id, name, body = {}) => {
    const { version } = await get(id)
    return done(await call('POST', `/episodes/${id}/${name}`, { version, ...body }))
  }
  const release: House['release'] = (id, when = { kind: 'now' }) => step(id, 'release', { when })
  const bring: House['bring'] = async (episodeId, path) => {
    const id = randomBytes(16).toString('hex')
    const uploads = uploadService(platform)
    const { showId } = await EpisodeRow.findByPk(episodeId, { rejectOnEmpty: true })
    await uploads.announce(houseScope({ id: episodeId, showId }), {
      id,
      fileName: path.split('/').at(-1)!,
      bytes: (await stat(path)).size,
    })
    await platform.media.arrivals.put(id, path)
    await uploads.received(id)
    while (await platform.jobs.runNext('reading'));
  }

  const brought = new Map<string, string>()
  const makeReady: House['makeReady'] = async (showId, title, sound = 'sf-5.mp3') => {
    const { id } = (await call('POST', `/shows/${showId}/episodes`, {})).json() as Episode
    const known = brought.get(`${showId} ${sound}`)
    // Reading takes most of the time, so a show reads each sound once.
    if (known) await call('PUT', `/episodes/${id}/source`, { fileId: known })
    else await bring(id, join(sounds, sound))
    const {
      version,
      sound: { source },
    } = await get(id)
    brought.set(`${showId} ${sound}`, source!.id)
    await call('PATCH', `/episodes/${id}`, { version, text: { title } })
    return get(id)
  }
  return {
    app,
    routes,
    platform,
    clock,
    cookie,
    call,
    get,
    step,
    release,
    bring,
    inbox: join(folder, 'inbox'),
    mediaFolder: folder,
    async workOnSound() {
      while ((await platform.jobs.runNext('measuring')) || (await platform.jobs.runNext('finishing')));
      const [failure] = failures.splice(0)
      if (failure) throw failure
    },
    async makeShow(slug) {
      const picture = await app.inject({
        method: 'POST',
        url: '/api/v1/artwork',
        headers: { cookie, 'content-type': 'application/octet-stream' },
        payload: await squarePicture(1400),
      })
      const show = await call('POST', '/shows', { ...showFacts, slug, artworkId: picture.json().id })
      return show.json()
    },
    makeReady,
    async makeReleased(showId, title, text) {
      const { id, version } = await makeReady(showId, title)
      if (text) done(await call('PATCH', `/episodes/${id}`, { version, text }))
      return release(id)
    },
    async close() {
      await events.stop()
      await app.close()
      await platform.deliveries.stop()
      await database.query(`DROP DATABASE ${database.getDatabaseName()}`)
      await database.close()
      await rm(folder, { recursive: true, force: true })
    },
  }
}

export const showFacts = {
  name: 'Bellows & Reeds',
  description: 'People who mend reed instruments.',
  language: 'en',
  author: 'Tove Aldermoor',
  ownerEmail: 'workshop@bellowsandreeds.example',
  category: 'Leisure',
  subcategory: 'Crafts',
  explicit: false,
  type: 'episodic',
  zone: 'Europe/Zurich',
}

export const squarePicture = (width: number, height = width): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background: '#103747' } })
    .jpeg()
    .toBuffer()

/** The statements that make a migrated database, once the first of this process has been migrated. */
let schema: string[] | null = null

/** Brings an empty database to where the migrations bring it; after the first time from what they left, which is quicker. */
async function withSchema(database: Sequelize): Promise<void> {
  if (schema)
    return transact(database, async transaction => {
      for (const statement of schema!) await database.query(statement, { transaction })
    })
  await migrate(database)
  const select = <T extends object>(sql: string) => database.query<T>(sql, { type: QueryTypes.SELECT })
  const made = ['SET FOREIGN_KEY_CHECKS = 0']
  for (const { name } of await select<{ name: string }>(
    'SELECT TABLE_NAME AS name FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE()',
  )) {
    const [row] = await select<{ 'Create Table': string }>(`SHOW CREATE TABLE ${name}`)
    made.push(row!['Create Table'])
  }
  schema = [...made, 'SET FOREIGN_KEY_CHECKS = 1']
}

/** An empty database of its own for one test file, on the server that DATABASE_URL names. */
export async function freshDatabase(): Promise<string> {
  const address = new URL(process.env.DATABASE_URL!)
  const name = `lake_test_${process.pid}_${Date.now()}`
  const server = new Sequelize({
    dialect: 'mariadb',
    host: address.hostname,
    port: Number(address.port),
    username: address.username,
    password: address.password,
    logging: false,
  })
  await server.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`)
  await server.close()
  address.pathname = `/${name}`
  return address.href
}
