import { gunzipSync } from 'node:zlib'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Episode } from '@contract/episodes'
import type { FeedOverview } from '@contract/feed'
import type { Show } from '@contract/shows'
import type { EpisodeText } from '@core/episode/fields'
import { FeedState } from '../feeds/models'
import { Job } from '../../platform/jobs/models'
import { Show as ShowRow } from '../../show/shows/models'
import { type House, openHouse } from '../../testing/house'
import { FeedCheck } from './models'
import { lookAtFeed } from './ownFeed'

let house: House
let show: Show
let shows = 0
const makeShow = (): Promise<Show> => house.makeShow(`looked-at-${++shows}`)

beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())
beforeEach(async () => {
  await Job.destroy({ where: {} })
  show = await makeShow()
})

const release = (title: string, text?: Partial<EpisodeText>): Promise<Episode> => {
  house.clock.moveBy(60_000)
  return house.makeReleased(show.id, title, text)
}
const change = async (facts: object): Promise<void> => {
  show = (await house.call('GET', `/shows/${show.id}`)).json()
  const answer = await house.call('PATCH', `/shows/${show.id}`, { version: show.version, ...facts })
  expect(answer.statusCode, answer.body).toBe(200)
}
const look = async (): Promise<void> => {
  while (await house.platform.jobs.runNext('checking'));
}
const jobs = () => Job.findAll({ where: { kind: 'check-feed' }, attributes: ['state', 'error'], raw: true })
const faults = async (): Promise<number> => ((await house.call('GET', `/shows/${show.id}`)).json() as Show).feedFaults
const overview = async (): Promise<FeedOverview> => (await house.call('GET', `/shows/${show.id}/feed`)).json()

describe('the feed of a show, looked at with each change', () => {
  it('is written and looked at before anybody asks for it, once for many changes', async () => {
    for (const title of ['One', 'Two', 'Three']) await release(title)
    expect(await jobs()).toHaveLength(1)
    await look()
    expect(await jobs()).toEqual([{ state: 'done', error: null }])
    expect(await FeedState.count({ where: { showId: show.id } })).toBe(1)
    const { findings, items } = await FeedCheck.findByPk(show.id, { rejectOnEmpty: true })
    expect([items, findings.map(({ name }) => name)]).toEqual([3, ['same-number', 'item-notes']])
  })

  it('counts on the show what must be mended, and no more once it is', async () => {
    await release('One')
    await look()
    expect(await faults()).toBe(0)
    // A fault that no form lets through.
    await ShowRow.update({ ownerEmail: 'nobody' }, { where: { id: show.id } })
    await change({ name: 'Another name' })
    expect(await faults()).toBe(0)
    await look()
    expect(await faults()).toBe(1)
    expect((await overview()).findings[0]!.name).toBe('owner-email')
    await change({ ownerEmail: 'keeper@example.org' })
    await look()
    expect(await faults()).toBe(0)
  })

  it('tells windows of the count where it is another, and of nothing else', async () => {
    await release('One')
    await look()
    const counted = async () => {
      const [row] = await house.platform.database.query<{ count: number | bigint }>(
        "SELECT COUNT(*) AS count FROM events WHERE show_id = ? AND kind = 'show'",
        { replacements: [show.id], type: QueryTypes.SELECT },
      )
      return Number(row!.count)
    }
    const ofChange = async (facts: object): Promise<number> => {
      await change(facts)
      const before = await counted()
      await look()
      return (await counted()) - before
    }
    expect(await ofChange({ name: 'Another name' })).toBe(0)
    await ShowRow.update({ ownerEmail: 'nobody' }, { where: { id: show.id } })
    expect(await ofChange({ name: 'A third name' })).toBe(1)
    expect(await ofChange({ name: 'A fourth name' })).toBe(0)
  })

  it('keeps nothing of what was overtaken while it was looked at', async () => {
    await release('One')
    const before = await ShowRow.findByPk(show.id, { rejectOnEmpty: true })
    await change({ name: 'Another name' })
    await look()
    const { tag } = await FeedCheck.findByPk(show.id, { rejectOnEmpty: true })
    await FeedState.destroy({ where: { showId: show.id } })
    await lookAtFeed(house.platform, before)
    expect((await FeedCheck.findByPk(show.id, { rejectOnEmpty: true })).tag).toBe(tag)
  })

  it('does not ask a show that nothing came of yet to mend anything', async () => {
    await change({ name: 'A show to be' })
    await look()
    expect((await overview()).findings.map(({ name, severity }) => [name, severity])).toEqual([['any-items', 'error']])
    expect(await faults()).toBe(0)
  })

  it('looks once at what is the same', async () => {
    await release('One')
    const before = await overview()
    await FeedCheck.update({ items: 77 }, { where: { showId: show.id } })
    expect((await overview()).items).toBe(77)
    await change({ name: 'Another name' })
    expect((await overview()).items).toBe(before.items)
  })

  it('misses nothing where the feed comes in parts, where an episode is for listeners of a strand, or all of them are', async () => {
    for (let number = 1; number <= 12; number++)
      await release(`Episode ${number}`, { tags: number === 12 ? ['friends'] : [] })
    await house.call('POST', `/shows/${show.id}/strands`, {
      name: 'Friends',
      slug: 'friends',
      description: null,
      artworkId: null,
      goesBy: 'tag',
      value: 'friends',
      isPrivate: true,
    })
    await look()
    expect((await overview()).items).toBe(11)
    for (const facts of [{ itemsPerPart: 10 }, { isPrivate: true }, { isPrivate: false, itemsPerPart: null }]) {
      await change({ feedFacts: facts })
      await look()
    }
    expect((await jobs()).map(({ error }) => error)).toEqual([null, null, null, null])
  })

  it('says where an episode that is out stands in no feed', async () => {
    await release('One')
    const kept = await overview()
    expect(kept.items).toBe(1)
    // Another process has written less, and says that it is the newest.
    const state = await FeedState.findOne({ where: { showId: show.id }, rejectOnEmpty: true })
    const empty = await makeShow()
    await house.call('GET', `/shows/${empty.id}/feed`)
    const other = await FeedState.findOne({ where: { showId: empty.id }, rejectOnEmpty: true })
    await state.update({ gzip: other.gzip, brotli: other.brotli })
    await look()
    expect((await jobs()).map(({ error }) => error)).toEqual([expect.stringMatching(/lacks 1 released episodes/)])
  })

  it('offers a press where that mends it, until what it changed waits to be sent', async () => {
    await release('1: The quay', { number: 1 })
    await release('The lock', { number: 1 })
    await change({ feedFacts: { isBlocked: true } })
    const found = async (name: string) => (await overview()).findings.find(each => each.name === name)
    expect((await found('blocked-show'))!.byPress).toEqual({
      says: 'Let directories list it',
      facts: { isBlocked: false },
    })
    // The newer one is to give way.
    const { item, episode: newer } = (await found('same-number'))!.places[0]!
    expect([item!.title, newer!.byPress]).toEqual(['The lock', { says: 'Give it 2', text: { number: 2 } }])
    const titled = (await found('bare-title'))!.places[0]!.episode!
    expect(titled.byPress!.text).toEqual({ title: 'The quay' })
    const { id, version, byPress } = newer!
    await house.call('PATCH', `/episodes/${id}`, { version, text: byPress!.text })
    expect((await found('same-number'))!.places[0]!.episode).toMatchObject({ isChanged: true, byPress: null })
  })

  it('holds 10,000 episodes, all of them looked at', async () => {
    const { id } = await release('The longest show there is: ten thousand crossings of the lake, each of them by night')
    await house.platform.database.query(
      `INSERT INTO episodes (id, guid, slug, show_id, title, number, notes, status, release_at, released, created_at, updated_at)
        SELECT UUID(), UUID(), CONCAT('crossing-', n.seq), show_id, title, n.seq + 1, notes, status, release_at - INTERVAL n.seq MINUTE, released, created_at, updated_at
        FROM episodes JOIN seq_1_to_9999 n WHERE id = :id`,
      { replacements: { id } },
    )
    await house.platform.database.query(
      `INSERT INTO episode_files (episode_id, role, file_id) SELECT e.id, 'released', f.file_id
        FROM episodes e JOIN episode_files f ON f.episode_id = :id AND f.role = 'released' WHERE e.show_id = :showId AND e.id <> :id`,
      { replacements: { id, showId: show.id } },
    )
    await change({ description: 'Ten thousand crossings.' })
    await look()
    expect(await jobs()).toEqual([{ state: 'done', error: null }])
    const { items, findings } = await FeedCheck.findByPk(show.id, { rejectOnEmpty: true })
    expect(items).toBe(10_000)
    expect(findings.map(({ name, count, places }) => [name, count, places.length])).toEqual([
      ['feed-size', 1, 1],
      ['same-number', 9_999, 50],
      ['item-notes', 10_000, 50],
      ['same-title', 9_999, 50],
    ])
    const [state] = await FeedState.findAll({ where: { showId: show.id }, order: [['revision', 'DESC']], limit: 1 })
    const text = gunzipSync(state!.gzip).toString()
    expect(new Set([...text.matchAll(/<guid [^>]+>([^<]+)/g)].map(([, guid]) => guid)).size).toBe(10_000)
    expect((await overview()).findings).toHaveLength(findings.length)
  })
})
