import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode as EpisodeView } from '@contract/episodes'
import { type House, openHouse } from '../testing/house'
import { Episode } from './models'

let house: House
let showId: string
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
})
afterAll(() => house.close())

const create = async (): Promise<EpisodeView> => (await house.call('POST', `/shows/${showId}/episodes`, {})).json()
const change = (id: string, version: number, text: object) => house.call('PATCH', `/episodes/${id}`, { version, text })

describe('saving an episode', () => {
  it('gives each save a new version, and none to a save that changes nothing', async () => {
    const { id } = await create()
    expect((await change(id, 1, { title: 'One' })).json().version).toBe(2)
    expect((await change(id, 2, { title: 'One' })).json().version).toBe(2)
  })

  it('cleans the notes', async () => {
    const { id } = await create()
    const saved = (await change(id, 1, { notes: '<p onclick="x()">Hi<script>alert(1)</script> <a href="javascript:x()">a</a> <b>open' })).json() as EpisodeView
    expect(saved.text.notes).toBe('<p>Hi <a>a</a> <strong>open</strong></p>')
  })

  it('keeps emoji, right-to-left text and ]]> in a title', async () => {
    const title = 'שלום 🪗 ]]> </title>'
    const { id } = await create()
    expect((await change(id, 1, { title })).json().text.title).toBe(title)
    expect((await house.call('GET', `/episodes/${id}`)).json().text.title).toBe(title)
  })

  it('from two windows: the second is refused, gets the newest text, and its own is kept', async () => {
    const { id } = await create()
    await change(id, 1, { title: 'From the first window' })
    const second = await change(id, 1, { title: 'From the second window', number: 4 })
    expect(second.statusCode).toBe(409)
    expect(second.json()).toMatchObject({ code: 'version-conflict', current: { version: 2, text: { title: 'From the first window' } } })
    const kept = (await house.call('GET', `/episodes/${id}/kept-texts`)).json()
    expect(kept).toMatchObject([{ id: second.json().keptId, text: { title: 'From the second window', number: 4 } }])
  })

  it('from two windows at the very same moment: one wins, one is told', async () => {
    const { id } = await create()
    const answers = await Promise.all(['a', 'b', 'c', 'd'].map(title => change(id, 1, { title })))
    expect(answers.map(answer => answer.statusCode).sort()).toEqual([200, 409, 409, 409])
  })

  it.each([
    ['a title of 10,000 characters', { title: 'x'.repeat(10_000) }, 'text.title', 'At most 300 characters.'],
    ['number 0', { number: 0 }, 'text.number', 'At least 1.'],
    ['number 1.5', { number: 1.5 }, 'text.number', 'A whole number.'],
    ['an unknown kind', { kind: 'film' }, 'text.kind', expect.stringContaining('full')],
  ])('with %s names the field and the rule', async (_name, text, field, rule) => {
    const { id } = await create()
    const answer = await change(id, 1, text)
    expect(answer.statusCode).toBe(422)
    expect(answer.json().faults[0]).toMatchObject({ field, rule })
    expect(answer.headers['content-type']).toContain('application/problem+json')
  })

  it('is refused without a sign-in, and unknown to the rest of the world', async () => {
    const { id } = await create()
    expect((await house.app.inject({ url: `/api/v1/episodes/${id}` })).statusCode).toBe(401)
    expect((await house.call('GET', '/episodes/01a20b82-0000-7000-8000-000000000000')).json().code).toBe('not-found')
    expect((await house.call('GET', '/episodes/1%27%20OR%201=1')).json().code).toBe('not-found')
  })
})

describe('the list', () => {
  it('has drafts first, then scheduled with the next one last, then released, newest first', async () => {
    const show = await house.makeShow('ordered')
    const [one, two, three, four] = [await house.makeReady(show.id, 'First out'), await house.makeReady(show.id, 'Later'), await house.makeReady(show.id, 'Sooner'), await house.makeReady(show.id, 'Still open')]
    const at = (local: string) => ({ kind: 'at', local, zone: 'Europe/Zurich' })
    await house.call('POST', `/episodes/${one!.id}/release`, { version: one!.version, when: { kind: 'now' } })
    await house.call('POST', `/episodes/${two!.id}/release`, { version: two!.version, when: at('2026-05-02T06:00') })
    await house.call('POST', `/episodes/${three!.id}/release`, { version: three!.version, when: at('2026-05-01T06:00') })
    const list = (await house.call('GET', `/shows/${show.id}/episodes`)).json() as EpisodeView[]
    expect(list.map(({ title }) => title)).toEqual(['Still open', 'Later', 'Sooner', 'First out'])
    expect(list.map(({ id }) => id)).toContain(four!.id)
  })

  it('loses a removed draft and gets it back whole', async () => {
    const { id } = await create()
    await change(id, 1, { title: 'Gone and back' })
    expect((await house.call('DELETE', `/episodes/${id}`)).statusCode).toBe(204)
    expect((await house.call('GET', `/episodes/${id}`)).statusCode).toBe(404)
    expect((await house.call('POST', `/episodes/${id}/restoration`, {})).json().text.title).toBe('Gone and back')
  })
})

describe('what is kept can always be shown', () => {
  it('notes that cleaning makes longer than the limit are refused, and the episode stays as it is', async () => {
    const { id } = await create()
    const growing = '&'.repeat(60_000)
    const answer = await change(id, 1, { notes: growing })
    expect(answer.json()).toMatchObject({ status: 422, faults: [{ field: 'text.notes', rule: expect.stringContaining('100,000') }] })
    expect((await house.call('GET', `/episodes/${id}`)).json()).toMatchObject({ version: 1, text: { notes: '' } })
    expect((await change(id, 1, { notes: '&'.repeat(19_000) })).statusCode).toBe(200)
  })

  it('a title on several lines, or with control characters, is one line', async () => {
    const { id } = await create()
    expect((await change(id, 1, { title: 'The wet\nreed\u0000\u0007' })).json().text.title).toBe('The wet reed')
  })

  it('half a letter becomes a sign that stands for it', async () => {
    const { id } = await create()
    const answer = await house.app.inject({ method: 'PATCH', url: `/api/v1/episodes/${id}`, headers: { cookie: house.cookie, 'content-type': 'application/json' }, payload: '{"version":1,"text":{"title":"reed \\ud83e"}}' })
    expect(answer.json().text.title).toBe('reed \ufffd')
  })

  it('a row from before a rule became stricter is told all the same', async () => {
    const { id } = await create()
    await Episode.update({ number: 20_261_125, title: 'x'.repeat(300) }, { where: { id } })
    expect((await house.call('GET', `/episodes/${id}`)).json().text.number).toBe(20_261_125)
    expect((await house.call('GET', `/shows/${showId}/episodes`)).statusCode).toBe(200)
  })
})

it('the list is not sent again where nothing in it has changed', async () => {
  const show = await house.makeShow('unchanged')
  const list = (tag?: string) => house.app.inject({ url: `/api/v1/shows/${show.id}/episodes`, headers: { cookie: house.cookie, ...(tag && { 'if-none-match': tag }) } })
  const episode = (await house.call('POST', `/shows/${show.id}/episodes`, {})).json()
  const first = await list()
  const tag = String(first.headers.etag)
  expect((await list(tag)).statusCode).toBe(304)
  await change(episode.id, 1, { title: 'Changed' })
  const second = await list(tag)
  expect([second.statusCode, second.json()[0].title]).toEqual([200, 'Changed'])
  await house.call('DELETE', `/episodes/${episode.id}`)
  expect((await list(String(second.headers.etag))).json()).toEqual([])
})
