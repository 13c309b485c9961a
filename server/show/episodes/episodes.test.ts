import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode as EpisodeView, EpisodePage, EpisodesNear } from '@contract/episodes'
import { firstRecipe } from '@core/audio/recipe'
import { type House, openHouse, sounds } from '../../testing/house'
import { Episode } from './models'

let house: House
let showId: string
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
})
afterAll(() => house.close())

const create = async (): Promise<EpisodeView> => (await house.call('POST', `/shows/${showId}/episodes`, {})).json()
const page = async (id: string, query = ''): Promise<EpisodePage> =>
  (await house.call('GET', `/shows/${id}/episodes${query}`)).json()
const change = (id: string, version: number, text: object) => house.call('PATCH', `/episodes/${id}`, { version, text })

describe('saving an episode', () => {
  it('gives each save a new version, and none to a save that changes nothing', async () => {
    const { id } = await create()
    expect((await change(id, 1, { title: 'One' })).json().version).toBe(2)
    expect((await change(id, 2, { title: 'One' })).json().version).toBe(2)
  })

  it('cleans the notes', async () => {
    const { id } = await create()
    const saved = (
      await change(id, 1, {
        notes: '<p onclick="x()">Hi<script>alert(1)</script> <a href="javascript:x()">a</a> <b>open',
      })
    ).json() as EpisodeView
    expect(saved.text.notes).toBe('<p>Hi a <strong>open</strong></p>')
  })

  it('of notes from before there was one spelling, the spelling alone is no change', async () => {
    const { id } = await create()
    const notes = '<p>With:</p>\n<ul><li><p>a letter</p></li></ul><p></p>'
    await Episode.update({ notes }, { where: { id } })
    const same = (await change(id, 1, { notes: '<p>With:</p><ul><li>a letter</li></ul>' })).json()
    expect(same).toMatchObject({ version: 1, text: { notes } })
    const other = (await change(id, 1, { notes: '<p>With:</p><ul><li>a letter</li><li>a stamp</li></ul>' })).json()
    expect(other).toMatchObject({
      version: 2,
      text: { notes: '<p>With:</p><ul><li>a letter</li><li>a stamp</li></ul>' },
    })
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
    expect(second.json()).toMatchObject({
      code: 'version-conflict',
      current: { version: 2, text: { title: 'From the first window' } },
    })
    const kept = (await house.call('GET', `/episodes/${id}/history/${second.json().keptId}`)).json()
    expect(kept).toMatchObject({ act: 'kept aside', text: { title: 'From the second window', number: 4 } })
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
  it('has drafts first, then scheduled, the next one first, then released, newest first', async () => {
    const show = await house.makeShow('ordered')
    const [one, two, three, four] = [
      await house.makeReady(show.id, 'First out'),
      await house.makeReady(show.id, 'Later'),
      await house.makeReady(show.id, 'Sooner'),
      await house.makeReady(show.id, 'Still open'),
    ]
    const at = (local: string) => ({ kind: 'at', local, zone: 'Europe/Zurich' })
    await house.call('POST', `/episodes/${one!.id}/release`, { version: one!.version, when: { kind: 'now' } })
    await house.call('POST', `/episodes/${two!.id}/release`, { version: two!.version, when: at('2026-05-02T06:00') })
    await house.call('POST', `/episodes/${three!.id}/release`, {
      version: three!.version,
      when: at('2026-05-01T06:00'),
    })
    const list = await page(show.id)
    expect(list.episodes.map(({ title }) => title)).toEqual(['Still open', 'Sooner', 'Later', 'First out'])
    expect(list).toMatchObject({ total: 4, after: null })
    expect(list.episodes.map(({ id }) => id)).toContain(four!.id)
    const near = (await house.call('GET', `/shows/${show.id}/episodes/near`)).json() as EpisodesNear
    expect(
      [near.draft, near.scheduled, near.released, near.retired].map(({ episodes }) =>
        episodes.map(({ title }) => title),
      ),
    ).toEqual([['Still open'], ['Sooner', 'Later'], ['First out'], []])
  })

  it('comes in pages that have each episode once, also while drafts are written between them', async () => {
    const show = await house.makeShow('paged')
    for (let n = 1; n <= 23; n++) {
      house.clock.moveBy(1000)
      await house.call('POST', `/shows/${show.id}/episodes`, { title: `Reed ${n}` })
    }
    const titles: string[] = []
    let after: string | null = ''
    for (let n = 0; after !== null; n++) {
      const { episodes, after: next, total } = await page(show.id, `?limit=5${after && `&after=${after}`}`)
      titles.push(...episodes.map(({ title }) => title))
      expect(total).toBe(23)
      // One that was listed already moves to the top; nothing behind the cursor does.
      if (n === 1) await change(episodes[0]!.id, 1, { season: 2 })
      after = next
    }
    expect(titles).toEqual(Array.from({ length: 23 }, (_, n) => `Reed ${23 - n}`))
  })

  it('is searched by words of the title, whatever their case, and by number; signs of the query language are signs', async () => {
    const show = await house.makeShow('searched')
    const titles = ['The wet reed', '100 % wool', 'A_b', 'Axb', "O’Leary\\’s 'bellows'"]
    for (const title of titles) await house.call('POST', `/shows/${show.id}/episodes`, { title })
    const [first] = (await page(show.id, '?find=wet')).episodes
    await change(first!.id, 1, { number: 31 })
    const found = async (find: string) =>
      (await page(show.id, `?find=${encodeURIComponent(find)}`)).episodes.map(({ title }) => title)
    expect(await found('WET re')).toEqual(['The wet reed'])
    expect(await found('31')).toEqual(['The wet reed'])
    expect(await found('%')).toEqual(['100 % wool'])
    expect(await found('A_')).toEqual(['A_b'])
    expect(await found("'bel")).toEqual([titles[4]])
    expect(await found('\\')).toEqual([titles[4]])
    expect(await found('nothing of the kind')).toEqual([])
  })

  it.each(['1', 'draft.1', 'draft.1.x', "draft.1.' OR 1=1 --", 'film.1.01a20b82-0000-7000-8000-000000000000'])(
    'refuses a cursor that no page gave: %s',
    async after => {
      const answer = await house.call('GET', `/shows/${showId}/episodes?after=${encodeURIComponent(after)}`)
      expect(answer.json()).toMatchObject({ status: 422, faults: [{ field: 'after', value: after }] })
    },
  )

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
    expect(answer.json()).toMatchObject({
      status: 422,
      faults: [{ field: 'text.notes', rule: expect.stringContaining('100,000') }],
    })
    expect((await house.call('GET', `/episodes/${id}`)).json()).toMatchObject({ version: 1, text: { notes: '' } })
    expect((await change(id, 1, { notes: '&'.repeat(19_000) })).statusCode).toBe(200)
  })

  it('a title on several lines, or with control characters, is one line', async () => {
    const { id } = await create()
    expect((await change(id, 1, { title: 'The wet\nreed\u0000\u0007' })).json().text.title).toBe('The wet reed')
  })

  it('half a letter becomes a sign that stands for it', async () => {
    const { id } = await create()
    const answer = await house.app.inject({
      method: 'PATCH',
      url: `/api/v1/episodes/${id}`,
      headers: { cookie: house.cookie, 'content-type': 'application/json' },
      payload: '{"version":1,"text":{"title":"reed \\ud83e"}}',
    })
    expect(answer.json().text.title).toBe('reed \ufffd')
  })

  it('a row from before a rule became stricter is told all the same', async () => {
    const { id } = await create()
    await Episode.update({ number: 20_261_125, title: 'x'.repeat(300) }, { where: { id } })
    expect((await house.call('GET', `/episodes/${id}`)).json().text.number).toBe(20_261_125)
    expect((await house.call('GET', `/shows/${showId}/episodes`)).statusCode).toBe(200)
  })
})

describe('the sound of an episode', () => {
  it('has a version of its own: what is written does not change it, and measuring changes neither', async () => {
    const { id } = await create()
    await house.bring(id, join(sounds, 'br-37.mp3'))
    const brought = await house.get(id)
    await change(id, brought.version, { title: 'Written meanwhile' })
    expect((await house.get(id)).sound.version).toBe(brought.sound.version)
    await house.workOnSound()
    const measured = await house.get(id)
    expect([measured.version, measured.sound.version]).toEqual([brought.version + 1, brought.sound.version])
    expect(measured.sound.source!.measuring).toBe('done')
  })

  it('is finished without a word about it to whoever is writing', async () => {
    const { id, version, sound } = await house.makeReady(showId, 'Typed on')
    await house.workOnSound()
    await house.call('POST', `/episodes/${id}/finish`, { version: sound.version, recipe: firstRecipe })
    await house.workOnSound()
    expect((await change(id, version, { title: 'Typed on and on' })).statusCode).toBe(200)
    expect((await house.get(id)).sound).toMatchObject({ finishing: 'done', version: sound.version + 2 })
  })

  it('that was changed in another window is not released by one that has not seen it, if that says which it has seen', async () => {
    const { id, version, sound } = await house.makeReady(showId, 'Two windows')
    await house.call('PUT', `/episodes/${id}/recipe`, { version: sound.version, recipe: firstRecipe })
    await house.call('PUT', `/episodes/${id}/recipe`, { version: sound.version + 1, recipe: null })
    const answer = await house.call('POST', `/episodes/${id}/release`, {
      version,
      soundVersion: sound.version,
      when: { kind: 'now' },
    })
    expect(answer.json()).toMatchObject({
      status: 409,
      code: 'version-conflict',
      detail: expect.stringContaining('sound'),
    })
    expect(
      (
        await house.call('POST', `/episodes/${id}/release`, {
          version,
          soundVersion: sound.version + 2,
          when: { kind: 'now' },
        })
      ).statusCode,
    ).toBe(200)
  })
})

describe('what a show’s episodes have used', () => {
  it('is told: tags with how often, people the latest first; and nobody else’s', async () => {
    const [show, other] = [await house.makeShow('words-used'), await house.makeShow('words-elsewhere')]
    const write = async (showId: string, text: object): Promise<void> => {
      const { id, version } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json() as EpisodeView
      const answer = await house.call('PATCH', `/episodes/${id}`, { version, text })
      expect(answer.statusCode, answer.body).toBe(200)
    }
    const odile = { name: 'Odile', role: 'Guest', address: 'https://lake.example/odile' }
    await write(show.id, { tags: ['reeds', 'lake'] })
    await write(show.id, { tags: ['reeds'], people: [odile] })
    await write(other.id, { tags: ['elsewhere'] })
    expect((await house.call('GET', `/shows/${show.id}/vocabulary`)).json()).toEqual({
      seasons: [],
      tags: [
        { tag: 'reeds', count: 2 },
        { tag: 'lake', count: 1 },
      ],
      people: [{ ...odile, pictureId: null }],
    })
  })
})

describe('what an episode takes over from its show', () => {
  it('is its people and its notes, as the show had them when it began', async () => {
    const show = await house.makeShow('habits')
    const hosts = [{ name: 'Tove', role: 'Host', address: null }]
    const change = (version: number, more: object) => house.call('PATCH', `/shows/${show.id}`, { version, ...more })
    expect((await change(show.version, { hosts, notesTemplate: '<p>{guests}</p><script>x</script>' })).statusCode).toBe(
      200,
    )
    const made = (await house.call('POST', `/shows/${show.id}/episodes`, {})).json() as EpisodeView
    expect(made.text).toMatchObject({ people: hosts, notes: '<p>{guests}</p>' })
    await change(show.version + 1, { hosts: [] })
    expect((await house.get(made.id)).text.people).toEqual(hosts)
  })

  it.each([
    ['titlePattern', 'No. {number}', 'The pattern must have {title} in it.'],
    ['titlePattern', '{titel}', 'There is no field {titel}; there are {number}, {season}, {title} and {show}.'],
    ['notesTemplate', '<p>{guest}</p>', expect.stringContaining('There is no field {guest}')],
  ])('is refused with a field that is not there: %s %s', async (field, value, rule) => {
    const show = await house.makeShow(`habit-${Math.random().toString(36).slice(2, 8)}`)
    const answer = await house.call('PATCH', `/shows/${show.id}`, { version: show.version, [field]: value })
    expect(answer.json()).toMatchObject({ status: 422, faults: [{ field, rule }] })
  })
})

describe('what is written, at its limits', () => {
  const long = 'x'.repeat(300)
  it.each([
    ['hook', '👩‍👩‍👧‍👦'.repeat(256), 'At most 255 letters.'],
    ['tags', Array.from({ length: 500 }, (_, n) => `tag ${n}`), 'At most 100 tags.'],
    ['tags.0', [long], 'At most 60 characters.'],
    ['tags', ['Reed', 'reeds'], 'Each of the tags once.'],
    [
      'people',
      Array.from({ length: 200 }, (_, n) => ({ name: `Person ${n}`, role: 'Guest', address: null })),
      'At most 100 people.',
    ],
    [
      'people.0.address',
      [{ name: 'A', role: 'Guest', address: 'javascript:alert(1)' }],
      'A web address, such as https://example.org/page.',
    ],
    ['people.0.role', [{ name: 'A', role: 'Wizard', address: null }], expect.stringContaining('Guest')],
    [
      'links',
      Array.from({ length: 1000 }, (_, n) => ({ words: '', address: `https://lake.example/${n}` })),
      'At most 500 links.',
    ],
    ['artworkId', 'f'.repeat(64), 'Upload the picture first.'],
  ])('%s is refused with the rule', async (field, value, rule) => {
    const show = await house.makeShow(`limit-${Math.random().toString(36).slice(2, 8)}`)
    const { id, version } = (await house.call('POST', `/shows/${show.id}/episodes`, {})).json() as EpisodeView
    const answer = await house.call('PATCH', `/episodes/${id}`, { version, text: { [field.split('.')[0]!]: value } })
    expect(answer.json()).toMatchObject({ status: 422, faults: [{ field: `text.${field}`, rule }] })
  })

  it('a hook of 255 family pictures fits, and a title of only emoji goes out', async () => {
    const show = await house.makeShow('emoji')
    const episode = await house.makeReady(show.id, '🪗🪗')
    const hook = '👩‍👩‍👧‍👦'.repeat(255)
    const changed = await house.call('PATCH', `/episodes/${episode.id}`, { version: episode.version, text: { hook } })
    expect((changed.json() as EpisodeView).text.hook).toBe(hook)
    const { version } = changed.json() as EpisodeView
    const released = await house.call('POST', `/episodes/${episode.id}/release`, { version, when: { kind: 'now' } })
    expect(new URL((released.json() as EpisodeView).pageAddress!).pathname).toMatch(/^\/emoji\/[a-z0-9-]+$/)
    expect((await house.app.inject('/emoji/feed.xml')).body).toContain('<title>🪗🪗</title>')
  })
})
