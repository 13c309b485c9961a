import { Op } from 'sequelize'
import { v4 as uuidV4, v7 as uuidV7 } from 'uuid'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { firstRecipe } from '@core/audio/recipe'
import type { Episode } from '@contract/episodes'
import type { OrderFindings } from '@contract/order'
import type { Show } from '@contract/shows'
import type { BulkEditPreview } from '@contract/bulkEdits'
import { Episode as EpisodeRow, EpisodeFile } from '../../show/episodes/models'
import { canGoOut, hindrancesNow } from '../../show/episodes/readiness'
import { withFiles } from '../../show/episodes/roles'
import { AudioFile } from '../../media/files/models'
import { EpisodeState } from '../../show/history/models'
import { Job } from '../../platform/jobs/models'
import { Notice } from '../mail/models'
import { type House, morning, openHouse } from '../../testing/house'
import { dueReleases } from './due'

let house: House
let show: Show
beforeAll(async () => {
  house = await openHouse()
  show = await house.makeShow('bellows-and-reeds')
})
beforeEach(() => house.clock.moveTo(morning))
afterAll(() => house.close())

const step = async (name: string, { id, version }: Episode, more: object = {}) =>
  house.call('POST', `/episodes/${id}/${name}`, { version, ...more })
const at = (local: string) => ({ local, zone: 'Europe/Zurich' })
const release = ({ id }: Pick<Episode, 'id'>, when: object): Promise<Episode> => house.release(id, when)
const out = async (title: string): Promise<Episode> =>
  release(await house.makeReady(show.id, title), { kind: 'at', ...at('2026-03-09T06:00'), isDatedBack: true })
const feed = async (): Promise<string> => (await house.app.inject({ url: '/bellows-and-reeds/feed.xml' })).body
const answers = (episode: Episode): Promise<number[]> =>
  Promise.all(
    [episode.pageAddress!, episode.enclosureAddress!].map(
      async address => (await house.app.inject({ url: new URL(address).pathname })).statusCode,
    ),
  )

describe('whether an episode can go out', () => {
  it('the database says as the rule does', async () => {
    const { id } = await house.makeReady(show.id, 'One rule')
    const where = { episodeId: id, role: 'source' as const }
    const { fileId } = (await EpisodeFile.findOne({ where, rejectOnEmpty: true })).get()
    const answers: { state: object; rule: boolean; database: boolean }[] = []
    const look = async (state: object): Promise<void> => {
      const asked = { where: { id }, include: withFiles(), rejectOnEmpty: true as const }
      const rule = hindrancesNow(await EpisodeRow.findOne(asked)).length === 0
      answers.push({ state, rule, database: (await EpisodeRow.count({ where: { id, [Op.and]: [canGoOut] } })) === 1 })
    }
    for (const role of ['none', 'source', 'source and finished'])
      for (const type of ['audio/mpeg', 'audio/flac'])
        for (const reachable of [true, false])
          for (const finishing of [null, 'none', 'working', 'done', 'failed'] as const) {
            await EpisodeFile.destroy({ where: { episodeId: id } })
            if (role !== 'none') await EpisodeFile.create({ ...where, fileId })
            if (role === 'source and finished') await EpisodeFile.create({ episodeId: id, role: 'finished', fileId })
            await AudioFile.update({ type, reachable }, { where: { id: fileId } })
            const recipe = finishing && firstRecipe
            await EpisodeRow.update({ recipe, finishing: finishing ?? 'none' }, { where: { id } })
            await look({ role, type, reachable, finishing })
          }
    expect(answers.filter(({ rule, database }) => rule !== database)).toEqual([])
    expect(answers.filter(({ rule }) => rule)).toHaveLength(6)
    await EpisodeRow.destroy({ where: { id } })
    // The next upload of the same bytes is the same file.
    await AudioFile.update({ type: 'audio/mpeg', reachable: true }, { where: { id: fileId } })
  })
})

describe('an episode that ends', () => {
  it.each([
    [false, [410, 404]],
    [true, [200, 200]],
  ])(
    'on a date leaves the feed by itself; whether its page stays (%s) was chosen before',
    async (keepsPage, expected) => {
      const released = await out(`Until Friday ${keepsPage}`)
      const ending = (await step('retire', released, { when: at('2026-03-13T18:00'), keepsPage })).json() as Episode
      expect(ending).toMatchObject({ status: 'released', retireAt: '2026-03-13T17:00:00.000Z', keepsPage })
      expect(await dueReleases(house.platform).retireDue()).toBe(0)
      // Two processes look at the same moment; it leaves once.
      house.clock.moveTo(new Date('2026-03-13T17:00:00Z'))
      const processes = [dueReleases(house.platform), dueReleases(house.platform)]
      const outcomes = await Promise.all(processes.map(each => each.retireDue()))
      expect(outcomes.toSorted()).toEqual([0, 1])
      expect(await feed()).not.toContain(released.guid)
      expect(await answers(released)).toEqual(expected)
      expect((await house.app.inject({ url: '/bellows-and-reeds' })).body).not.toContain(released.title)
      const retired = await house.get(released.id)
      expect(retired).toMatchObject({ status: 'retired', retireAt: null, releaseAt: released.releaseAt })
      const back = (await step('restore', retired)).json() as Episode
      expect(back).toMatchObject({ status: 'released', keepsPage: false, guid: released.guid })
      expect(await feed()).toContain(released.guid)
    },
  )

  it('stays after all where that is said before', async () => {
    const released = await out('After all')
    const ending = (await step('retire', released, { when: at('2026-03-13T18:00') })).json() as Episode
    expect((await step('drop-end', ending)).json()).toMatchObject({ status: 'released', retireAt: null })
    house.clock.moveTo(new Date('2026-03-14T17:00:00Z'))
    expect(await dueReleases(house.platform).retireDue()).toBe(0)
  })

  it('does not end in the past, nor before it went out', async () => {
    const refused = await step('retire', await out('Too late'), { when: at('2026-03-10T05:59') })
    expect(refused.json().faults[0]).toMatchObject({ field: 'release time', rule: expect.stringContaining('is past') })
    const draft = await house.makeReady(show.id, 'Not yet')
    expect((await step('retire', draft, { when: at('2026-03-13T18:00') })).json().code).toBe('wrong-status')
  })
})

describe('the date of a released episode', () => {
  it('is changed in the feed, with the same GUID; it lies behind now', async () => {
    const released = await out('Moved')
    const moved = (await step('redate', released, { when: at('2026-01-06T00:05') })).json() as Episode
    expect(moved).toMatchObject({ status: 'released', guid: released.guid, releaseAt: '2026-01-05T23:05:00.000Z' })
    expect(await feed()).toContain('<pubDate>Mon, 05 Jan 2026 23:05:00 +0000</pubDate>')
    const refused = await step('redate', moved, { when: at('2026-03-11T06:00') })
    expect(refused.json().faults[0]).toMatchObject({
      field: 'release time',
      value: '2026-03-11 06:00 (Europe/Zurich)',
      rule: 'It has already been released, so its date cannot be in the future.',
    })
    const other = await house.makeReady(show.id, 'Only a draft')
    expect((await step('redate', other, { when: at('2026-01-06T00:05') })).json().code).toBe('wrong-status')
  })
})

describe('many that are due', () => {
  it('of several shows go out together; of one title each at an address of its own, and those of before keep theirs', async () => {
    const second = await house.makeShow('slow-ferry')
    await out('The boat')
    const titles = ['The boat', 'The boat 2', 'The boat', 'The boat', 'Strands']
    const due: Episode[] = []
    for (const { id } of [show, second])
      for (const title of titles)
        due.push(await release(await house.makeReady(id, title), { kind: 'at', ...at('2026-03-11T06:00') }))
    house.clock.moveTo(new Date('2026-03-11T05:00:00Z'))
    const processes = [dueReleases(house.platform), dueReleases(house.platform), dueReleases(house.platform)]
    const counts = await Promise.all(processes.map(each => each.releaseDue()))
    expect(counts.reduce((sum, count) => sum + count, 0)).toBe(due.length)
    const rows = await EpisodeRow.findAll({ where: { id: due.map(({ id }) => id) } })
    const slugs = (showId: string) => rows.filter(row => row.showId === showId).map(({ slug }) => slug)
    expect(slugs(show.id).toSorted()).toEqual(['strands-2', 'the-boat-2', 'the-boat-2-2', 'the-boat-3', 'the-boat-4'])
    expect(slugs(second.id).toSorted()).toEqual(['strands-2', 'the-boat', 'the-boat-2', 'the-boat-3', 'the-boat-4'])
    expect(rows.every(({ status }) => status === 'released')).toBe(true)
    // Each was told of once, and the newest text of each counts as sent.
    expect(await Notice.count({ where: { episodeId: due.map(({ id }) => id), kind: 'released' } })).toBe(due.length)
    expect(await EpisodeState.count({ where: { episodeId: due.map(({ id }) => id), isSent: true } })).toBe(due.length)
    const { states } = (await house.call('GET', `/episodes/${due[0]!.id}/history`)).json()
    expect(states[0].isSent).toBe(true)
  })

  it('has the feed looked at once for many, and that finds everything in it', async () => {
    await Job.destroy({ where: {} })
    for (const title of ['One of two', 'Two of two'])
      await release(await house.makeReady(show.id, title), { kind: 'at', ...at('2026-03-11T06:00') })
    house.clock.moveTo(new Date('2026-03-11T05:00:00Z'))
    await dueReleases(house.platform).releaseDue()
    expect(await Job.count({ where: { kind: 'check-feed', subject: show.id } })).toBe(1)
    while (await house.platform.jobs.runNext('checking'));
    expect(await Job.findAll({ where: { kind: 'check-feed' }, attributes: ['state', 'error'], raw: true })).toEqual([
      { state: 'done', error: null },
    ])
  })
})

describe('the machine’s clock', () => {
  it('set back an hour takes nothing back and sends nothing twice; set forward a day everything due goes out with its own date', async () => {
    const first = await release(await house.makeReady(show.id, 'Before the clock'), {
      kind: 'at',
      ...at('2026-03-11T06:00'),
    })
    const later = await release(await house.makeReady(show.id, 'Behind the clock'), {
      kind: 'at',
      ...at('2026-03-11T20:00'),
    })
    const { releaseDue } = dueReleases(house.platform)
    house.clock.moveTo(new Date('2026-03-11T05:00:01Z'))
    expect(await releaseDue()).toBe(1)
    const told = await feed()
    house.clock.moveBy(-3600_000)
    expect(await releaseDue()).toBe(0)
    expect(await feed()).toBe(told)
    house.clock.moveTo(new Date('2026-03-11T05:00:01Z'))
    expect(await releaseDue()).toBe(0)
    house.clock.moveBy(24 * 3600_000)
    expect(await releaseDue()).toBe(1)
    expect((await house.get(later.id)).releaseAt).toBe('2026-03-11T19:00:00.000Z')
    expect((await feed()).split(first.guid)).toHaveLength(2)
  })
})

describe('five hundred at one moment', () => {
  it('are found, moved a minute apart with one press, and go out in that order', async () => {
    const many = await house.makeShow('five-hundred')
    const first = await house.makeReady(many.id, 'The first')
    const moment = new Date('2026-04-07T04:00:00Z')
    const rows = Array.from({ length: 499 }, (_none, at) => ({
      id: uuidV7(),
      showId: many.id,
      guid: uuidV4(),
      title: `No. ${at}`,
      notes: '',
      number: at + 100,
      status: 'scheduled' as const,
      releaseAt: moment,
      releaseZone: 'UTC',
      createdAt: morning,
      updatedAt: morning,
    }))
    await EpisodeRow.bulkCreate(rows)
    await EpisodeFile.bulkCreate(
      rows.map(({ id }) => ({ episodeId: id, role: 'source' as const, fileId: first.sound.source!.id })),
    )
    await release(first, { kind: 'at', ...at('2026-04-07T06:00') })
    const order = async () => (await house.call('GET', `/shows/${many.id}/order`)).json() as OrderFindings
    const [finding] = (await order()).findings
    expect(finding).toMatchObject({ kind: 'same moment', count: 500 })
    expect(finding!.episodes.length).toBeLessThan(10)
    const change = { kind: 'minute apart' }
    const outlook = (
      await house.call('POST', `/shows/${many.id}/bulk-edits/preview`, { episodes: finding!.fix, change })
    ).json() as BulkEditPreview
    expect(outlook.changes).toHaveLength(499)
    await house.call('POST', `/shows/${many.id}/bulk-edits`, { episodes: outlook.episodes, change })
    expect(await order()).toEqual({ total: 0, findings: [] })
    house.clock.moveTo(new Date('2026-04-08T00:00:00Z'))
    const { releaseDue } = dueReleases(house.platform)
    let count = 0
    for (let some = await releaseDue(); some > 0; some = await releaseDue()) count += some
    expect(count).toBe(500)
    const told = (await house.app.inject({ url: '/five-hundred/feed.xml' })).body
    const dates = [...told.matchAll(/<item>[\s\S]*?<pubDate>([^<]*)</g)].map(([, date]) => +new Date(date!))
    expect(new Set(dates).size).toBe(500)
    expect(dates).toEqual(dates.toSorted((one, other) => other - one))
  })
})
