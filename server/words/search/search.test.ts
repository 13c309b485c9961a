import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import type { Show } from '@contract/shows'
import { readQuery } from '@core/search/query'
import { releasedVersions } from '../../show/episodes/released'
import { Show as ShowRow } from '../../show/shows/models'
import { type House, openHouse } from '../../testing/house'
import { searchService } from './service'

/** What visitors find, by the page that they see and by what is behind it. */

let house: House
let show: Show
let other: Show
const spoken = `WEBVTT

00:00.500 --> 00:03.000
<v Tove>The kettle is on, and the window open.

00:03.000 --> 00:06.000
<v Benno>It was never the reed that buzzed;

00:06.000 --> 00:09.000
<v Benno>it was a spoon. 修理する人がいます。

00:09.000 --> 00:12.000
<v Benno>Гармонь старая, но поёт.
`
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
  other = await house.makeShow('slow-ferry')
  const { id } = await house.makeReleased(show.id, 'The harmonium that coughed', {
    hook: 'A draught, a candle and a postage stamp.',
    notes:
      '<p>Odile <em>Varn</em> keeps the stamp & the <a href="https://stamps.example/">album</a>.</p><p>האקורדיון، والأكورديون 🪗</p>',
    tags: ['hide glue'],
    people: [{ name: 'Odile Varn', role: 'Guest', address: null, pictureId: null }],
    chapters: [{ id: 'c1', fromMs: 4000, title: 'The ferry bell', address: null, pictureId: null, isListed: true }],
  })
  const brought = await house.app.inject({
    method: 'POST',
    url: `/api/v1/episodes/${id}/transcripts?language=en&name=a.vtt`,
    headers: { cookie: house.cookie, 'content-type': 'text/plain' },
    payload: spoken,
  })
  expect(brought.statusCode, brought.body).toBe(201)
  await house.step(id, 'send-changes')
  await house.makeReleased(show.id, 'To be or not to be')
  await house.makeReleased(other.id, 'The last boat', { hook: 'A spoon on a ferry, and nothing else.' })
})
afterAll(() => house.close())

const find = async (asked: string, { id }: Show = show) => {
  const row = await ShowRow.findByPk(id, { rejectOnEmpty: true })
  const episodes = await releasedVersions(id, 'whoever')
  return searchService(house.platform).find(
    row,
    episodes.map(episode => episode.id),
    readQuery(asked),
  )
}
const first = async (asked: string) => (await find(asked)).episodes[0]?.places[0]
const page = (asked: string, slug = 'bellows-and-reeds') =>
  house.app.inject({ url: `/${slug}/search?q=${encodeURIComponent(asked)}` })

it('a sentence that was said is found, with when it is said and by whom', async () => {
  const place = await first('the reed that buzzed')
  expect(place).toMatchObject({ kind: 'said', speaker: 'Benno', fromMs: 3000 })
  expect(place!.parts.map(({ text }) => text).join('')).toBe('It was never the reed that buzzed; it was a spoon.')
  const { body } = await page('the reed that buzzed')
  expect(body).toMatch(/href="[^"]*\.mp3#t=3" data-plays/)
  expect(body).toContain('<mark>reed</mark>')
})

it.each([
  ['harmonium', 'title'],
  ['draught candle', 'hook'],
  ['album', 'notes'],
  ['odile', 'person'],
  ['glue', 'tag'],
  ['ferry bell', 'chapter'],
  ['kettle', 'said'],
])('%s is found in the %s', async (asked, kind) => {
  expect((await find(asked)).episodes[0]!.places.map(place => place.kind)).toContain(kind)
})

it.each([
  ['修理', 'in a writing without spaces'],
  ['修', 'by one letter of such a writing'],
  ['гармон', 'in Cyrillic, by how it begins'],
  ['BUZZ', 'whatever the case, by how it begins'],
  ['“never the reed”', 'as it stands between quotation marks'],
  ['修理する人', 'more than a word of such a writing'],
  ['אקורדיון', 'in Hebrew, without its article'],
  ['أكورديون', 'in Arabic, without its article'],
  ['🪗', 'as a picture'],
])('%s is found: %s', async asked => {
  expect((await find(asked)).episodes).toHaveLength(1)
})
it.each(['“the never reed”', 'zebra', 'buzzedly'])('%s is not found', async asked => {
  expect((await find(asked)).episodes).toEqual([])
})

it('words that are not all in one place are found where most of them are, and that is said', async () => {
  const found = await find('spoon zebra')
  expect([found.hasAllWords, found.episodes.length]).toEqual([false, 1])
  expect((await page('spoon zebra')).body).toContain('No exact matches.')
})

it('nothing of another show is found', async () => {
  expect((await find('boat')).episodes).toEqual([])
  expect((await find('boat', other)).episodes).toHaveLength(1)
  expect((await page('spoon', 'slow-ferry')).body).not.toContain('harmonium')
})

describe('what is typed', () => {
  it.each([
    ['nothing', ''],
    ['signs', '%'],
    ['more signs', '_%\\\'"`;--'],
    ['operators', '+spoon -reed ~x <y >z (a b) @4 "c" d*'],
    ['stop words only', 'the of and to'],
    ['a title of nothing but stop words', 'to be or not to be'],
    ['markup', '"><script>alert(1)</script>'],
    ['10 kB', 'spoon '.repeat(1700)],
    ['one word of 10 kB', 'x'.repeat(10_000)],
    ['every sign there is', Array.from({ length: 300 }, (_, at) => String.fromCharCode(at)).join('')],
    ['half of a letter', '\ud83e'],
  ])('%s is answered', async (_what, asked) => {
    const safe = asked.replace(/[\ud800-\udfff]/g, '\ufffd')
    const { statusCode, body } = await page(safe.length > 3000 ? safe.slice(0, 3000) : safe)
    expect(statusCode).toBe(200)
    expect(body).not.toMatch(/<script>|SQL|node_modules/)
    await find(asked)
  })
  it('to be or not to be finds that', async () => {
    expect((await find('to be or not to be')).episodes).toHaveLength(1)
  })
})

it('what is released is found at once, what is changed by its new words only, and what is taken out no more', async () => {
  const { id } = await house.makeReleased(show.id, 'A passing tide', { hook: 'Marigold at the quay.' })
  expect((await find('marigold')).episodes).toMatchObject([{ id }])
  const { version } = await house.get(id)
  await house.call('PATCH', `/episodes/${id}`, { version, text: { hook: 'Rosemary at the quay.' } })
  expect((await find('rosemary')).episodes).toEqual([])
  await house.step(id, 'send-changes')
  expect([(await find('rosemary')).episodes.length, (await find('marigold')).episodes.length]).toEqual([1, 0])
  await house.step(id, 'retire', { keepsPage: false })
  expect((await find('rosemary')).episodes).toEqual([])
})

it.each([
  ['nobody has made findable', 'revision = 0'],
  ['an earlier edition made findable', "edition = 'an earlier one'"],
])('of a show whose words %s, as after an upgrade, they are made without a visitor', async (_how, stale) => {
  const index = (): Promise<object[]> =>
    house.platform.database.query(`SELECT 1 FROM search_shows WHERE revision > 0 AND NOT (${stale})`, {
      type: QueryTypes.SELECT,
    })
  await house.platform.database.query('DELETE FROM search_episodes')
  await house.platform.database.query(`UPDATE search_shows SET ${stale}`)
  await house.platform.jobs.add({ kind: 'enforce-retention', payload: {} })
  while (await house.platform.jobs.runNext('retention'));
  expect(await index()).toEqual([])
  while (await house.platform.jobs.runNext('checking'));
  expect((await index()).length).toBeGreaterThan(1)
})

it('several that ask at once, of several processes, leave each passage there once', async () => {
  const { id } = await house.makeReleased(show.id, 'Asked at once', { hook: 'Chrysanthemum.' })
  await Promise.all(Array.from({ length: 6 }, () => find('chrysanthemum')))
  expect((await find('chrysanthemum')).episodes).toMatchObject([{ id, places: { length: 1 } }])
})

it('what is in a private strand, and a private show, is found by nobody without an address of their own', async () => {
  await house.call('POST', `/shows/${show.id}/strands`, {
    slug: 'friends',
    name: 'For friends',
    description: null,
    artworkId: null,
    goesBy: 'tag',
    value: 'secret',
    isPrivate: true,
  })
  await house.makeReleased(show.id, 'For friends only', { hook: 'Foxglove.', tags: ['secret'] })
  expect((await page('foxglove')).body).toContain('Nothing in Bellows &amp; Reeds matches “foxglove”')
  const { version } = (await house.call('GET', `/shows/${other.id}`)).json()
  await house.call('PATCH', `/shows/${other.id}`, { version, feedFacts: { isPrivate: true } })
  expect((await page('boat', 'slow-ferry')).statusCode).toBe(404)
})

it('the words of a show are made once, for however many who ask at once', async () => {
  await house.makeReleased(other.id, 'The first boat', { hook: 'Fog, and a bell.' })
  const asked = vi.spyOn(house.platform.database, 'query')
  const found = await Promise.all(['fog', 'bell', 'boat', 'spoon'].map(word => find(word, other)))
  const made = asked.mock.calls.filter(([sql]) => String(sql).includes('UPDATE search_shows SET revision'))
  asked.mockRestore()
  expect(found.map(({ episodes }) => episodes.length)).toEqual([1, 1, 2, 1])
  expect(made.length).toBe(1)
})
