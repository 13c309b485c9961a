import { afterAll, beforeAll, expect, it } from 'vitest'
import type { ListenerList } from '@contract/listeners'
import type { Show } from '@contract/shows'
import { type House, openHouse } from '../../testing/house'

let house: House
let show: Show
let page: string
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
  const { id, version } = await house.makeReady(show.id, 'The quay')
  const chapters = [{ id: 'a', fromMs: 0, title: 'All', address: null, pictureId: null, isListed: true }]
  await house.call('PATCH', `/episodes/${id}`, { version, text: { chapters } })
  const released = await house.call('POST', `/episodes/${id}/release`, { version: version + 1, when: { kind: 'now' } })
  expect(released.statusCode, released.body).toBe(200)
  page = new URL(released.json().pageAddress).pathname
})
afterAll(() => house.close())

const ask = (url: string) => house.app.inject({ url: url.replace('http://lake.example', '') })
const leadsTo = async (url: string): Promise<unknown> => {
  const { statusCode, headers } = await ask(url)
  return statusCode === 301 ? headers.location : statusCode
}
const now = async () => (await house.call('GET', `/shows/${show.id}`)).json() as Show
const move = async (slug: string, version?: number) =>
  house.call('POST', `/shows/${show.id}/address`, { slug, version: version ?? (await now()).version })

it('a show that moves leads from every address that it had, permanently, and its feed says where it is', async () => {
  const feed = (await ask('/bellows-and-reeds/feed.xml')).body
  expect(feed).not.toContain('new-feed-url')
  const answer = await move('reeds')
  expect(answer.statusCode, answer.body).toBe(200)
  expect(answer.json()).toMatchObject({ slug: 'reeds', feedAddress: 'http://lake.example/reeds/feed.xml' })
  for (const path of ['/feed.xml', '/feed.json', '', page.replace('/bellows-and-reeds', '')])
    expect([path, await leadsTo(`/bellows-and-reeds${path}`)]).toEqual([path, `http://lake.example/reeds${path}`])
  expect((await ask(`${page}/chapters.json`)).statusCode).toBe(200)
  const moved = (await ask('/reeds/feed.xml')).body
  expect(moved).toContain('<itunes:new-feed-url>http://lake.example/reeds/feed.xml</itunes:new-feed-url>')
  // Who it is, and who its episodes are, stays.
  const known = (xml: string): string[] => xml.match(/<(podcast:guid|guid|pubDate|enclosure)[ >][^\n]*/g)!
  expect(known(moved)).toEqual(known(feed))
})

it('its strands stay who they are, and say of themselves where they are', async () => {
  const strand = { slug: 'best', name: 'Best', description: null, artworkId: null, goesBy: 'kind', value: 'full' }
  expect((await house.call('POST', `/shows/${show.id}/strands`, strand)).statusCode).toBe(200)
  const before = (await ask('/reeds/strands/best/feed.xml')).body
  await move('organ')
  expect(await leadsTo('/reeds/strands/best/feed.xml')).toBe('http://lake.example/organ/strands/best/feed.xml')
  const after = (await ask('/organ/strands/best/feed.xml')).body
  const told = (xml: string, name: string): string => new RegExp(`<${name}>([^<]+)<`).exec(xml)![1]!
  expect(told(after, 'podcast:guid')).toBe(told(before, 'podcast:guid'))
  // Whoever subscribed to a strand is not led to the whole show.
  expect(told(after, 'itunes:new-feed-url')).toBe('http://lake.example/organ/strands/best/feed.xml')
  const added = await house.call('POST', `/shows/${show.id}/listeners`, { names: ['Benno'], strandId: null })
  const { address } = (added.json() as ListenerList).listeners.find(({ name }) => name === 'Benno')!
  expect(told((await ask(address)).body, 'itunes:new-feed-url')).toBe(address)
})

it('again and again, and back to where it was, without going round in circles', async () => {
  await move('harmonium')
  expect(await leadsTo('/bellows-and-reeds/feed.xml')).toBe('http://lake.example/harmonium/feed.xml')
  expect(await leadsTo('/reeds/feed.xml')).toBe('http://lake.example/harmonium/feed.xml')
  await move('bellows-and-reeds')
  expect(await leadsTo('/bellows-and-reeds/feed.xml')).toBe(200)
  expect(await leadsTo('/harmonium/feed.xml')).toBe('http://lake.example/bellows-and-reeds/feed.xml')
})

it('its listeners’ own addresses go on answering, and the studio is found at the old one', async () => {
  const added = await house.call('POST', `/shows/${show.id}/listeners`, { names: ['Odile'], strandId: null })
  const { address } = (added.json() as ListenerList).listeners[0]!
  await move('lake')
  expect((await ask(address)).statusCode).toBe(200)
  expect((await house.call('GET', '/shows/at/bellows-and-reeds')).json()).toMatchObject({ id: show.id, slug: 'lake' })
})

it('an address that a show had is nobody else’s, nor is one that another has, and what is none is refused', async () => {
  await house.makeShow('slow-ferry')
  const facts = { ...(await now()), slug: 'reeds', artworkId: null }
  for (const answer of [await house.call('POST', '/shows', facts), await move('slow-ferry')]) {
    expect(answer.statusCode, answer.body).toBe(409)
    expect(answer.json().faults[0]).toMatchObject({ field: 'slug', rule: 'Another show has this address, or had it.' })
  }
  for (const slug of ['', 'Not so', 'api', 'studio', 'x'.repeat(61)])
    expect([slug, (await move(slug)).json().faults[0].field]).toEqual([slug, 'slug'])
})

it.each(['e%CC%81', '%00', '%F0%9F%8E%99', 'a%0Ab', 'A'.repeat(80)])('at the address %s is nothing', async slug => {
  for (const path of ['/feed.xml', '', '/a/chapters.json', '/a/soundbites/b.mp3'])
    expect([path, (await ask(`/${slug}${path}`)).statusCode]).toEqual([path, 404])
})

it('of two windows that move it the later one is told', async () => {
  const { version } = await now()
  const answers = [await move('one', version), await move('two', version)]
  expect(answers.map(({ statusCode }) => statusCode)).toEqual([200, 409])
  expect(answers[1]!.json().code).toBe('version-conflict')
})
