import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { account, type House, openHouse, showFacts } from '../../testing/house'
import { createEvents, type NumberedNews } from './events'

let house: House
let show: Show
let address: string
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('heard')
  address = await house.app.listen({ port: 0, host: '127.0.0.1' })
})
afterAll(() => house.close())

/** Reads the stream as a browser does; answers the news as they come, and how to leave. */
async function listen(cookie: string, lastEventId?: number) {
  const leaving = new AbortController()
  const answer = await fetch(`${address}/api/v1/events`, {
    headers: { cookie, ...(lastEventId && { 'last-event-id': String(lastEventId) }) },
    signal: leaving.signal,
  })
  const heard: (NumberedNews | 'all')[] = []
  const ended = (async () => {
    let text = ''
    for await (const chunk of answer.body!.pipeThrough(new TextDecoderStream())) {
      text += chunk
      const parts = text.split('\n\n')
      text = parts.pop()!
      for (const part of parts) {
        const of = (name: string): string | undefined => new RegExp(`^${name}: (.*)$`, 'm').exec(part)?.[1]
        if (of('event') === 'news') heard.push({ number: Number(of('id')), ...JSON.parse(of('data')!) })
        if (of('event') === 'all') heard.push('all')
      }
    }
  })().catch(() => undefined)
  // It begins with the word that all may be another.
  if (!lastEventId) await expect.poll(() => heard.splice(0), { interval: 20 }).toEqual(['all'])
  return {
    answer,
    heard,
    ended,
    leave: async () => {
      leaving.abort()
      await ended
    },
  }
}

const draft = async (title: string): Promise<Episode> =>
  (await house.call('POST', `/shows/${show.id}/episodes`, { title })).json()
const kinds = (heard: (NumberedNews | 'all')[]) =>
  heard.map(each => (each === 'all' ? each : `${each.kind} ${each.id}`))

describe('a window that listens', () => {
  it('hears of a new episode, of what is written, and of what the clock does', async () => {
    const { answer, heard, leave } = await listen(house.cookie)
    expect(answer.headers.get('content-type')).toBe('text/event-stream')
    const { id } = await house.makeReady(show.id, 'News')
    await expect.poll(() => kinds(heard), { interval: 20 }).toContain(`episode ${id}`)
    heard.length = 0
    const { version } = (await house.call('GET', `/episodes/${id}`)).json() as Episode
    await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
    await expect.poll(() => kinds(heard), { interval: 20 }).toEqual([`episode ${id}`, `feed ${show.id}`])
    await leave()
  })

  it('hears within a second of what another process wrote', async () => {
    const other = createEvents(house.platform.database, house.clock, () => undefined)
    const { heard, leave } = await listen(house.cookie)
    const { id } = await draft('Elsewhere')
    await expect.poll(() => kinds(heard), { interval: 20 }).toEqual([`episode ${id}`])
    heard.length = 0
    // Its process does not wake this one.
    await house.platform.database.transaction(transaction =>
      other.note({ kind: 'progress', showId: show.id, id }, transaction),
    )
    await expect.poll(() => kinds(heard), { interval: 20 }).toEqual([`progress ${id}`])
    await leave()
  })

  it('is told once of a change whose transaction ends after a later one', async () => {
    const { heard, leave } = await listen(house.cookie)
    const [slow, quick] = [await draft('Slow'), await draft('Quick')]
    await expect.poll(() => heard.length).toBe(2)
    heard.length = 0
    const { database, events } = house.platform
    const open = await database.transaction()
    await events.note({ kind: 'episode', showId: show.id, id: slow.id }, open)
    await database.transaction(transaction =>
      events.note({ kind: 'episode', showId: show.id, id: quick.id }, transaction),
    )
    await expect.poll(() => kinds(heard)).toEqual([`episode ${quick.id}`])
    await open.commit()
    await expect.poll(() => kinds(heard)).toEqual([`episode ${quick.id}`, `episode ${slow.id}`])
    await new Promise(resolve => setTimeout(resolve, 900))
    expect(heard).toHaveLength(2)
    await leave()
  })

  it('hears nothing of what was taken back', async () => {
    const { heard, leave } = await listen(house.cookie)
    const { database, events } = house.platform
    await database
      .transaction(async transaction => {
        await events.note({ kind: 'show', showId: show.id, id: show.id }, transaction)
        throw new Error('taken back')
      })
      .catch(() => undefined)
    const { id } = await draft('After it')
    await expect.poll(() => kinds(heard)).toEqual([`episode ${id}`])
    await leave()
  })

  it('goes on where it was when its line was cut', async () => {
    const first = await listen(house.cookie)
    await draft('Before the cut')
    await expect.poll(() => first.heard.length).toBe(1)
    const { number } = first.heard[0] as NumberedNews
    await first.leave()
    const { id } = await draft('During the cut')
    const again = await listen(house.cookie, number)
    await expect.poll(() => kinds(again.heard)).toContain(`episode ${id}`)
    await again.leave()
  })

  it('is told to ask for everything where what it missed is not known any more', async () => {
    await house.platform.database.query('DELETE FROM events')
    const { heard, leave } = await listen(house.cookie, 3)
    await expect.poll(() => heard).toEqual(['all'])
    await leave()
  })
})

it('whoever signs out hears nothing more, in whichever process the stream is', async () => {
  const signedIn = await house.app.inject({ method: 'POST', url: '/api/v1/session', payload: account })
  const cookie = String(signedIn.headers['set-cookie']).split(';')[0]!
  const leaving = await listen(cookie)
  const staying = await listen(house.cookie)
  await house.app.inject({ method: 'DELETE', url: '/api/v1/session', headers: { cookie } })
  await leaving.ended
  const { id } = await draft('After they left')
  await expect.poll(() => kinds(staying.heard)).toContain(`episode ${id}`)
  expect(leaving.heard).toEqual([])
  await staying.leave()
}, 15_000)

it('another’s account hears of its own shows alone, of one that it makes from then on', async () => {
  await house.platform.database.query(
    'INSERT INTO accounts (id, email, password_hash, created_at) SELECT UUID(), ?, password_hash, created_at FROM accounts LIMIT 1',
    { replacements: ['other@lakeletter.example'] },
  )
  const answer = await house.app.inject({
    method: 'POST',
    url: '/api/v1/session',
    payload: { ...account, email: 'other@lakeletter.example' },
  })
  const cookie = String(answer.headers['set-cookie']).split(';')[0]!
  const { heard, leave } = await listen(cookie)
  await draft('Not for them')
  const own = (
    await house.app.inject({
      method: 'POST',
      url: '/api/v1/shows',
      headers: { cookie },
      payload: { ...showFacts, slug: 'theirs' },
    })
  ).json() as Show
  const { id } = (
    await house.app.inject({
      method: 'POST',
      url: `/api/v1/shows/${own.id}/episodes`,
      headers: { cookie },
      payload: {},
    })
  ).json() as Episode
  await expect.poll(() => kinds(heard)).toContain(`episode ${id}`)
  expect(heard.every(each => each !== 'all' && each.showId === own.id)).toBe(true)
  await leave()
})

it('a line over which nothing would come is cut, so that the browser asks for another one', async () => {
  vi.spyOn(house.platform.events, 'listen').mockRejectedValueOnce(new Error('The database is away.'))
  const heard = fetch(`${address}/api/v1/events`, { headers: { cookie: house.cookie } }).then(answer => answer.text())
  await expect(heard).rejects.toThrow()
})

it('nobody listens without a sign-in', async () => {
  expect((await fetch(`${address}/api/v1/events`)).status).toBe(401)
})
