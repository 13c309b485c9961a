import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v4 as uuidV4, v7 as uuidV7 } from 'uuid'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Episode, EpisodePage } from '@contract/episodes'
import type { Show } from '@contract/shows'
import { makeSound } from '@core/audio/sound.fixture'
import { createApp } from '../../app/app'
import { Episode as EpisodeRow, EpisodeFile } from '../../show/episodes/models'
import { type House, morning, openHouse, type WholeEpisode } from '../../testing/house'
import { dueReleases } from './due'

let house: House
let show: Show
const folder = mkdtempSync(join(tmpdir(), 'lake-letter-releases-'))
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
})
beforeEach(() => house.clock.moveTo(morning))
afterAll(async () => {
  await house.close()
  rmSync(folder, { recursive: true })
})

const release = (episode: Episode, when: object) =>
  house.call('POST', `/episodes/${episode.id}/release`, { version: episode.version, when })
const at = (local: string, more = {}) => ({ kind: 'at', local, zone: 'Europe/Zurich', ...more })
const get = (id: string): Promise<WholeEpisode> => house.get(id)
const feed = async (): Promise<string> => (await house.app.inject({ url: '/bellows-and-reeds/feed.xml' })).body

describe('a release', () => {
  it('now puts the episode into the feed at once', async () => {
    const episode = await house.makeReady(show.id, 'Straight away')
    expect(await feed()).not.toContain('Straight away')
    expect((await release(episode, { kind: 'now' })).json()).toMatchObject({
      status: 'released',
      releaseAt: morning.toISOString(),
    })
    expect(await feed()).toContain('<title>Straight away</title>')
  })

  it('without audio and without a title says what is missing', async () => {
    const bare = (await house.call('POST', `/shows/${show.id}/episodes`, {})).json() as Episode
    const answer = await release(bare, { kind: 'now' })
    expect(answer.statusCode).toBe(422)
    expect(answer.json()).toMatchObject({
      code: 'not-ready',
      faults: [{ field: 'audio', rule: 'A release needs audio.' }, { field: 'title' }],
    })
  })

  it.each([
    ['2026-03-10T05:59', 'The time is past.'],
    ['1999-12-31T23:00', 'Not before the year 2000.'],
    ['2026-03-29T02:30', 'jumps over this time on that day; the next one it shows is 2026-03-29 03:00'],
    ['soon', 'A date and time such as'],
  ])('at %s is refused with the rule', async (local, rule) => {
    const answer = await release(await house.makeReady(show.id, 'Not so'), at(local))
    expect(answer.statusCode).toBe(422)
    expect(answer.json().faults[0]).toMatchObject({
      field: 'release time',
      value: expect.stringContaining(local.replace('T', ' ')),
      rule: expect.stringContaining(rule),
    })
  })

  it('that is dated back goes out at once, with that date, among what is older', async () => {
    await release(await house.makeReady(show.id, 'Newer than that'), { kind: 'now' })
    const when = at('2025-11-04T06:00', { isDatedBack: true })
    const answer = await release(await house.makeReady(show.id, 'From last year'), when)
    expect(answer.json()).toMatchObject({ status: 'released', releaseAt: '2025-11-04T05:00:00.000Z' })
    const said = await feed()
    expect(said).toContain('<pubDate>Tue, 04 Nov 2025 05:00:00 +0000</pubDate>')
    expect(said.indexOf('From last year')).toBeGreaterThan(said.indexOf('Newer than that'))
  })

  it('at a time that the clock shows twice means the first, or the second when asked', async () => {
    const first = await release(await house.makeReady(show.id, 'Twice A'), at('2026-10-25T02:30'))
    const second = await release(await house.makeReady(show.id, 'Twice B'), at('2026-10-25T02:30', { second: true }))
    expect(first.json().releaseAt).toBe('2026-10-25T00:30:00.000Z')
    expect(second.json().releaseAt).toBe('2026-10-25T01:30:00.000Z')
  })

  it('from a window that has not seen the newest text is refused', async () => {
    const episode = await house.makeReady(show.id, 'Moved on')
    await house.call('PATCH', `/episodes/${episode.id}`, {
      version: episode.version,
      text: { title: 'Moved on, again' },
    })
    expect((await release(episode, { kind: 'now' })).json().code).toBe('version-conflict')
  })

  it('of a released episode is refused: nothing goes out twice', async () => {
    const episode = await house.makeReady(show.id, 'Only once')
    const { version } = (await release(episode, { kind: 'now' })).json()
    expect((await release({ ...episode, version }, { kind: 'now' })).json().code).toBe('wrong-status')
  })
})

describe('the release clock', () => {
  it('releases what is due with the planned moment as its date, once, however many processes look', async () => {
    const episode = await house.makeReady(show.id, 'By itself')
    await release(episode, at('2026-03-11T06:00'))
    const services = Array.from({ length: 4 }, () => dueReleases(house.platform))
    expect(await Promise.all(services.map(service => service.releaseDue()))).toEqual([0, 0, 0, 0])
    expect(await feed()).not.toContain('By itself')
    // Hours later, as after a night with the server off.
    house.clock.moveTo(new Date('2026-03-11T09:17:00Z'))
    const outcomes = await Promise.all(services.map(service => service.releaseDue()))
    expect(outcomes.filter(Boolean)).toHaveLength(1)
    expect(await get(episode.id)).toMatchObject({
      status: 'released',
      releaseAt: '2026-03-11T05:00:00.000Z',
      guid: episode.guid,
    })
    expect((await feed()).split(episode.guid)).toHaveLength(2)
    expect(await feed()).toContain('<pubDate>Wed, 11 Mar 2026 05:00:00 +0000</pubDate>')
  })

  it('leaves alone what was taken back to draft', async () => {
    const episode = await house.makeReady(show.id, 'Taken back')
    const { version } = (await release(episode, at('2026-03-11T06:00'))).json()
    expect((await house.call('POST', `/episodes/${episode.id}/unschedule`, { version })).json()).toMatchObject({
      status: 'draft',
      releaseAt: null,
    })
    house.clock.moveTo(new Date('2026-03-12T00:00:00Z'))
    while (await dueReleases(house.platform).releaseDue());
    expect((await get(episode.id)).status).toBe('draft')
  })

  it('a scheduled episode cannot lose its title', async () => {
    const episode = await house.makeReady(show.id, 'Titled')
    const { version } = (await release(episode, at('2026-04-01T06:00'))).json()
    const answer = await house.call('PATCH', `/episodes/${episode.id}`, { version, text: { title: ' ' } })
    expect(answer.json().faults[0]).toMatchObject({ field: 'title', rule: expect.stringContaining('needs a title') })
  })
})

describe('after the release', () => {
  it('what is written stays out of the feed until it is sent; GUID and date stay for ever', async () => {
    const episode = await house.makeReady(show.id, 'Before')
    const released = (await release(episode, { kind: 'now' })).json() as Episode
    const written = (
      await house.call('PATCH', `/episodes/${episode.id}`, { version: released.version, text: { title: 'After' } })
    ).json() as Episode
    expect(written.changedSinceRelease).toBe(true)
    expect(await feed()).not.toContain('<title>After</title>')
    const list = ((await house.call('GET', `/shows/${show.id}/episodes`)).json() as EpisodePage).episodes
    expect(list.find(({ id }) => id === episode.id)!.changedSinceRelease).toBe(true)

    house.clock.moveBy(3600_000)
    const sent = (
      await house.call('POST', `/episodes/${episode.id}/send-changes`, { version: written.version })
    ).json() as Episode
    expect(sent).toMatchObject({
      changedSinceRelease: false,
      guid: episode.guid,
      releaseAt: released.releaseAt,
      pageAddress: released.pageAddress,
    })
    expect(await feed()).toContain('<title>After</title>')
  })

  it('a change of the notes’ case alone counts as a change in the list too', async () => {
    const episode = await house.makeReady(show.id, 'Case')
    const { version } = (
      await house.call('PATCH', `/episodes/${episode.id}`, {
        version: episode.version,
        text: { notes: '<p>reeds</p>' },
      })
    ).json()
    const released = (await release({ ...episode, version }, { kind: 'now' })).json() as Episode
    const flag = async () =>
      ((await house.call('GET', `/shows/${show.id}/episodes`)).json() as EpisodePage).episodes.find(
        ({ id }) => id === episode.id,
      )!.changedSinceRelease
    expect(await flag()).toBe(false)
    await house.call('PATCH', `/episodes/${episode.id}`, { version: released.version, text: { notes: '<p>Reeds</p>' } })
    expect(await flag()).toBe(true)
  })

  it('retired, it leaves feed, page and media; put back, it has the date and the GUID it had', async () => {
    const episode = await house.makeReady(show.id, 'In and out')
    const released = (await release(episode, { kind: 'now' })).json() as Episode
    const addresses = [released.pageAddress!, released.enclosureAddress!].map(address => new URL(address).pathname)
    const answers = () => Promise.all(addresses.map(async url => (await house.app.inject({ url })).statusCode))
    expect(await answers()).toEqual([200, 200])
    const retired = (
      await house.call('POST', `/episodes/${episode.id}/retire`, { version: released.version })
    ).json() as Episode
    expect(await answers()).toEqual([410, 404])
    expect(await feed()).not.toContain(episode.guid)
    house.clock.moveBy(86_400_000)
    const restored = (
      await house.call('POST', `/episodes/${episode.id}/restore`, { version: retired.version })
    ).json() as Episode
    expect(restored).toMatchObject({ status: 'released', guid: episode.guid, releaseAt: released.releaseAt })
    expect(await feed()).toContain(episode.guid)
  })

  it('a second server in the same process serves the new feed at once', async () => {
    const other = await createApp(house.platform)
    const read = async () => (await other.inject({ url: '/bellows-and-reeds/feed.xml' })).body
    await read()
    await release(await house.makeReady(show.id, 'Seen everywhere'), { kind: 'now' })
    expect(await read()).toContain('Seen everywhere')
    await other.close()
  })
})

describe('only what was released', () => {
  const patch = async (episode: Episode, text: object): Promise<Episode> =>
    (await house.call('PATCH', `/episodes/${episode.id}`, { version: episode.version, text })).json()
  const step = async (episode: Episode, name: string) =>
    house.call('POST', `/episodes/${episode.id}/${name}`, { version: episode.version })

  it('a retired episode is put back as it went out; what was written since still waits', async () => {
    const released = (
      await release(await house.makeReady(show.id, 'As it went out'), { kind: 'now' })
    ).json() as Episode
    const written = await patch(released, { title: 'Half-writ' })
    const retired = (await step(written, 'retire')).json() as Episode
    const restored = (await step(retired, 'restore')).json() as Episode
    expect(restored).toMatchObject({ status: 'released', changedSinceRelease: true, title: 'Half-writ' })
    expect(await feed()).toContain('<title>As it went out</title>')
    expect(await feed()).not.toContain('Half-writ')
  })

  it('a retired episode whose draft lost its title is put back all the same', async () => {
    const released = (await release(await house.makeReady(show.id, 'Still titled'), { kind: 'now' })).json() as Episode
    const retired = (await step(released, 'retire')).json() as Episode
    const restored = await step(await patch(retired, { title: '' }), 'restore')
    expect(restored.json().status).toBe('released')
    expect(await feed()).toContain('<title>Still titled</title>')
  })

  it('a scheduled WAV is not let out as it is: not by its recipe taken away, and not by the clock', async () => {
    const path = join(folder, 'boat.wav')
    makeSound(path, 2, [])
    const { id } = (await house.call('POST', `/shows/${show.id}/episodes`, {})).json() as Episode
    await house.bring(id, path)
    const titled = await patch(await get(id), { title: 'The WAV' })
    const scheduled = (await release(titled, at('2026-03-11T06:00'))).json() as Episode
    expect(scheduled.status).toBe('scheduled')
    const refused = await house.call('PUT', `/episodes/${id}/recipe`, {
      version: (await get(id)).sound.version,
      recipe: null,
    })
    expect(refused.json()).toMatchObject({
      status: 422,
      code: 'not-ready',
      detail: expect.stringContaining('only MP3 and M4A'),
    })
    // A row that came to be so in another way does not go out either, and keeps nobody else waiting.
    await EpisodeRow.update({ recipe: null }, { where: { id } })
    const other = (
      await release(await house.makeReady(show.id, 'The MP3 behind it'), at('2026-03-11T06:01'))
    ).json() as Episode
    house.clock.moveTo(new Date('2026-03-12T00:00:00Z'))
    while ((await dueReleases(house.platform).releaseDue()) > 0);
    expect([(await get(id)).status, (await get(other.id)).status]).toEqual(['scheduled', 'released'])
    expect(await feed()).not.toContain('audio/wav')
  })

  it('sending changes where there are none changes nothing', async () => {
    // The clock has been set back since the other show was changed.
    const quiet = await house.makeShow('quiet')
    const released = (
      await release(await house.makeReady(quiet.id, 'Nothing to send'), { kind: 'now' })
    ).json() as Episode
    house.clock.moveBy(2_000)
    const before = await house.app.inject({ url: '/quiet/feed.xml' })
    house.clock.moveBy(60_000)
    expect((await step(released, 'send-changes')).json()).toMatchObject({ version: released.version })
    const after = await house.app.inject({ url: '/quiet/feed.xml' })
    expect([after.headers.etag, after.headers['last-modified']]).toEqual([
      before.headers.etag,
      before.headers['last-modified'],
    ])
  })
})

describe('many at once', () => {
  it('twenty-four episodes of one title go out together, each at an address of its own', async () => {
    const crowd = await house.makeShow('crowd')
    const episodes: Episode[] = []
    for (let n = 0; n < 24; n++) episodes.push(await house.makeReady(crowd.id, 'The same title'))
    const answers = await Promise.all(episodes.map(episode => release(episode, { kind: 'now' })))
    expect(answers.map(({ statusCode }) => statusCode)).toEqual(Array.from({ length: 24 }, () => 200))
    const pages = answers.map(answer => new URL((answer.json() as Episode).pageAddress!).pathname)
    expect(new Set(pages).size).toBe(24)
    expect(pages).toEqual(
      expect.arrayContaining(['/crowd/the-same-title', '/crowd/the-same-title-2', '/crowd/the-same-title-24']),
    )
  })

  it('mixed writes to one show are all done or told why not; none breaks', async () => {
    const busy = await house.makeShow('busy')
    const episodes: WholeEpisode[] = []
    for (let n = 0; n < 10; n++) episodes.push(await house.makeReady(busy.id, `Episode ${n % 3}`))
    const writes = episodes.flatMap((episode, n) => [
      release(episode, n % 2 ? { kind: 'now' } : at('2026-03-11T06:00')),
      house.call('PATCH', `/episodes/${episode.id}`, { version: episode.version, text: { title: `Other ${n}` } }),
      house.call('PATCH', `/shows/${busy.id}`, { version: 1, description: `Description ${n}` }),
      house.call('POST', `/shows/${busy.id}/episodes`, { title: 'new' }),
      house.call('PUT', `/episodes/${episode.id}/source`, { fileId: episodes[(n + 1) % 10]!.sound.source!.id }),
      house.call('DELETE', `/episodes/${episode.id}`),
      house.call('GET', `/shows/${busy.id}/episodes`),
      house.call('POST', `/episodes/${episode.id}/retire`, { version: episode.version + 1 }),
      house.call('POST', `/episodes/${episode.id}/finish`, {
        version: episode.sound.version,
        recipe: episode.sound.usual,
      }),
    ])
    const answers = await Promise.all(writes)
    expect(answers.filter(({ statusCode }) => statusCode >= 500).map(({ body }) => body)).toEqual([])
    house.clock.moveTo(new Date('2026-03-12T00:00:00Z'))
    while ((await dueReleases(house.platform).releaseDue()) > 0);
    const body = (await house.app.inject({ url: '/busy/feed.xml' })).body
    const guids = [...body.matchAll(/<guid[^>]*>([^<]+)/g)].map(([, guid]) => guid)
    expect(new Set(guids).size).toBe(guids.length)
  })

  it('hundreds that are due go out by the hundred, in the order of their moments', async () => {
    const backlog = await house.makeShow('backlog')
    const first = await house.makeReady(backlog.id, 'Backlog')
    const rows = Array.from({ length: 249 }, (_, n) => ({
      id: uuidV7(),
      showId: backlog.id,
      guid: uuidV4(),
      title: 'Backlog',
      notes: '',
      status: 'scheduled' as const,
      releaseAt: new Date(+morning + n * 1000),
      releaseZone: 'UTC',
      createdAt: morning,
      updatedAt: morning,
    }))
    await EpisodeRow.bulkCreate(rows)
    await EpisodeFile.bulkCreate(
      rows.map(({ id }) => ({ episodeId: id, role: 'source' as const, fileId: first.sound.source!.id })),
    )
    house.clock.moveBy(3600_000)
    const releases = dueReleases(house.platform)
    const rounds: number[] = []
    for (let count = await releases.releaseDue(100); count > 0; count = await releases.releaseDue(100))
      rounds.push(count)
    expect(rounds).toEqual([100, 100, 49])
    const released = await EpisodeRow.findAll({
      where: { showId: backlog.id, status: 'released' },
      order: [['releaseAt', 'ASC']],
    })
    expect(released.map(({ slug }) => slug).slice(0, 3)).toEqual(['backlog', 'backlog-2', 'backlog-3'])
    expect(new Set(released.map(({ slug }) => slug)).size).toBe(249)
  })
})
