import sharp from 'sharp'
import { v7 as uuidV7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { ShowPage, ShowSummary } from '@contract/shows'
import { problem } from '@contract/problem'
import { podcastGuid } from '@core/feed/podcastGuid'
import { type House, openHouse, showFacts, squarePicture } from '../../testing/house'
import { Show } from './models'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

const sendArtwork = async (picture: Buffer, query = '') =>
  (
    await house.app.inject({
      method: 'POST',
      url: `/api/v1/artwork${query}`,
      headers: { cookie: house.cookie, 'content-type': 'application/octet-stream' },
      payload: picture,
    })
  ).json()

describe('a show', () => {
  it('has its feed at once, and the published podcast:guid of that address', async () => {
    const show = await house.makeShow('first-light')
    expect(show.feedAddress).toBe('http://lake.example/first-light/feed.xml')
    expect(show.podcastGuid).toBe(podcastGuid(show.feedAddress))
    expect((await house.app.inject({ url: '/first-light/feed.xml' })).statusCode).toBe(200)
  })

  it('cannot take a reserved or a taken address part', async () => {
    const { artworkId } = await house.makeShow('taken')
    const make = (slug: string) => house.call('POST', '/shows', { ...showFacts, slug, artworkId })
    expect((await make('studio')).json().faults[0]).toMatchObject({
      field: 'slug',
      value: 'studio',
      rule: expect.stringContaining('keeps this word'),
    })
    expect((await make('taken')).json()).toMatchObject({
      code: 'address-taken',
      faults: [{ field: 'slug', value: 'taken' }],
    })
  })

  it('with a name of 10,000 characters is refused; the error names the field, the value’s length and the rule', async () => {
    const { artworkId } = await house.makeShow('long-name')
    const answer = await house.call('POST', '/shows', {
      ...showFacts,
      slug: 'longer',
      artworkId,
      name: 'x'.repeat(10_000),
    })
    expect(answer.statusCode).toBe(422)
    expect(answer.json().faults).toEqual([
      { field: 'name', value: `${'x'.repeat(48)}… (10,000 characters)`, rule: 'At most 120 characters.' },
    ])
  })

  it('keeps its addresses and GUID when everything else changes, and the feed tells the change', async () => {
    const show = await house.makeShow('steady')
    const changed = (
      await house.call('PATCH', `/shows/${show.id}`, { version: 1, name: 'Quite Another', slug: 'elsewhere' })
    ).json()
    expect(changed).toMatchObject({
      name: 'Quite Another',
      slug: 'steady',
      feedAddress: show.feedAddress,
      podcastGuid: show.podcastGuid,
      version: 2,
    })
    expect((await house.app.inject({ url: '/steady/feed.xml' })).body).toContain('<title>Quite Another</title>')
  })

  it('changed in two windows: the second is told, and nothing else', async () => {
    const show = await house.makeShow('two-windows')
    await house.call('PATCH', `/shows/${show.id}`, { version: 1, name: 'One' })
    const second = (await house.call('PATCH', `/shows/${show.id}`, { version: 1, name: 'Two' })).json()
    expect(second).toEqual(problem.parse(second))
    expect(second).toMatchObject({ code: 'version-conflict', status: 409 })
    expect(JSON.stringify(second)).not.toMatch(/token|salt/i)
  })
})

describe('artwork', () => {
  it('is refused where it is too small, with its size named', async () => {
    expect(await sendArtwork(await squarePicture(1200))).toMatchObject({
      code: 'picture-refused',
      detail: expect.stringContaining('1200 × 1200 px'),
    })
  })

  it('that is not square comes with the offer of a crop, which then makes it square', async () => {
    const wide = await squarePicture(2000, 1500)
    const offer = await sendArtwork(wide)
    expect(offer).toMatchObject({
      code: 'picture-refused',
      detail: expect.stringContaining('2000 × 1500 px'),
      crop: { left: 250, top: 0, sidePx: 1500 },
    })
    const { left, top, sidePx } = offer.crop
    const picture = await sendArtwork(wide, `?left=${left}&top=${top}&sidePx=${sidePx}`)
    expect(picture).toMatchObject({ widthPx: 1500, heightPx: 1500 })
    const stored = await house.app.inject({ url: picture.address, headers: { cookie: house.cookie } })
    expect(await sharp(stored.rawPayload).metadata()).toMatchObject({
      width: 1500,
      height: 1500,
      format: 'jpeg',
      space: 'srgb',
    })
  })

  it('over 3000 px is scaled down by the crop', async () => {
    expect(await sendArtwork(await squarePicture(3200), '?left=0&top=0&sidePx=3200')).toMatchObject({
      widthPx: 3000,
      heightPx: 3000,
    })
  })

  it('cut from outside the picture, or from text, is refused', async () => {
    expect(await sendArtwork(await squarePicture(2000, 1500), '?left=600&top=0&sidePx=1500')).toMatchObject({
      code: 'picture-refused',
    })
    expect(await sendArtwork(Buffer.from('a text'))).toMatchObject({
      code: 'picture-refused',
      detail: expect.stringContaining('not a JPEG, PNG or WebP'),
    })
  })
})

describe('the category of a show', () => {
  const of = async (show: { id: string; version: number }, facts: object) =>
    house.call('PATCH', `/shows/${show.id}`, { version: show.version, ...facts })

  it('leaves a subcategory behind that is not its own', async () => {
    const show = await house.makeShow('categories')
    const arts = (await of(show, { category: 'Arts' })).json()
    expect(arts).toMatchObject({ category: 'Arts', subcategory: null })
    expect((await of(arts, { subcategory: 'Tennis' })).json()).toMatchObject({
      status: 422,
      faults: [{ field: 'subcategory', value: 'Tennis' }],
    })
    expect((await of(arts, { subcategory: 'Books' })).json()).toMatchObject({ category: 'Arts', subcategory: 'Books' })
  })
})

describe('a show’s facts', () => {
  it.each([
    ['a language of 40 letters', { language: `en-${'abcdefgh-'.repeat(4)}ab` }, 'language', 'At most 35 characters.'],
    [
      'a description of 4,001 bytes',
      { description: `${'ä'.repeat(2000)}x` },
      'description',
      expect.stringContaining('4,000 bytes'),
    ],
    ['a name of control characters', { name: '\u0000\u0001' }, 'name', 'Must not be empty.'],
    ['a version that no column holds', { version: 99_999_999_999 }, 'version', expect.any(String)],
  ])('are refused with %s', async (_name, facts, field, rule) => {
    const show = await house.makeShow(`refused-${field}-${Math.random().toString(36).slice(2, 8)}`)
    const answer = await house.call('PATCH', `/shows/${show.id}`, { version: 1, ...facts })
    expect(answer.json()).toMatchObject({ status: 422, faults: [{ field, rule }] })
  })
})

it('a thousand shows come in pages by their names, each once, and are found by words of the name', async () => {
  const { isPrivate: _derived, ...template } = (await Show.findOne())!.get()
  await Show.bulkCreate(
    Array.from({ length: 1000 }, (_, n) => ({
      ...template,
      id: uuidV7(),
      slug: `many-${n}`,
      name: `Crossing ${n % 10}`,
    })),
  )
  await house.platform.database.query(
    "INSERT INTO memberships (account_id, show_id, role) SELECT a.id, s.id, 'keeper' FROM accounts a JOIN shows s WHERE s.slug LIKE 'many-%'",
  )
  const page = async (query: string): Promise<ShowPage> => (await house.call('GET', `/shows?${query}`)).json()
  const seen: ShowSummary[] = []
  let total = 0
  for (let after: string | null = ''; after !== null;) {
    const next: ShowPage = await page(`limit=100${after && `&after=${after}`}`)
    seen.push(...next.shows)
    total = next.total
    after = next.after
  }
  expect(new Set(seen.map(({ id }) => id)).size).toBe(total)
  expect(seen).toHaveLength(total)
  expect(seen.map(({ name }) => name)).toEqual(
    seen.map(({ name }) => name).toSorted((one, other) => one.localeCompare(other)),
  )
  expect(await page('find=crossing%207')).toMatchObject({
    total: 100,
    shows: expect.arrayContaining([expect.objectContaining({ name: 'Crossing 7' })]),
  })
  expect(await page('find=%25')).toMatchObject({ total: 0, after: null })
})

it('a show is found by its address, and answers nothing at another', async () => {
  expect((await house.call('GET', '/shows/at/many-7')).json()).toMatchObject({ slug: 'many-7', name: 'Crossing 7' })
  for (const slug of ['nowhere', '%25', 'x'.repeat(70)])
    expect((await house.call('GET', `/shows/at/${slug}`)).statusCode).toBe(404)
})
