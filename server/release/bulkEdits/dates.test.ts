import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { OrderFindings } from '@contract/order'
import type { Show } from '@contract/shows'
import type {
  BulkEditResult,
  BulkEditQuery,
  BulkEditHistory,
  BulkEditPreview,
  BulkEditUndone,
} from '@contract/bulkEdits'
import type { BulkEdit } from '@core/episode/bulkEdit'
import { dueReleases } from '../releases/due'
import { type House, morning, openHouse, type WholeEpisode } from '../../testing/house'

let house: House
let show: Show
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())
let shows = 0
beforeEach(async () => {
  house.clock.moveTo(morning)
  const { id, version } = await house.makeShow(`dates-${++shows}`)
  const rhythm = {
    unit: 'week',
    every: 1,
    days: ['TU'],
    nth: null,
    monthDay: null,
    time: '06:00',
    from: '2026-01-06',
    leftOut: [],
  }
  show = (await house.call('PATCH', `/shows/${id}`, { version, rhythm })).json()
})

const makeSome = async (...titles: string[]): Promise<WholeEpisode[]> => {
  const made: WholeEpisode[] = []
  for (const title of titles) made.push(await house.makeReady(show.id, title))
  return made
}
const ids = (episodes: readonly WholeEpisode[]): string[] => episodes.map(({ id }) => id)
const look = async (episodes: BulkEditQuery['episodes'], change: BulkEdit): Promise<BulkEditPreview> =>
  (await house.call('POST', `/shows/${show.id}/bulk-edits/preview`, { episodes, change })).json()
const promised = ({ episodes, changes }: BulkEditPreview) => {
  const dates = new Map(changes.map(({ id, at }) => [id, at]))
  return episodes.map(({ id, version }) => ({ id, version, ...(dates.get(id) && { at: dates.get(id)! }) }))
}
const make = (outlook: BulkEditPreview, change: BulkEdit) =>
  house.call('POST', `/shows/${show.id}/bulk-edits`, { episodes: promised(outlook), change })
const takeBack = async (id: string): Promise<BulkEditUndone> =>
  (await house.call('POST', `/shows/${show.id}/bulk-edits/${id}/undo`)).json()
const statuses = (episodes: readonly WholeEpisode[]) =>
  Promise.all(episodes.map(async ({ id }) => ((e: WholeEpisode) => [e.status, e.releaseAt])(await house.get(id))))
const releaseAllDue = async (): Promise<void> => {
  while (await dueReleases(house.platform).releaseDue());
}
const feed = async (): Promise<string> => (await house.app.inject({ url: `/${show.slug}/feed.xml` })).body
const layOut = (way: 'from' | 'up to', day: string, order: 'number' | 'as listed' = 'as listed'): BulkEdit => ({
  kind: 'lay out',
  layout: { way, day, step: { kind: 'slots' } },
  order,
})

describe('a backlog that is laid out', () => {
  it('shows every date before, then schedules all of it, in the order that was chosen; one press takes it back, also later', async () => {
    const [a, b, c] = await makeSome('A', 'B', 'C')
    const change = layOut('from', '2026-03-11')
    const outlook = await look([c!.id, a!.id, b!.id], change)
    expect(outlook.changes.map(({ title, before, after }) => [title, before, after])).toEqual([
      ['C', 'draft', 'Tue 17 Mar 2026, 06:00'],
      ['A', 'draft', 'Tue 24 Mar 2026, 06:00'],
      ['B', 'draft', 'Tue 31 Mar 2026, 06:00'],
    ])
    expect(await statuses([a!])).toEqual([['draft', null]])
    const done = (await make(outlook, change)).json() as BulkEditResult
    expect(await statuses([c!, a!, b!])).toEqual([
      ['scheduled', '2026-03-17T05:00:00.000Z'],
      ['scheduled', '2026-03-24T05:00:00.000Z'],
      ['scheduled', '2026-03-31T04:00:00.000Z'],
    ])
    // A day later one has been moved by hand; it stays.
    house.clock.moveBy(24 * 3600_000)
    const { version } = await house.get(a!.id)
    await house.call('POST', `/episodes/${a!.id}/release`, {
      version,
      when: { kind: 'at', local: '2026-05-01T06:00', zone: show.zone },
    })
    const made = (await house.call('GET', `/shows/${show.id}/bulk-edits`)).json() as BulkEditHistory
    expect(made.changes).toMatchObject([{ id: done.id, kind: 'lay out', changed: 3 }])
    expect(await takeBack(done.id)).toEqual({
      changed: 2,
      left: [{ id: a!.id, title: 'A', why: 'It was given another date since.' }],
    })
    expect((await statuses([a!, b!, c!])).map(([status]) => status)).toEqual(['scheduled', 'draft', 'draft'])
    expect((await house.call('GET', `/shows/${show.id}/bulk-edits`)).json()).toEqual({ changes: [] })
  })

  it('dated back goes out at once, in order, each with its date; taken back, it leaves the feed', async () => {
    const all = await makeSome('A', 'B', 'C')
    const change = layOut('up to', '2026-03-09', 'number')
    const outlook = await look(ids(all), change)
    expect(outlook.atOnce).toBe(3)
    expect(outlook.changes[0]!.after).toBe('Tue 17 Feb 2026, 06:00; goes out at once')
    const done = (await make(outlook, change)).json() as BulkEditResult
    await releaseAllDue()
    expect(await statuses(all)).toEqual([
      ['released', '2026-02-17T05:00:00.000Z'],
      ['released', '2026-02-24T05:00:00.000Z'],
      ['released', '2026-03-03T05:00:00.000Z'],
    ])
    const text = await feed()
    expect(['C', 'B', 'A'].map(title => text.indexOf(`<title>${title}</title>`))).toEqual(
      ['C', 'B', 'A'].map(title => text.indexOf(`<title>${title}</title>`)).toSorted((x, y) => x - y),
    )
    expect(text).toContain('<pubDate>Tue, 17 Feb 2026 05:00:00 +0000</pubDate>')
    const back = await takeBack(done.id)
    expect([back.changed, back.left[0]!.why]).toEqual([3, expect.stringContaining('taken out of the feed')])
    expect(await feed()).not.toContain('<title>A</title>')
  })

  it('passes over what is taken, and does nothing where a day was taken since it was looked at', async () => {
    const all = await makeSome('A', 'B')
    const other = await house.makeReady(show.id, 'In between')
    const change = layOut('from', '2026-03-11')
    const outlook = await look(ids(all), change)
    await house.call('POST', `/episodes/${other.id}/release`, {
      version: other.version,
      when: { kind: 'at', local: '2026-03-17T20:00', zone: show.zone },
    })
    const refused = await make(outlook, change)
    expect([refused.statusCode, refused.json().code]).toEqual([409, 'version-conflict'])
    expect((await statuses(all)).map(([status]) => status)).toEqual(['draft', 'draft'])
    expect((await look(ids(all), change)).changes.map(({ after }) => after)).toEqual([
      'Tue 24 Mar 2026, 06:00',
      'Tue 31 Mar 2026, 06:00',
    ])
  })

  it.each([
    [{ day: '2026-02-31' }, 'change.layout.day', 'A day that there is'],
    [{ step: { kind: 'days', every: 0, time: '06:00' } }, 'change.layout.step.every', 'At least 1 day.'],
    [{ step: { kind: 'days', every: 7, time: '25:00' } }, 'change.layout.step.time', 'A time such as 06:00.'],
  ])('%j is refused by name', async (part, field, rule) => {
    const [one] = await makeSome('A')
    const layout = { way: 'from', day: '2026-03-11', step: { kind: 'slots' }, ...part }
    const answer = await house.call('POST', `/shows/${show.id}/bulk-edits/preview`, {
      episodes: [one!.id],
      change: { kind: 'lay out', layout, order: 'number' },
    })
    expect(answer.statusCode).toBe(422)
    expect(answer.json().faults[0]).toMatchObject({ field, rule: expect.stringContaining(rule) })
  })
})

describe('order', () => {
  it('that is wrong is found, with all whose dates a mend exchanges; after it nothing is found', async () => {
    const [a, b, c] = await makeSome('One', 'Two', 'Three')
    const dates = ['2026-04-14', '2026-04-07', '2026-04-07']
    for (const [at, episode] of [a!, b!, c!].entries()) {
      const { version } = (
        await house.call('PATCH', `/episodes/${episode.id}`, { version: episode.version, text: { number: at + 1 } })
      ).json()
      const when = { kind: 'at', local: `${dates[at]}T06:00`, zone: show.zone }
      await house.call('POST', `/episodes/${episode.id}/release`, { version, when })
    }
    const order = async () => (await house.call('GET', `/shows/${show.id}/order`)).json() as OrderFindings
    const { findings } = await order()
    expect(findings.map(({ kind, episodes }) => [kind, ...episodes.map(({ title }) => title)])).toEqual([
      ['out of order', 'One', expect.any(String)],
      ['same moment', ...['Two', 'Three']],
    ])
    for (const change of [{ kind: 'minute apart' }, { kind: 'dates by number' }] as const) {
      const kind = change.kind === 'minute apart' ? 'same moment' : 'out of order'
      const finding = (await order()).findings.find(each => each.kind === kind)!
      await make(await look(finding.fix, change), change)
    }
    expect(await order()).toEqual({ total: 0, findings: [] })
    expect((await statuses([a!, b!, c!])).map(([, at]) => at)).toEqual([
      '2026-04-07T04:00:00.000Z',
      '2026-04-07T04:01:00.000Z',
      '2026-04-14T04:00:00.000Z',
    ])
  })

  it('of released ones is mended in the feed, and taken back', async () => {
    const [one, two] = await makeSome('First', 'Second')
    for (const [episode, local, number] of [
      [one!, '2026-02-10T06:00', 1],
      [two!, '2026-02-03T06:00', 2],
    ] as const) {
      const { version } = (
        await house.call('PATCH', `/episodes/${episode.id}`, { version: episode.version, text: { number } })
      ).json()
      const when = { kind: 'at', local, zone: show.zone, isDatedBack: true }
      await house.call('POST', `/episodes/${episode.id}/release`, { version, when })
    }
    const before = await feed()
    expect(before.indexOf('First')).toBeLessThan(before.indexOf('Second'))
    const change: BulkEdit = { kind: 'dates by number' }
    const outlook = await look(ids([one!, two!]), change)
    expect(outlook.redated).toBe(2)
    const { id } = (await make(outlook, change)).json() as BulkEditResult
    const after = await feed()
    expect(after.indexOf('First')).toBeGreaterThan(after.indexOf('Second'))
    await takeBack(id)
    expect(await feed()).toBe(before)
  })
})
