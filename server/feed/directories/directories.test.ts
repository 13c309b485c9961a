import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import type { DirectoryList, Listing } from '@contract/directories'
import type { Show } from '@contract/shows'
import { Job } from '../../platform/jobs/models'
import { Mail } from '../../release/mail/models'
import { type House, openHouse } from '../../testing/house'

/** A directory as its interface says, or as it should not be. */
const service = {
  mode: 'well' as 'well' | 'away' | 'page' | 'nonsense' | 'forgets',
  state: {} as Record<string, unknown>,
  begun: [] as string[],
}
const fresh = (): Record<string, unknown> => ({
  state: 'reading',
  since: '2026-03-10T05:00:00.000Z',
  why: null,
  sentTo: null,
  isClosed: false,
  listingAddress: null,
  fetchedAt: null,
  nextFetchAt: '2026-03-10T06:00:00.000Z',
  guids: [],
})

let server: Server
let house: House
beforeAll(async () => {
  server = createServer((request, response) => {
    const say = (status: number, body: object): void =>
      void response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body))
    if (service.mode === 'away') return void request.socket.destroy()
    if (service.mode === 'page') return void response.writeHead(200, { 'content-type': 'text/html' }).end('<p>Hello')
    if (service.mode === 'nonsense') return say(200, { state: 'dancing' })
    if (request.url === '/directories')
      return say(200, [
        {
          id: 'quay',
          name: 'The Quay',
          about: 'A list.',
          wants: [
            { name: 'episode', words: 'One episode' },
            { name: 'artwork', words: 'Artwork' },
          ],
          everyHours: [6, 12],
          reviewDays: [1, 5],
          address: 'http://quay.example',
        },
      ])
    let text = ''
    request.on('data', part => (text += part))
    request.on('end', () => {
      const body = text ? (JSON.parse(text) as { feedAddress?: string; code?: string }) : {}
      if (request.method === 'PUT') service.begun.push(`${request.url} ${body.feedAddress}`)
      if (request.method === 'GET' && service.mode === 'forgets') return say(404, { why: 'No such submission.' })
      if (request.method === 'POST' && body.code !== '123456') return say(400, { why: 'This is not the code.' })
      if (request.method === 'POST') service.state = { ...service.state, state: 'in review' }
      say(200, service.state)
    })
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  house = await openHouse({
    DIRECTORIES_URL: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    SMTP_URL: 'smtp://127.0.0.1:1',
  })
})
beforeEach(() => {
  service.mode = 'well'
  service.state = fresh()
  service.begun = []
})
afterAll(async () => {
  server.close()
  await house.close()
})

let count = 0
async function showWith(episodes: number): Promise<Show & { guids: string[] }> {
  const show = await house.makeShow(`quayside-${++count}`)
  for (let number = 1; number <= episodes; number++) await release(show, `Crossing ${number}`)
  const { body } = await house.app.inject({ url: `/${show.slug}/feed.json` })
  return { ...show, guids: (JSON.parse(body) as { items: { id: string }[] }).items.map(({ id }) => id) }
}
async function release({ id }: Show, title: string): Promise<void> {
  house.clock.moveBy(60_000)
  await house.makeReleased(id, title)
}
const list = async ({ id }: Show): Promise<DirectoryList> =>
  (await house.call('GET', `/shows/${id}/directories`)).json()
const listing = async (show: Show): Promise<Listing> => (await list(show)).directories[0]!.listing!
const handIn = ({ id }: Show) => house.call('POST', `/shows/${id}/directories/quay`, {})
/** What is to be done by now is done. */
const follow = async (): Promise<void> => {
  while (await house.platform.jobs.runNext('network'));
}

it('a show is handed in by its feed address, confirmed by a code, reviewed, listed; people are told, and its page links there', async () => {
  const show = await showWith(1)
  expect((await list(show)).directories[0]).toMatchObject({ name: 'The Quay', listing: null })
  expect((await handIn(show)).statusCode).toBe(200)
  expect(service.begun).toEqual([expect.stringMatching(new RegExp(` ${show.feedAddress}$`))])
  service.state = { ...fresh(), state: 'to confirm', sentTo: 'workshop@bellowsandreeds.example' }
  house.clock.moveBy(3_000)
  await follow()
  expect(await listing(show)).toMatchObject({ state: 'to confirm', sentTo: 'workshop@bellowsandreeds.example' })
  const wrong = await house.call('POST', `/shows/${show.id}/directories/quay/code`, { code: '000000' })
  expect([wrong.statusCode, wrong.json().faults[0].field]).toEqual([422, 'code'])
  await house.call('POST', `/shows/${show.id}/directories/quay/code`, { code: ' 123456 ' })
  expect(await listing(show)).toMatchObject({ state: 'in review', listingAddress: null })
  const listingAddress = 'http://quay.example/shows/1'
  service.state = { ...fresh(), state: 'listed', listingAddress, guids: show.guids }
  house.clock.moveBy(21 * 60_000)
  await follow()
  expect(await listing(show)).toMatchObject({ state: 'listed', has: 1, lacks: [] })
  const mails = await Mail.findAll({ where: { kind: 'listed' } })
  expect(mails.map(({ subject }) => subject)).toEqual(['Bellows & Reeds is in The Quay'])
  expect((await house.app.inject({ url: `/${show.slug}` })).body).toContain(`href="${listingAddress}"`)
})

it.each(['javascript:alert(1)', 'data:text/html,x', ' https://quay.example/with space'])(
  'one that says it lists a show at %s answers what cannot be, and the page links nowhere',
  async listingAddress => {
    const show = await showWith(1)
    await handIn(show)
    service.state = { ...fresh(), state: 'listed', listingAddress, guids: show.guids }
    house.clock.moveBy(3_000)
    await follow()
    expect(await listing(show)).toMatchObject({ state: 'reading', listingAddress: null })
    expect((await house.app.inject({ url: `/${show.slug}` })).body).not.toContain(listingAddress)
  },
)

it('tells which episodes it has not yet and when to expect them, and looks sooner while it lacks any', async () => {
  const show = await showWith(1)
  await handIn(show)
  service.state = { ...fresh(), state: 'listed', listingAddress: 'http://quay.example/2', guids: show.guids }
  house.clock.moveBy(3_000)
  await follow()
  await release(show, 'The late boat')
  service.state = { ...service.state, nextFetchAt: '2026-03-10T14:00:00.000Z' }
  house.clock.moveBy(61 * 60_000)
  await follow()
  expect(await listing(show)).toMatchObject({
    has: 1,
    lacks: [{ title: 'The late boat' }],
    nextFetchAt: '2026-03-10T14:00:00.000Z',
  })
  const next = await Job.findOne({ where: { kind: 'follow-listing', state: 'open' }, order: [['runAfter', 'DESC']] })
  expect(+next!.runAfter - +house.clock.now()).toBeLessThanOrEqual(10 * 60_000)
})

it('is handed in once: again is explained away, twice at once is one, and only what was refused goes again', async () => {
  const show = await showWith(1)
  const both = await Promise.all([handIn(show), handIn(show)])
  expect(both.map(({ statusCode }) => statusCode)).toContain(200)
  expect(new Set(service.begun.map(begun => begun.split(' ')[0])).size).toBe(1)
  const again = await handIn(show)
  expect([again.statusCode, again.json().code]).toEqual([409, 'already-handed-in'])
  service.state = { ...fresh(), state: 'refused', why: 'It lacks: artwork.' }
  house.clock.moveBy(3_000)
  await follow()
  expect(await listing(show)).toMatchObject({ state: 'refused', why: 'It lacks: artwork.' })
  service.state = fresh()
  expect((await handIn(show)).statusCode).toBe(200)
  expect(new Set(service.begun.map(begun => begun.split(' ')[0])).size).toBe(2)
})

it('says before it is handed in what is lacking', async () => {
  const show = await showWith(0)
  expect((await list(show)).directories[0]!.wants).toEqual([
    { words: 'One episode', isThere: false },
    { words: 'Artwork', isThere: true },
  ])
  const refused = await handIn(show)
  expect([refused.statusCode, refused.json().detail]).toEqual([422, 'The Quay wants: One episode.'])
  expect(service.begun).toEqual([])
})

it.each([
  ['away', 'The directory does not answer.'],
  ['page', 'The directory answers with a web page.'],
  ['nonsense', 'The directory answers something that its interface does not know.'],
  ['forgets', 'The directory does not know of it any more.'],
] as const)('one that is %s is told of in words, asked again, and what was known stays', async (mode, problem) => {
  const show = await showWith(1)
  await handIn(show)
  service.mode = mode
  house.clock.moveBy(3_000)
  await follow()
  service.mode = 'well'
  expect(await listing(show)).toMatchObject({ state: 'reading', problem })
  service.state = { ...fresh(), state: 'listed', listingAddress: 'http://quay.example/3', guids: show.guids }
  house.clock.moveBy(11 * 60_000)
  await follow()
  expect(await listing(show)).toMatchObject({ state: 'listed', problem: null })
})

it('one of one’s own is kept by name and address, and links from the page until it goes', async () => {
  const show = await showWith(1)
  const bad = await house.call('POST', `/shows/${show.id}/listings`, { name: ' ', listingAddress: 'there' })
  expect(bad.json().faults.map(({ field }: { field: string }) => field)).toEqual(['name', 'listingAddress'])
  const own = { name: 'Pontoon', listingAddress: 'https://pontoon.example/bellows' }
  const { own: kept } = (await house.call('POST', `/shows/${show.id}/listings`, own)).json() as DirectoryList
  expect(kept).toMatchObject([own])
  const page = async (): Promise<string> => (await house.app.inject({ url: `/${show.slug}` })).body
  expect(await page()).toContain('https://pontoon.example/bellows')
  const other = await house.makeShow(`elsewhere-${count}`)
  expect((await house.call('DELETE', `/shows/${other.id}/listings/${kept[0]!.id}`)).statusCode).toBe(422)
  await house.call('DELETE', `/shows/${show.id}/listings/${kept[0]!.id}`)
  expect(await page()).not.toContain('pontoon')
})
