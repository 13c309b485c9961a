import { parseRssFeed } from 'feedsmith'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { Show } from '@contract/shows'
import type { StrandList } from '@contract/strands'
import { type House, openHouse, squarePicture } from '../../testing/house'

let house: House
let show: Show
const ids: string[] = []
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
  const texts = [
    { title: 'The quay', season: 1, tags: ['Reeds'], kind: 'full' },
    { title: 'The chapel', season: 2, tags: ['bellows'], kind: 'full' },
    { title: 'Soon', season: 2, tags: ['reed', 'lake'], kind: 'trailer' },
  ]
  for (const [index, text] of texts.entries()) {
    const made = (await house.makeReady(show.id, text.title)) as Episode
    const { id, version } = (
      await house.call('PATCH', `/episodes/${made.id}`, { version: made.version, text: { ...text, number: index + 1 } })
    ).json() as Episode
    house.clock.moveBy(60_000)
    await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
    ids.push(id)
  }
})
afterAll(() => house.close())

const facts = { description: null, artworkId: null }
const make = (strand: object) => house.call('POST', `/shows/${show.id}/strands`, { ...facts, ...strand })
const feedOf = async (slug: string) => {
  const answer = await house.app.inject({ url: `/bellows-and-reeds/strands/${slug}/feed.xml` })
  return { status: answer.statusCode, read: answer.statusCode === 200 ? parseRssFeed(answer.body) : null }
}
const titles = async (slug: string) => (await feedOf(slug)).read!.items?.map(({ title }) => title) ?? []

describe('a strand', () => {
  it.each([
    ['season', '2', ['Soon', 'The chapel']],
    ['tag', 'reed', ['Soon', 'The quay']],
    ['kind', 'trailer', ['Soon']],
    ['hand', null, []],
  ])('goes by %s %s', async (goesBy, value, wanted) => {
    const slug = `by-${goesBy}`
    const answer = await make({ slug, name: `By ${goesBy}`, goesBy, value })
    expect(answer.statusCode, answer.body).toBe(200)
    expect(await titles(slug)).toEqual(wanted)
    const told = (answer.json() as StrandList).strands.find(strand => strand.slug === slug)!
    expect(told).toMatchObject({
      released: wanted.length,
      feedAddress: `http://lake.example/bellows-and-reeds/strands/${slug}/feed.xml`,
    })
  })

  it('has a feed of its own that says what the show says where it says nothing; its episodes stay who they are', async () => {
    const main = parseRssFeed((await house.app.inject({ url: '/bellows-and-reeds/feed.xml' })).body)
    const { read } = await feedOf('by-season')
    expect(read).toMatchObject({ title: 'By season', description: main.description, language: main.language })
    expect(read!.podcast!.guid).not.toBe(main.podcast!.guid)
    expect(read!.atom!.links![0]).toMatchObject({
      rel: 'self',
      href: 'http://lake.example/bellows-and-reeds/strands/by-season/feed.xml',
    })
    const guids = new Map(main.items!.map(({ title, guid, enclosures }) => [title, [guid!.value, enclosures![0]!.url]]))
    for (const { title, guid, enclosures, source } of read!.items!) {
      expect([guid!.value, enclosures![0]!.url]).toEqual(guids.get(title))
      expect(source).toEqual({ title: main.title, url: 'http://lake.example/bellows-and-reeds/feed.xml' })
    }
  })

  it('takes words and artwork of its own, episodes chosen by hand, and goes without taking them along', async () => {
    const list = async () => (await house.call('GET', `/shows/${show.id}/strands`)).json() as StrandList
    const strand = (await list()).strands.find(({ slug }) => slug === 'by-hand')!
    const { body } = await house.app.inject({
      method: 'POST',
      url: '/api/v1/artwork',
      headers: { cookie: house.cookie, 'content-type': 'application/octet-stream' },
      payload: await squarePicture(1600),
    })
    const artworkId = (JSON.parse(body) as { id: string }).id
    const change = { name: 'The best', description: 'Begin here.', artworkId, goesBy: 'hand', value: null }
    const changed = await house.call('PUT', `/strands/${strand.id}`, { ...change, version: strand.version })
    expect(changed.statusCode, changed.body).toBe(200)
    expect((await house.call('PUT', `/strands/${strand.id}`, { ...change, version: strand.version })).json().code).toBe(
      'version-conflict',
    )
    await house.call('PUT', `/strands/${strand.id}/episodes`, { episodeIds: [ids[0], ids[1], ids[0]] })
    const { read } = await feedOf('by-hand')
    expect(read).toMatchObject({ title: 'The best', description: 'Begin here.' })
    expect(read!.itunes!.image).toContain(artworkId)
    expect(await titles('by-hand')).toEqual(['The chapel', 'The quay'])
    const picture = new URL(read!.itunes!.image!).pathname
    expect((await house.app.inject({ url: picture })).statusCode).toBe(200)
    expect((await house.call('DELETE', `/strands/${strand.id}`)).statusCode).toBe(200)
    expect((await feedOf('by-hand')).status).toBe(404)
    expect((await house.app.inject({ url: '/bellows-and-reeds/feed.xml' })).body).toContain('The quay')
  })

  it('follows its episodes: what comes to belong is in it, what is taken out of the feed is not', async () => {
    const { version } = await house.get(ids[0]!)
    await house.call('PATCH', `/episodes/${ids[0]}`, { version, text: { season: 2 } })
    expect(await titles('by-season')).toEqual(['Soon', 'The chapel'])
    await house.call('POST', `/episodes/${ids[0]}/send-changes`, { version: version + 1 })
    expect(await titles('by-season')).toEqual(['Soon', 'The chapel', 'The quay'])
    await house.call('POST', `/episodes/${ids[2]}/retire`, {
      version: (await house.get(ids[2]!)).version,
      keepsPage: false,
    })
    expect(await titles('by-season')).toEqual(['The chapel', 'The quay'])
  })

  it('is refused with the field, the value and the rule', async () => {
    for (const [strand, field] of [
      [{ slug: 'by-tag', name: 'Again', goesBy: 'tag', value: 'x' }, 'slug'],
      [{ slug: 'Not so', name: 'x', goesBy: 'hand', value: null }, 'slug'],
      [{ slug: 'x', name: '', goesBy: 'hand', value: null }, 'name'],
      [{ slug: 'x', name: 'x', goesBy: 'season', value: 'two' }, 'value'],
      [{ slug: 'x', name: 'x', goesBy: 'kind', value: 'special' }, 'value'],
      [{ slug: 'x', name: 'x', goesBy: 'tag', value: ' ' }, 'value'],
      [{ slug: 'x', name: 'x', goesBy: 'hand', value: null, artworkId: 'ab'.repeat(32) }, 'artworkId'],
    ] as const) {
      const answer = await make(strand)
      expect([answer.statusCode >= 400, answer.json().faults[0].field], JSON.stringify(strand)).toEqual([true, field])
    }
    const other = await house.makeShow('slow-ferry')
    const foreign = (await house.makeReady(other.id, 'Elsewhere')) as Episode
    const { strands } = (await make({ slug: 'mine', name: 'Mine', goesBy: 'hand', value: null })).json() as StrandList
    const mine = strands.find(({ slug }) => slug === 'mine')!
    const answer = await house.call('PUT', `/strands/${mine.id}/episodes`, { episodeIds: [foreign.id] })
    expect(answer.json().faults[0].field).toBe('episodeIds')
  })
})
