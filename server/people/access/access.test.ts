import { randomBytes } from 'node:crypto'
import type { InjectOptions } from 'fastify'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { CommentList } from '@contract/comments'
import type { ShowNumbers } from '@contract/numbers'
import type { OwnPageList } from '@contract/ownPages'
import type { Transcript } from '@contract/transcripts'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import type { ListenerList } from '@contract/listeners'
import type { StrandList } from '@contract/strands'
import type { Role } from '@core/access/roles'
import { account, type House, openHouse, showFacts, squarePicture } from '../../testing/house'
import { Membership } from './models'

let house: House
let stranger: string
let show: Show
let ids: Record<string, string>
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('kept')
  const released = await house.makeReady(show.id, 'Heard by all')
  await house.workOnSound()
  await house.call('POST', `/episodes/${released.id}/release`, { version: released.version, when: { kind: 'now' } })
  const episode: Episode = (await house.call('POST', `/shows/${show.id}/episodes`, { title: 'A draft' })).json()
  const upload = await house.app.inject({
    method: 'POST',
    url: '/api/v1/uploads',
    headers: {
      cookie: house.cookie,
      'tus-resumable': '1.0.0',
      'upload-length': '100',
      'upload-metadata': `episodeId ${Buffer.from(episode.id).toString('base64')},filename ${Buffer.from('a.mp3').toString('base64')}`,
    },
  })
  const transcript = await house.app.inject({
    method: 'POST',
    url: `/api/v1/episodes/${released.id}/transcripts?language=en`,
    headers: { cookie: house.cookie, 'content-type': 'text/plain' },
    payload: 'One note will not stop.',
  })
  const strand = await house.call('POST', `/shows/${show.id}/strands`, {
    slug: 'best',
    name: 'The best',
    description: null,
    artworkId: null,
    goesBy: 'hand',
    value: null,
  })
  const { version } = await house.get(released.id)
  const soundbites = [{ id: 'kept', fromMs: 0, toMs: 2000, title: '' }]
  await house.call('PATCH', `/episodes/${released.id}`, { version, text: { soundbites } })
  const listeners = await house.call('POST', `/shows/${show.id}/listeners`, { names: ['Odile'], strandId: null })
  const page = await house.call('POST', `/shows/${show.id}/pages`, { title: 'About' })
  await house.call('PUT', `/shows/${show.id}/comments`, { takesComments: true })
  await house.app.inject({
    method: 'POST',
    url: `${new URL((await house.get(released.id)).pageAddress!).pathname}/comments`,
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    payload: 'name=Ilse&words=Hello',
  })
  const written = (await house.call('GET', `/shows/${show.id}/comments`)).json<CommentList>()
  const marked = await house.call('POST', `/shows/${show.id}/numbers/marks`, { day: '2026-03-10', words: 'A fair' })
  ids = {
    mark: marked.json<Pick<ShowNumbers, 'marks'>>().marks[0]!.id,
    page: page.json<OwnPageList>().pages[0]!.id,
    comment: written.comments[0]!.id,
    listener: listeners.json<ListenerList>().listeners[0]!.id,
    released: released.id,
    strand: strand.json<StrandList>().strands[0]!.id,
    transcript: transcript.json<Transcript>().id,
    show: show.id,
    episode: episode.id,
    file: released.sound.source!.id,
    upload: String(upload.headers.location).split('/').at(-1)!,
    picture: released.sound.source!.pictureAddress?.split('/').at(-1) ?? 'none.jpg',
  }
  stranger = await join('stranger@lakeletter.example')
})
afterAll(() => house.close())

/** Another account, signed in; answers its cookie. Inviting people has no route yet. */
async function join(email: string): Promise<string> {
  await house.platform.database.query(
    'INSERT INTO accounts (id, email, password_hash, created_at) SELECT UUID(), ?, password_hash, created_at FROM accounts LIMIT 1',
    { replacements: [email] },
  )
  const answer = await house.app.inject({ method: 'POST', url: '/api/v1/session', payload: { ...account, email } })
  return String(answer.headers['set-cookie']).split(';')[0]!
}

const removing = /^DELETE/
/** Every route behind a sign-in, what removes something last, and first what lies within what else is removed. */
const guarded = () => {
  const all = house.routes.filter(({ access }) => access !== 'anyone')
  const last = all.filter(({ method }) => removing.test(method))
  return [
    ...all.filter(each => !last.includes(each)),
    ...last.toSorted((one, other) => other.url.length - one.url.length),
  ]
}

function addressOf({ url, access }: House['routes'][number]): string {
  const thing = typeof access === 'object' ? access.of : 'show'
  return url
    .replace(':fileId', ids.file!)
    .replace(':name', ids.picture!)
    .replace(':slug', 'kept')
    .replace(':soundbite', 'kept')
    .replace(':id', url.includes(':fileId') ? ids.show! : url.includes(':soundbite') ? ids.released! : ids[thing]!)
}

const answerTo = (route: House['routes'][number], cookie: string) => {
  const headers = { cookie, ...(route.url.includes('/uploads') && { 'tus-resumable': '1.0.0' }) }
  return house.app.inject({ method: route.method as InjectOptions['method'], url: addressOf(route), headers })
}
const ask = async (route: House['routes'][number], cookie: string): Promise<number> =>
  (await answerTo(route, cookie)).statusCode

describe('every route', () => {
  it('declares whom it lets in', () => {
    expect(house.routes.length).toBeGreaterThan(50)
    expect(
      house.routes.filter(({ access }) => access === undefined).map(({ method, url }) => `${method} ${url}`),
    ).toEqual([])
  })

  it('of the API says what it answers, so that nothing else leaves, unless it sends a file, a stream or nothing', () => {
    const silent = house.routes
      .filter(({ url, method }) => url.startsWith('/api/') && method !== 'HEAD' && method !== 'OPTIONS')
      .filter(({ schema }) => {
        const { response = {} } = (schema ?? {}) as { response?: Record<string, unknown> }
        return !Object.keys(response).some(status => status.startsWith('2'))
      })
    expect(
      [...new Set(silent.map(({ method, url }) => `${method} ${url.slice('/api/v1'.length)}`))].toSorted(),
    ).toEqual([
      'DELETE /episodes/:id/draft',
      'DELETE /transcripts/:id',
      'DELETE /uploads/:id',
      'GET /calendar/:secret.ics',
      'GET /episodes/:id/soundbites/:soundbite/download',
      'GET /events',
      'GET /files/:id/download',
      'GET /files/:id/frames',
      'GET /files/:id/sound',
      'GET /files/:id/waveform',
      'GET /lent/:token/:name',
      'GET /openapi.json',
      'GET /pictures/:name',
      'GET /shows/:id/numbers/export',
      'GET /transcripts/:id/file.:format',
      'PATCH /uploads/:id',
      'POST /uploads',
    ])
  })

  it('of the API lets in anyone only to sign in, to make the first account, to the description of itself, and with a secret to what is lent and to a calendar', () => {
    expect(
      [
        ...new Set(
          house.routes
            .filter(({ url, access }) => url.startsWith('/api/') && access === 'anyone')
            .map(({ url }) => url),
        ),
      ].toSorted(),
    ).toEqual([
      '/api/v1/accounts',
      '/api/v1/calendar/:secret.ics',
      '/api/v1/lent/:token/:name',
      '/api/v1/openapi.json',
      '/api/v1/session',
    ])
  })

  it('that does not let anyone in sends those away who are not signed in', async () => {
    const answers = await Promise.all(guarded().map(async route => [route.method, route.url, await ask(route, '')]))
    expect(answers.length).toBeGreaterThan(30)
    expect(answers.filter(([, , status]) => status !== 401)).toEqual([])
  })

  it('about something in a show answers another’s account as if there were nothing', async () => {
    const scoped = guarded().filter(({ access }) => typeof access === 'object')
    const answers: unknown[] = []
    for (const route of scoped) answers.push([route.method, route.url, await ask(route, stranger)])
    expect(answers.length).toBeGreaterThan(25)
    expect(answers).toEqual(scoped.map(({ method, url }) => [method, url, 404]))
  })

  it('lets the keeper in', async () => {
    // The stream of news has no end; whom it lets in stands in its own test.
    for (const route of guarded().filter(({ url }) => url !== '/api/v1/events')) {
      const { statusCode, body } = await answerTo(route, house.cookie)
      expect([401, 404], `${route.method} ${route.url}`).not.toContain(statusCode)
      expect(body).not.toContain('not-allowed')
    }
  })
})

describe('another’s account', () => {
  const call = (method: InjectOptions['method'], path: string, payload?: object) =>
    house.app.inject({ method, url: `/api/v1${path}`, headers: { cookie: stranger }, payload })

  it('has no shows in its list, and keeps those that it makes', async () => {
    expect((await call('GET', '/shows')).json()).toEqual({ shows: [], total: 0, after: null })
    const { id } = (await call('POST', '/shows', { ...showFacts, slug: 'strange' })).json() as Show
    expect((await call('GET', '/shows')).json().shows).toMatchObject([{ id }])
    expect((await house.call('GET', `/shows/${id}`)).statusCode).toBe(404)
    expect((await house.call('GET', '/shows')).json().shows).toMatchObject([{ id: show.id }])
  })

  it('cannot upload to an episode that it may not see', async () => {
    const answer = await house.app.inject({
      method: 'POST',
      url: '/api/v1/uploads',
      headers: {
        cookie: stranger,
        'tus-resumable': '1.0.0',
        'upload-length': '100',
        'upload-metadata': `episodeId ${Buffer.from(ids.episode!).toString('base64')}`,
      },
    })
    expect(answer.statusCode).toBe(404)
  })

  it('cannot take a picture that another brought for its artwork, nor look at it', async () => {
    const brought = await house.app.inject({
      method: 'POST',
      url: '/api/v1/artwork',
      headers: { cookie: house.cookie, 'content-type': 'image/jpeg' },
      payload: await squarePicture(1500),
    })
    const { id: artworkId, address } = brought.json() as { id: string; address: string }
    expect((await house.app.inject({ url: address, headers: { cookie: house.cookie } })).statusCode).toBe(200)
    expect((await house.app.inject({ url: address, headers: { cookie: stranger } })).statusCode).toBe(404)
    expect((await call('POST', '/shows', { ...showFacts, slug: 'taken', artworkId })).json()).toMatchObject({
      status: 422,
      faults: [{ field: 'artworkId' }],
    })
  })

  it('cannot give an episode of its own a file of another’s shelf', async () => {
    const [{ id: own }] = (await call('GET', '/shows')).json().shows as [Show]
    const { id } = (await call('POST', `/shows/${own}/episodes`, {})).json() as Episode
    expect((await call('PUT', `/episodes/${id}/source`, { fileId: ids.file })).statusCode).toBe(404)
    expect((await call('DELETE', `/shows/${own}/files/${ids.file}`)).statusCode).toBe(404)
  })
})

describe('a member', () => {
  const acts: [string, (cookie: string) => Promise<number>][] = [
    ['read', cookie => status(cookie, 'GET', `/episodes/${ids.episode}`)],
    ['write', cookie => status(cookie, 'PATCH', `/episodes/${ids.episode}`, { version: 0, text: {} })],
    [
      'release',
      cookie => status(cookie, 'POST', `/episodes/${ids.episode}/release`, { version: 0, when: { kind: 'now' } }),
    ],
    ['remove a file for good', cookie => status(cookie, 'DELETE', `/shows/${ids.show}/files/${ids.file}`)],
  ]
  const status = async (
    cookie: string,
    method: InjectOptions['method'],
    path: string,
    payload?: object,
  ): Promise<number> =>
    (await house.app.inject({ method, url: `/api/v1${path}`, headers: { cookie }, payload })).statusCode

  /** What was done, or would have been, had nothing changed since. */
  const may = (code: number): boolean => [200, 204, 409].includes(code)

  it.each([
    ['reader', ['read']],
    ['writer', ['read', 'write']],
    ['maker', ['read', 'write', 'release']],
    ['keeper', ['read', 'write', 'release', 'remove a file for good']],
  ] as [Role, string[]][])('who is a %s may %j', async (role, allowed) => {
    const cookie = await join(`${role}-${randomBytes(3).toString('hex')}@lakeletter.example`)
    const session = (await house.app.inject({ url: '/api/v1/session', headers: { cookie } })).json() as {
      account: { id: string }
    }
    await Membership.create({ accountId: session.account.id, showId: show.id, role })
    const told = await house.app.inject({ url: `/api/v1/shows/${show.id}`, headers: { cookie } })
    expect(told.json()).toMatchObject({ id: show.id, role })
    await house.call('POST', `/episodes/${ids.episode}/restoration`)
    const answers = await Promise.all(acts.map(async ([act, ask]) => [act, await ask(cookie)] as const))
    expect(answers.filter(([, code]) => may(code)).map(([act]) => act)).toEqual(allowed)
    expect(answers.filter(([, code]) => !may(code)).map(([, code]) => code)).toEqual(
      Array.from({ length: acts.length - allowed.length }, () => 403),
    )
  })
})
