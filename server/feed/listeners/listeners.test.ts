import { parseRssFeed } from 'feedsmith'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Listener, ListenerList } from '@contract/listeners'
import type { Show } from '@contract/shows'
import type { StrandList } from '@contract/strands'
import { lacking } from '../directories/follow'
import { type House, openHouse } from '../../testing/house'

let house: House
let show: Show
const ids: Record<string, string> = {}
beforeAll(async () => {
  house = await openHouse({ HUB_URL: 'http://127.0.0.1:9/hub' })
  show = await house.makeShow('bellows-and-reeds')
  const other = await house.makeShow('slow-ferry')
  for (const [title, of, text] of [
    ['The quay', show.id, { tags: ['reeds'] }],
    [
      'For friends',
      show.id,
      {
        tags: ['friends'],
        notes: '<p>At {episode page}</p>',
        soundbites: [{ id: 'bite', fromMs: 0, toMs: 2_000, title: 'Hear' }],
        chapters: [{ id: 'a', fromMs: 0, title: 'All of it', address: null, pictureId: null, isListed: true }],
      },
    ],
    ['Elsewhere', other.id, {}],
  ] as const) {
    const { id } = await house.makeReady(of, title)
    await house.workOnSound()
    const transcript = { method: 'POST', url: `/api/v1/episodes/${id}/transcripts?language=en` } as const
    const headers = { cookie: house.cookie, 'content-type': 'text/plain' }
    await house.app.inject({ ...transcript, headers, payload: 'One note will not stop.' })
    const { version } = await house.get(id)
    const written = await house.call('PATCH', `/episodes/${id}`, { version, text })
    expect(written.statusCode, written.body).toBe(200)
    house.clock.moveBy(60_000)
    const when = { version: written.json().version, when: { kind: 'now' } }
    expect((await house.call('POST', `/episodes/${id}/release`, when)).statusCode).toBe(200)
    ids[title] = id
  }
})
afterAll(() => house.close())

const ask = (url: string, headers: Record<string, string> = {}) =>
  house.app.inject({ url: url.replace('http://lake.example', ''), headers })
const listeners = async () => (await house.call('GET', `/shows/${show.id}/listeners`)).json() as ListenerList
const add = async (names: string[], strandId: string | null = null): Promise<Listener[]> => {
  const answer = await house.call('POST', `/shows/${show.id}/listeners`, { names, strandId })
  expect(answer.statusCode, answer.body).toBe(200)
  return (answer.json() as ListenerList).listeners.filter(({ name }) => names.includes(name))
}
const titlesAt = async (address: string): Promise<(string | undefined)[]> =>
  parseRssFeed((await ask(address)).body).items!.map(({ title }) => title)
const publicFeed = '/bellows-and-reeds/feed.xml'
/** Every address in the house that a feed names, but those of pictures. */
const addressesIn = (xml: string): string[] =>
  [...new Set([...xml.matchAll(/https?:\/\/lake\.example[^\s"'<]*/g)].map(([address]) => address))].filter(
    address => !address.includes('/media/artwork/'),
  )
async function setPrivate(isPrivate: boolean): Promise<void> {
  const { version } = (await house.call('GET', `/shows/at/bellows-and-reeds`)).json() as Show
  const answer = await house.call('PATCH', `/shows/${show.id}`, { version, feedFacts: { isPrivate } })
  expect(answer.statusCode, answer.body).toBe(200)
}

describe('a strand for its own listeners', () => {
  let strandId: string
  let odile: Listener
  let benno: Listener
  beforeAll(async () => {
    const made = await house.call('POST', `/shows/${show.id}/strands`, {
      slug: 'friends',
      name: 'Bellows for friends',
      description: null,
      artworkId: null,
      goesBy: 'tag',
      value: 'friends',
      isPrivate: true,
    })
    strandId = (made.json() as StrandList).strands[0]!.id
    ;[odile, benno] = (await add(['Odile', 'Benno'], strandId)).toSorted((one, other) =>
      other.name.localeCompare(one.name),
    ) as [Listener, Listener]
  })

  it('goes out to them, each at an address of their own, and is nowhere else', async () => {
    expect(await titlesAt(publicFeed)).toEqual(['The quay'])
    expect(await titlesAt(odile.address)).toEqual(['For friends'])
    expect((await ask('/bellows-and-reeds/strands/friends/feed.xml')).statusCode).toBe(404)
    expect((await ask('/bellows-and-reeds')).body).not.toContain('For friends')
    const { body, headers } = await ask(odile.address)
    expect(headers).toMatchObject({ 'cache-control': 'private, no-cache', 'x-robots-tag': 'noindex, nofollow' })
    expect(body).toContain('<itunes:block>Yes</itunes:block>')
    expect(body).not.toContain('rel="hub"')
    expect(body).toContain('<title>Bellows for friends</title>')
    const secret = /_([\w-]{32})\//.exec(odile.address)![1]!
    const others = addressesIn(body).filter(address => !address.includes(`/_${secret}/`))
    // Only where the show itself stands may be told of without the secret.
    expect(others).toEqual(['http://lake.example/bellows-and-reeds/feed.xml'])
  })

  it('has all that its feed names at addresses with the same secret, which nobody finds without it', async () => {
    const { body } = await ask(odile.address)
    const secret = /_[\w-]{32}\//.exec(odile.address)![0]
    const own = addressesIn(body).filter(address => address.includes(secret))
    // The feed, the page, the sound twice, chapters, a transcript in several forms.
    expect(own.length).toBeGreaterThanOrEqual(6)
    for (const address of own) {
      expect([address, (await ask(address)).statusCode]).toEqual([address, 200])
      expect([address, (await ask(address.replace(secret, ''))).statusCode]).toEqual([
        address,
        // The show and its feed are for everybody.
        /reeds(\/feed\.xml)?$/.test(address) ? 200 : 404,
      ])
      expect((await ask(address.replace(secret, `_${'a'.repeat(32)}/`))).statusCode).toBe(404)
    }
    const sound = own.find(address => address.includes('/media/'))!
    const part = await ask(sound, { range: 'bytes=0-9' })
    expect([part.statusCode, part.rawPayload.length]).toEqual([206, 10])
    expect(part.headers['cache-control']).toMatch(/^private,/)
    expect(part.headers['x-robots-tag']).toBe('noindex, nofollow')
    const page = (await ask(own.find(address => address.endsWith('/for-friends'))!)).body
    expect(page).toContain(`${secret}bellows-and-reeds/for-friends/soundbites/bite.mp3`)
    // Nobody is sent a link to it, and the picture for that is not drawn.
    expect(page).not.toContain('share.jpg')
    expect((await ask(`/${secret}bellows-and-reeds/for-friends/soundbites/bite.mp3`)).statusCode).toBe(200)
    expect((await ask('/bellows-and-reeds/for-friends/soundbites/bite.mp3')).statusCode).toBe(404)
  })

  it('does not open what is in another strand or show', async () => {
    const secret = /_[\w-]{32}/.exec(odile.address)![0]
    for (const title of ['The quay', 'Elsewhere']) {
      const { enclosureAddress } = await house.get(ids[title]!)
      const path = new URL(enclosureAddress!).pathname
      expect((await ask(path)).statusCode).toBe(200)
      expect([title, (await ask(`/${secret}${path}`)).statusCode]).toEqual([title, 404])
    }
    for (const path of ['/slow-ferry/feed.xml', '/slow-ferry', '/bellows-and-reeds/the-quay'])
      expect([path, (await ask(`/${secret}${path}`)).statusCode]).toEqual([path, 404])
  })

  it('is not waited for by directories', async () => {
    const lacks = await lacking({ showId: show.id, guids: [] })
    expect(lacks.map(({ title }) => title)).toEqual(['The quay'])
  })

  it('is written once for all, and told to each in their own words', async () => {
    const [hers, his] = [await ask(odile.address), await ask(benno.address)]
    expect(hers.headers.etag).not.toBe(his.headers.etag)
    const secretOf = ({ address }: Listener): string => /_([\w-]{32})/.exec(address)![1]!
    expect(hers.body.replaceAll(secretOf(odile), secretOf(benno))).toBe(his.body)
    expect((await ask(odile.address, { 'if-none-match': String(hers.headers.etag) })).statusCode).toBe(304)
  })

  it('knows when an app of theirs fetched it, and what it was', async () => {
    await ask(benno.address, { 'user-agent': 'Pontoon/3.1 (phone)' })
    house.clock.moveBy(60 * 60_000)
    await ask(benno.address, { 'user-agent': 'Pontoon/3.1 (phone)' })
    const known = (await listeners()).listeners.find(({ name }) => name === 'Benno')!
    expect(known).toMatchObject({ agent: 'Pontoon', lastAt: house.clock.now().toISOString() })
  })

  it('is renewed, withdrawn and given back for each alone', async () => {
    const renewed = await house.call('POST', `/listeners/${odile.id}/renewal`)
    const { address } = (renewed.json() as ListenerList).listeners.find(({ id }) => id === odile.id)!
    expect((await ask(odile.address)).statusCode).toBe(404)
    expect((await ask(address)).statusCode).toBe(200)
    await house.call('POST', `/listeners/${benno.id}/withdrawal`)
    expect((await ask(benno.address)).statusCode).toBe(404)
    expect((await ask(address)).statusCode).toBe(200)
    await house.call('POST', `/listeners/${benno.id}/restoration`)
    expect((await ask(benno.address)).statusCode).toBe(200)
    odile = { ...odile, address }
  })

  it('follows its episodes: one that comes to belong leaves the feed, page and sound that everybody has', async () => {
    const quay = await house.get(ids['The quay']!)
    const sound = new URL(quay.enclosureAddress!).pathname
    expect((await ask(sound)).statusCode).toBe(200)
    await house.call('PATCH', `/episodes/${quay.id}`, { version: quay.version, text: { tags: ['friends'] } })
    await house.call('POST', `/episodes/${quay.id}/send-changes`, { version: quay.version + 1 })
    expect(await titlesAt(odile.address)).toEqual(['For friends', 'The quay'])
    expect(parseRssFeed((await ask(publicFeed)).body).items ?? []).toEqual([])
    expect((await ask(sound)).statusCode).toBe(404)
    expect((await ask('/bellows-and-reeds/the-quay')).statusCode).toBe(404)
    const now = await house.get(quay.id)
    await house.call('PATCH', `/episodes/${quay.id}`, { version: now.version, text: { tags: ['reeds'] } })
    await house.call('POST', `/episodes/${quay.id}/send-changes`, { version: now.version + 1 })
    expect((await ask(sound)).statusCode).toBe(200)
  })

  it('that is for everybody again is where strands are, and keeps who it is', async () => {
    const { strands } = (await house.call('GET', `/shows/${show.id}/strands`)).json() as StrandList
    const { version, name, description, artworkId, goesBy, value } = strands[0]!
    const change = { name, description, artworkId, goesBy, value, version, isPrivate: false }
    expect((await house.call('PUT', `/strands/${strandId}`, change)).statusCode).toBe(200)
    const own = parseRssFeed((await ask('/bellows-and-reeds/strands/friends/feed.xml')).body)
    const theirs = parseRssFeed((await ask(odile.address)).body)
    expect(theirs.podcast!.guid).toBe(own.podcast!.guid)
    expect(await titlesAt(publicFeed)).toEqual(['For friends', 'The quay'])
  })
})

describe('a show for its own listeners', () => {
  let odile: Listener
  beforeAll(async () => {
    ;[odile] = (await add(['Odile of the chapel'])) as [Listener]
    await setPrivate(true)
  })

  it('has no feed, page or sound for everybody', async () => {
    const { enclosureAddress } = await house.get(ids['The quay']!)
    for (const path of [
      publicFeed,
      '/bellows-and-reeds/feed.json',
      '/bellows-and-reeds/strands/friends/feed.xml',
      '/bellows-and-reeds',
      '/bellows-and-reeds/the-quay',
      new URL(enclosureAddress!).pathname,
    ])
      expect([path, (await ask(path)).statusCode]).toEqual([path, 404])
    expect(await titlesAt(odile.address)).toEqual(['For friends', 'The quay'])
    const page = (await ask(odile.address.replace('/feed.xml', ''))).body
    expect(page).toContain('The quay')
    expect(page).toContain(odile.address)
  })

  it('is checked and followed in the studio like any other, and no directory takes it', async () => {
    const overview = await house.call('GET', `/shows/${show.id}/feed`)
    expect(overview.statusCode, overview.body).toBe(200)
    expect(overview.json()).toMatchObject({ items: 2 })
    // Nobody is told to mend that directories are asked not to list it.
    expect(overview.json().findings.map(({ name }: { name: string }) => name)).not.toContain('blocked-show')
    expect((await listeners()).isPrivate).toBe(true)
  })

  it('tells in the studio what is private', async () => {
    expect((await house.get(ids['The quay']!)).isPrivate).toBe(true)
    await setPrivate(false)
    expect((await house.get(ids['The quay']!)).isPrivate).toBe(false)
    // What is not out yet is nowhere, and not private.
    const draft = await house.call('POST', `/shows/${show.id}/episodes`, { title: 'Soon' })
    expect((await house.get(draft.json().id)).isPrivate).toBe(false)
    await setPrivate(true)
  })

  it('is for everybody again at once', async () => {
    const { enclosureAddress } = await house.get(ids['The quay']!)
    await setPrivate(false)
    for (const path of [publicFeed, '/bellows-and-reeds', new URL(enclosureAddress!).pathname])
      expect([path, (await ask(path)).statusCode]).toEqual([path, 200])
    expect((await ask(odile.address)).statusCode).toBe(200)
  })
})

describe('what is refused', () => {
  beforeEach(() => house.clock.moveBy(1000))
  it.each([
    ['no name', { names: [], strandId: null }, 'names', 'At least one name.'],
    ['an empty name', { names: [' '], strandId: null }, 'names.0', 'Must not be empty.'],
    ['201 names', { names: Array(201).fill('Odile'), strandId: null }, 'names', 'At most 200 at once.'],
    [
      'a strand that is not there',
      { names: ['Odile'], strandId: '00000000-0000-4000-8000-000000000000' },
      'strandId',
      'A strand of this show that is for its own listeners.',
    ],
  ])('%s', async (_what, body, field, rule) => {
    const answer = await house.call('POST', `/shows/${show.id}/listeners`, body)
    expect(answer.statusCode).toBe(422)
    expect(answer.json().faults[0]).toMatchObject({ field, rule })
  })
})
