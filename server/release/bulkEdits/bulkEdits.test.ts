import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode as EpisodeView } from '@contract/episodes'
import type { TablePage } from '@contract/table'
import type { BulkEditResult, BulkEditHistory, BulkEditPreview, BulkEditUndone } from '@contract/bulkEdits'
import type { EpisodeText } from '@core/episode/fields'
import type { BulkEdit } from '@core/episode/bulkEdit'
import { Episode } from '../../show/episodes/models'
import { type House, openHouse } from '../../testing/house'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

let shows = 0
/** A show of its own with episodes of such texts; answers its id and theirs. */
async function showWith(texts: readonly Partial<EpisodeText>[]): Promise<{ showId: string; ids: string[] }> {
  const { id: showId } = await house.makeShow(`bulk-edits-${++shows}`)
  const ids: string[] = []
  for (const text of texts) {
    house.clock.moveBy(1000)
    const { id, version } = (await house.call('POST', `/shows/${showId}/episodes`, {})).json() as EpisodeView
    await house.call('PATCH', `/episodes/${id}`, { version, text: { number: null, ...text } })
    ids.push(id)
  }
  return { showId, ids }
}
const look = async (showId: string, episodes: string[] | 'all', change: BulkEdit): Promise<BulkEditPreview> =>
  (await house.call('POST', `/shows/${showId}/bulk-edits/preview`, { episodes, change })).json()
const change = (showId: string, { episodes }: BulkEditPreview, what: BulkEdit) =>
  house.call('POST', `/shows/${showId}/bulk-edits`, { episodes, change: what })
const takeBack = async (showId: string, id: string, episodes?: string[]): Promise<BulkEditUndone> =>
  (await house.call('POST', `/shows/${showId}/bulk-edits/${id}/undo`, episodes && { episodes })).json()
const textOf = async (id: string): Promise<EpisodeText> => (await house.get(id)).text
const rows = async (showId: string, query = ''): Promise<TablePage> =>
  (await house.call('GET', `/shows/${showId}/episodes/table${query}`)).json()

describe('many episodes at once', () => {
  it('are looked at, changed as they were looked at, and taken back with one press', async () => {
    const { showId, ids } = await showWith([
      { title: 'One' },
      { title: 'A trailer', kind: 'trailer' },
      { title: 'Two', number: 9 },
    ])
    const renumber: BulkEdit = { kind: 'renumber', from: 5 }
    const outlook = await look(showId, 'all', renumber)
    expect(outlook.changes.map(({ title, before, after }) => [title, before, after])).toEqual([
      ['One', '', '5'],
      ['Two', '9', '6'],
    ])
    expect(outlook.refused).toMatchObject([{ title: 'A trailer', why: 'A trailer takes no number.' }])
    const done = (await change(showId, outlook, renumber)).json() as BulkEditResult
    expect(done.changed).toBe(2)
    expect(await Promise.all(ids.map(async id => (await textOf(id)).number))).toEqual([5, null, 6])
    expect(await takeBack(showId, done.id)).toEqual({ changed: 2, left: [] })
    expect(await Promise.all(ids.map(async id => (await textOf(id)).number))).toEqual([null, null, 9])
    expect(await takeBack(showId, done.id)).toEqual({ changed: 0, left: [] })
  })

  it('are taken back one by one, too, and the others after that', async () => {
    const { showId, ids } = await showWith([{ title: 'One' }, { title: 'Two' }, { title: 'Three' }])
    const renumber: BulkEdit = { kind: 'renumber', from: 5 }
    const done = (await change(showId, await look(showId, 'all', renumber), renumber)).json() as BulkEditResult
    const numbers = () => Promise.all(ids.map(async id => (await textOf(id)).number))
    expect(await takeBack(showId, done.id, [ids[1]!])).toEqual({ changed: 1, left: [] })
    expect(await numbers()).toEqual([5, null, 7])
    expect(await takeBack(showId, done.id, [ids[1]!])).toEqual({ changed: 0, left: [] })
    const { changes } = (await house.call('GET', `/shows/${showId}/bulk-edits`)).json<BulkEditHistory>()
    expect(changes.map(({ changed }) => changed)).toEqual([2])
    expect(await takeBack(showId, done.id)).toEqual({ changed: 2, left: [] })
    expect(await numbers()).toEqual([null, null, null])
  })

  it('stand in the history of each', async () => {
    const { showId, ids } = await showWith([{ title: 'One' }])
    const what: BulkEdit = { kind: 'add tags', tags: ['reeds'] }
    await change(showId, await look(showId, ids, what), what)
    const { states } = (await house.call('GET', `/episodes/${ids[0]}/history`)).json()
    expect(states[0]).toMatchObject({ act: 'many at once', fields: ['tags'] })
  })

  it('when two people renumber at once, one is told, and nothing is half done', async () => {
    const { showId, ids } = await showWith(Array.from({ length: 12 }, (_none, at) => ({ title: `No. ${at}` })))
    const [one, two] = [51, 101].map(from => ({ kind: 'renumber', from }) as const)
    const outlook = await look(showId, ids, one!)
    const answers = await Promise.all([change(showId, outlook, one!), change(showId, outlook, two!)])
    expect(answers.map(({ statusCode }) => statusCode).sort()).toEqual([200, 409])
    expect(answers.find(({ statusCode }) => statusCode === 409)!.json().detail).toContain('nothing was done')
    const numbers = await Promise.all(ids.map(async id => (await textOf(id)).number!))
    expect(numbers).toEqual(numbers.map((_none, at) => numbers[0]! + at))
  })

  it('taking back leaves what was written again since', async () => {
    const { showId, ids } = await showWith([
      { title: 'One', season: 1 },
      { title: 'Two', season: 1 },
    ])
    const what: BulkEdit = { kind: 'season', season: 2 }
    const { id } = (await change(showId, await look(showId, ids, what), what)).json() as BulkEditResult
    await house.call('PATCH', `/episodes/${ids[0]}`, {
      version: (await house.get(ids[0]!)).version,
      text: { season: 7 },
    })
    expect(await takeBack(showId, id)).toEqual({
      changed: 1,
      left: [{ id: ids[0], title: 'One', why: 'It was written again since.' }],
    })
    expect([(await textOf(ids[0]!)).season, (await textOf(ids[1]!)).season]).toEqual([7, 1])
  })

  it('drafts are removed and come back; what is scheduled goes to draft and back to its moment', async () => {
    const { showId, ids } = await showWith([{ title: 'Goes' }])
    const remove: BulkEdit = { kind: 'remove' }
    const removed = (await change(showId, await look(showId, ids, remove), remove)).json() as BulkEditResult
    expect((await rows(showId)).total).toBe(0)
    expect((await rows(showId, '?status=removed')).rows[0]!.title).toBe('Goes')
    await takeBack(showId, removed.id)
    expect((await rows(showId)).total).toBe(1)

    const ready = await house.makeReady(showId, 'Waits')
    const local = '2031-05-01T06:00'
    const scheduled = await house.call('POST', `/episodes/${ready.id}/release`, {
      version: ready.version,
      when: { kind: 'at', local, zone: 'Europe/Zurich' },
    })
    expect(scheduled.statusCode).toBe(200)
    const draft: BulkEdit = { kind: 'to draft' }
    const drafted = (await change(showId, await look(showId, [ready.id], draft), draft)).json() as BulkEditResult
    expect((await house.get(ready.id)).status).toBe('draft')
    expect(await takeBack(showId, drafted.id)).toEqual({ changed: 1, left: [] })
    expect(await house.get(ready.id)).toMatchObject({
      status: 'scheduled',
      releaseAt: scheduled.json().releaseAt,
      releaseZone: 'Europe/Zurich',
    })
  })

  it('are those of one show only', async () => {
    const [mine, other] = [await showWith([{ title: 'Mine' }]), await showWith([{ title: 'Theirs' }])]
    const what: BulkEdit = { kind: 'season', season: 3 }
    expect((await look(mine.showId, other.ids, what)).episodes).toEqual([])
    const { version } = await house.get(other.ids[0]!)
    const answer = await change(
      mine.showId,
      { ...(await look(mine.showId, mine.ids, what)), episodes: [{ id: other.ids[0]!, version }] },
      what,
    )
    expect(answer.statusCode).toBe(409)
    expect((await textOf(other.ids[0]!)).season).toBeNull()
  })

  it.each([
    ['an unknown act', { kind: 'explode' }, 'change.kind'],
    ['no tags', { kind: 'add tags', tags: [] }, 'change.tags'],
    ['a tag of 300 letters', { kind: 'add tags', tags: ['x'.repeat(300)] }, 'change.tags.0'],
    ['number 0', { kind: 'renumber', from: 0 }, 'change.from'],
  ])('with %s names the field and the rule', async (_name, what, field) => {
    const { showId, ids } = await showWith([{ title: 'One' }])
    const answer = await house.call('POST', `/shows/${showId}/bulk-edits/preview`, { episodes: ids, change: what })
    expect(answer.statusCode).toBe(422)
    expect(answer.json().faults[0].field).toBe(field)
  })
})

describe('all episodes as rows', () => {
  it('are found by words of titles, hooks, notes, tags and people, and by number', async () => {
    const { showId } = await showWith([
      { title: 'Tuning by the ferry bell', number: 35 },
      { title: 'B', notes: '<p>Größe and <a href="https://zebra.example/">bellows</a></p>' },
      { title: 'C', tags: ['Mouse damage'], hook: 'A hook of C3' },
      { title: 'D', people: [{ name: 'Tove Aldermoor', role: 'Guest', address: null }] },
      { title: '湖の手紙を読む' },
    ])
    const found = async (words: string) =>
      (await rows(showId, `?find=${encodeURIComponent(words)}&order=title&direction=up`)).rows.map(({ title }) => title)
    expect(await found('FERRY tun')).toEqual(['Tuning by the ferry bell'])
    expect(await found('by the ferry')).toEqual(['Tuning by the ferry bell'])
    expect(await found('35')).toEqual(['Tuning by the ferry bell'])
    expect(await found('grosse')).toEqual(['B'])
    expect(await found('zebra')).toEqual([])
    expect(await found('mouse')).toEqual(['C'])
    expect(await found('c3')).toEqual(['C'])
    expect(await found('alderm')).toEqual(['D'])
    expect(await found('手紙')).toEqual(['湖の手紙を読む'])
    expect(await found('+-*"()~<>@')).toEqual([])
    expect(await found("'; DROP TABLE episodes; --")).toEqual([])
  })

  it('are narrowed, ordered and paged', async () => {
    const { showId } = await showWith([
      { title: 'b', number: 2, season: 1, tags: ['reeds', 'wax'], notes: '<p>x</p>' },
      { title: 'a', number: 1, season: 2, kind: 'bonus' },
      { title: 'c', number: null },
    ])
    const titles = async (query: string) => (await rows(showId, query)).rows.map(({ title }) => title)
    expect(await titles('?order=title&direction=up')).toEqual(['a', 'b', 'c'])
    expect(await titles('?order=number&direction=down')).toEqual(['b', 'a', 'c'])
    expect(await titles('?order=title&direction=up&from=1&limit=1')).toEqual(['b'])
    expect(await titles('?season=2')).toEqual(['a'])
    expect(await titles('?kind=bonus')).toEqual(['a'])
    expect(await titles('?tag=wax')).toEqual(['b'])
    expect(await titles('?lacks=tags&order=title&direction=up')).toEqual(['a', 'c'])
    expect(await titles('?lacks=number')).toEqual(['c'])
    // Blank is what cannot be seen: an ideographic space, a zero-width one.
    await Episode.update({ title: '\u3000\u200b' }, { where: { showId, title: 'c' } })
    expect(await titles('?lacks=title')).toEqual(['\u3000\u200b'])
    await Episode.update({ title: 'c' }, { where: { showId, number: null } })
    expect(await titles('?status=released')).toEqual([])
    const [row] = (await rows(showId, '?tag=wax')).rows
    expect(row).toMatchObject({
      season: 1,
      kind: 'full',
      tags: ['reeds', 'wax'],
      explicit: null,
      lacks: ['audio', 'hook', 'people'],
    })
    expect((await house.call('GET', `/shows/${showId}/episodes/table?order=loudness`)).json().faults[0].field).toBe(
      'order',
    )
  })

  it('2,000 of them are renumbered in one go', async () => {
    const { showId } = await showWith([])
    const now = house.clock.now()
    await Episode.bulkCreate(
      Array.from({ length: 2000 }, (_none, at) => ({
        id: `01a20b82-0000-7000-8000-${String(at).padStart(12, '0')}`,
        guid: `01a20b82-0000-7000-9000-${String(at).padStart(12, '0')}`,
        showId,
        title: `Letter ${at}`,
        notes: '<p>Some notes.</p>',
        createdAt: now,
        updatedAt: now,
      })),
    )
    const what: BulkEdit = { kind: 'renumber', from: 1 }
    const { id, changed } = (await change(showId, await look(showId, 'all', what), what)).json() as BulkEditResult
    expect(changed).toBe(2000)
    const page = await rows(showId, '?order=number&direction=up&limit=1000')
    expect(page.rows.map(({ number }) => number)).toEqual(Array.from({ length: 1000 }, (_none, at) => at + 1))
    expect(await takeBack(showId, id)).toEqual({ changed: 2000, left: [] })
  }, 60_000)
})
