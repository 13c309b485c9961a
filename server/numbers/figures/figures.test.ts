import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it, onTestFinished } from 'vitest'
import {
  type AgeNumbers,
  type EpisodeComparison,
  type EpisodeNumbers,
  type ListenerList,
  listenerQuery,
  type ShowNumbers,
} from '@contract/numbers'
import type { Problem } from '@contract/problem'
import { shippedList } from '@core/counting/programs'
import { openDeliveries } from '../../platform/deliveries/open'
import { openPlaces } from '../../platform/deliveries/places'
import { type DeliveryEntry, keepLines, packed } from '../../platform/deliveries/lines'
import { type House, openHouse } from '../../testing/house'
import { counter } from '../counting/counter'
import { listenersBehind } from './listeners'

const [hourMs, dayMs] = [3600_000, 24 * 3600_000]
let house: House
let showId: string
const episodes: { id: string; fileId: string; bytes: number; at: number; downloads: number }[] = []
let listeners = 0

/** So many listeners of an episode, one after the other, from a moment on. */
function listened(n: number, many: number, at: number, rest: Partial<DeliveryEntry> = {}): DeliveryEntry[] {
  const { id, fileId, bytes } = episodes[n]!
  return Array.from({ length: many }, (_, k) => ({
    at: new Date(at + k * 1000),
    kind: 'media' as const,
    showId,
    episodeId: id,
    fileId,
    method: 'GET' as const,
    status: 200,
    bytesSent: bytes,
    range: null,
    agent: 'Kelp/3.1 (iPhone; iOS 17.1)',
    source: 'feed' as const,
    isPrefetch: false,
    who: (++listeners).toString(16).padStart(16, '0'),
    place: 'SE',
    isHosted: false,
    isCoarse: false,
    times: 1,
    ...rest,
  }))
}
async function log(entries: DeliveryEntry[]): Promise<void> {
  for (const batch of packed(entries)) await keepLines(house.platform.database, house.clock.now(), batch)
  await counter(house.platform).countAll()
}
const get = async <Answer>(path: string): Promise<Answer> => {
  const answer = await house.call('GET', path)
  expect(answer.statusCode, answer.body).toBe(200)
  return answer.json()
}

beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
  // Five episodes, a week apart; the fifth is the newest, five hours old.
  for (const [n, downloads] of [40, 50, 60, 70, 65].entries()) {
    const { id } = await house.makeReleased(showId, `Episode ${n + 1}`)
    const { source } = (await house.get(id)).sound
    const at = +house.clock.now()
    episodes.push({ id, fileId: source!.id, bytes: source!.bytes, at, downloads })
    if (n < 4) house.clock.moveTo(new Date(at + 7 * dayMs))
  }
  house.clock.moveTo(new Date(episodes[4]!.at + 5 * hourMs))
  for (const [n, { at, downloads }] of episodes.entries())
    await log([...listened(n, downloads, at + hourMs), ...(n < 4 ? listened(n, 10, at + 2 * dayMs) : [])])
  await log([
    ...listened(0, 3, episodes[0]!.at + 3 * hourMs, { place: 'IS', agent: 'Punt/0.9 (macOS 14)', source: 'page' }),
    ...listened(0, 2, episodes[0]!.at + 3 * hourMs, { method: 'HEAD', bytesSent: 0 }),
  ])
}, 60_000)
afterAll(() => house.close())

describe('numbers of a show', () => {
  it('are summed by everything, the few under no name, and what did not count by its reason', async () => {
    const numbers = await get<ShowNumbers>(`/shows/${showId}/numbers`)
    expect(numbers.total).toBe(40 + 50 + 60 + 70 + 65 + 40 + 3)
    expect(numbers.days.reduce((sum, { downloads }) => sum + downloads, 0)).toBe(numbers.total)
    expect(numbers.apps).toEqual({ rows: [{ name: 'Kelp', downloads: 325 }], few: { names: 1, downloads: null } })
    expect(numbers.places).toEqual({ rows: [{ name: 'SE', downloads: 325 }], few: { names: 1, downloads: null } })
    expect(numbers.devices.rows).toEqual([{ name: 'phone', downloads: 325 }])
    expect(numbers.refusals).toEqual([{ refusal: 'head', listeners: 2 }])
    expect(numbers.byEpisodeAge).toEqual({ recent: 328, older: 0 })
    for (const week of [numbers.hours!, numbers.localHours!])
      expect(week.reduce((sum, each) => sum + each, 0)).toBe(numbers.total)
    expect(numbers.state.countedAt).toBe(house.clock.now().toISOString())
  })

  it('are of some days, and of one episode, where these are asked for', async () => {
    const day = new Date(episodes[1]!.at).toISOString().slice(0, 10)
    const ofDay = await get<ShowNumbers>(`/shows/${showId}/numbers?from=${day}&to=${day}`)
    expect([ofDay.total, ofDay.days]).toEqual([50, [{ day, downloads: 50 }]])
    const ofEpisode = await get<ShowNumbers>(`/shows/${showId}/numbers?episode=${episodes[0]!.id}`)
    expect(ofEpisode).toMatchObject({ total: 53, hours: null, byEpisodeAge: null })
    expect(ofEpisode.apps.rows).toEqual([{ name: 'Kelp', downloads: 50 }])
    expect(ofEpisode.refusals).toEqual([{ refusal: 'head', listeners: 2 }])
  })

  it('are the same read by whole months and by single days', async () => {
    // The fifth episode went out at the end of its four weeks, so the figures lie in two months.
    const last = new Date(house.clock.now()).toISOString().slice(0, 10)
    for (const from of ['2026-02-01', '2026-02-28', '2026-03-01', '2026-03-10', '2026-03-31', '2026-04-01'])
      for (const to of ['2026-03-09', '2026-03-31', '2026-04-01', last, '2026-04-30', '2026-12-31']) {
        const { total, apps, sources, localHours } = await get<ShowNumbers>(
          `/shows/${showId}/numbers?from=${from}&to=${to}`,
        )
        const sum = (figures: readonly number[]): number => figures.reduce((all, each) => all + each, 0)
        expect(sum(sources.map(({ downloads }) => downloads))).toBe(total)
        expect(sum(localHours!)).toBe(total)
        // Three are of an app that too few have for its name to be told.
        expect(sum(apps.rows.map(({ downloads }) => downloads)) + (apps.few ? 3 : 0)).toBe(total)
      }
  })

  it('are had as a file for a spreadsheet, and as JSON, by the same filters', async () => {
    const day = new Date(episodes[1]!.at).toISOString().slice(0, 10)
    const { body, headers } = await house.call('GET', `/shows/${showId}/numbers/export?form=csv&from=${day}&to=${day}`)
    expect(headers['content-disposition']).toBe(`attachment; filename="numbers ${day} to ${day}.csv"`)
    expect(body.split('\r\n').slice(0, 4)).toEqual(['what,name,downloads', 'all,,50', `day,${day},50`, 'app,Kelp,50'])
    const all = await house.call('GET', `/shows/${showId}/numbers/export`)
    expect(all.body).toContain('\r\napp,fewer than 5 each,fewer than 5\r\n')
    const json = await get<ShowNumbers>(`/shows/${showId}/numbers/export?form=json`)
    expect(json).toEqual(await get<ShowNumbers>(`/shows/${showId}/numbers`))
  })

  it('are not told of another’s show, nor with a filter that is none', async () => {
    const wrong = await house.call('GET', `/shows/${showId}/numbers?from=yesterday`)
    expect([wrong.statusCode, wrong.json<Problem>().faults?.[0]?.field]).toEqual([422, 'from'])
    const nobody = await house.app.inject(`/api/v1/shows/${showId}/numbers`)
    expect(nobody.statusCode).toBe(401)
    const other = (await house.makeShow('slow-ferry')).id
    const numbers = await get<ShowNumbers>(`/shows/${other}/numbers?episode=${episodes[0]!.id}`)
    expect([numbers.total, numbers.apps.rows]).toEqual([0, []])
    expect((await get<ListenerList>(`/shows/${other}/numbers/listeners?episode=${episodes[0]!.id}`)).total).toBe(0)
    expect(await get(`/shows/${other}/numbers/ages?episodes=${episodes[0]!.id}`)).toEqual({ episodes: [] })
  })
})

describe('an episode at its age', () => {
  it('stands beside those before it, by the hour at first', async () => {
    const { numbers: newest } = await get<{ numbers: AgeNumbers }>(`/shows/${showId}/numbers/newest`)
    expect(newest).toMatchObject({
      episode: { id: episodes[4]!.id },
      age: { unit: 'hours', many: 5 },
      downloads: 65,
      // By hand: of 43, 50, 60 and 70 the quartiles are 48.25 and 62.5.
      usual: { low: 48, high: 63, of: 4 },
      curve: [0, 65, 65, 65, 65, 65],
    })
  })

  it('stands beside those before it, by whole days later', async () => {
    const { numbers: fourth } = await get<{ numbers: AgeNumbers }>(`/episodes/${episodes[3]!.id}/numbers`)
    expect(fourth).toMatchObject({ age: { unit: 'days', many: 7 }, downloads: 80, usual: { low: 57, high: 65, of: 3 } })
    expect(fourth.curve).toEqual([70, 70, 80, 80, 80, 80, 80])
    const { numbers: first } = await get<{ numbers: AgeNumbers }>(`/episodes/${episodes[0]!.id}/numbers`)
    expect([first.total, first.usual]).toEqual([53, null])
  })

  it('is not told of one that is not out', async () => {
    const draft = await house.makeReady(showId, 'Not yet')
    expect(await get(`/episodes/${draft.id}/numbers`)).toEqual({ numbers: null, heard: null })
  })

  it('is compared with others, as far as they are old enough', async () => {
    const ids = [episodes[0]!.id, episodes[4]!.id]
    const { episodes: compared } = await get<EpisodeComparison>(
      `/shows/${showId}/numbers/ages?episodes=${ids.join(',')}`,
    )
    expect(compared.map(({ id, after, total }) => [id, after, total])).toEqual([
      [ids[0], [43, 53, null, null], 53],
      [ids[1], [null, null, null, null], 65],
    ])
    const many = Array.from({ length: 7 }, () => ids[0]!).join(',')
    expect((await house.call('GET', `/shows/${showId}/numbers/ages?episodes=${many}`)).statusCode).toBe(422)
  })
})

describe('what a figure was made from', () => {
  it('comes in pages that hold each listener once, and as many as the figure says', async () => {
    const keys: string[] = []
    let path = `/shows/${showId}/numbers/listeners?app=Kelp`
    for (let next: string | null = ''; next !== null;) {
      const page: ListenerList = await get<ListenerList>(next ? `${path}&after=${encodeURIComponent(next)}` : path)
      expect(page.total).toBe(325)
      keys.push(...page.listeners.map(({ key }) => key))
      next = page.next
    }
    expect([keys.length, new Set(keys).size]).toEqual([325, 325])
    path = `/shows/${showId}/numbers/listeners?what=head`
    const { total, listeners: refused } = await get<ListenerList>(path)
    expect(total).toBe(2)
    expect(refused[0]).toMatchObject({
      refusal: 'head',
      seconds: null,
      lines: [{ method: 'HEAD', status: 200, range: null, bytesSent: 0, times: 1 }],
    })
    expect((await house.call('GET', `${path}&after=nonsense`)).statusCode).toBe(422)
  })

  it('is read in several answers where few are among many, each of which says where the next one begins', async () => {
    const query = listenerQuery.parse({ app: 'Kelp', source: 'feed', episode: episodes[0]!.id })
    const keys: string[] = []
    let answers = 0
    for (let after: string | undefined; ; answers++) {
      const page = await listenersBehind(house.platform, showId, { ...query, after }, 1)
      expect(page.total).toBe(50)
      keys.push(...page.listeners.map(({ key }) => key))
      if (page.next === null) break
      after = page.next
    }
    // Two days have something, of which each is read for itself.
    expect(answers).toBe(1)
    expect([keys.length, new Set(keys).size]).toEqual([50, 50])
  })

  it.each([
    ['what', 'what=head&app=Kelp'],
    ['source', 'app=Kelp&source=feed'],
  ])('is not asked for by what the sums do not tell apart: %s', async (field, filter) => {
    const answer = await house.call('GET', `/shows/${showId}/numbers/listeners?${filter}`)
    expect([answer.statusCode, answer.json<Problem>().faults?.[0]?.field]).toEqual([422, field])
  })

  it('tells of nobody where they were', async () => {
    const answer = await house.call('GET', `/shows/${showId}/numbers/listeners?app=Punt`)
    expect(answer.json<ListenerList>().listeners).toHaveLength(3)
    expect(answer.body).not.toMatch(/"IS"|place/)
  })
})

describe('how far an episode was heard', () => {
  it('is told of players on pages, once five people began', async () => {
    const { id, at, bytes } = episodes[2]!
    const of = async (): Promise<EpisodeNumbers['heard']> =>
      (await get<EpisodeNumbers>(`/episodes/${id}/numbers`)).heard
    const played = (many: number, share: number): DeliveryEntry[] =>
      listened(2, many, at + 5 * hourMs, {
        source: 'page',
        status: 206,
        range: { start: 0, end: bytes - 1 },
        bytesSent: Math.floor(bytes * share),
      })
    await log(played(4, 1))
    expect(await of()).toBeNull()
    await log(played(4, 0.5))
    const told = (await of())!
    expect(told.listeners).toBe(8)
    expect(told.parts).toHaveLength(100)
    expect([told.parts[0], told.parts[48], told.parts[51], told.parts[99]]).toEqual([8, 8, 4, 4])
    expect((await get<EpisodeNumbers>(`/episodes/${episodes[0]!.id}/numbers`)).heard).toBeNull()
  })
})

describe('marks on days', () => {
  it('are noted, shown with the numbers, and removed', async () => {
    const added = await house.call('POST', `/shows/${showId}/numbers/marks`, {
      day: '2026-03-12',
      words: ' In the  paper ',
    })
    const { marks } = added.json<Pick<ShowNumbers, 'marks'>>()
    expect(marks).toEqual([{ id: expect.any(String) as string, day: '2026-03-12', words: 'In the  paper' }])
    expect((await get<ShowNumbers>(`/shows/${showId}/numbers`)).marks).toEqual(marks)
    expect((await house.call('DELETE', `/marks/${marks[0]!.id}`)).json()).toEqual({ marks: [] })
    expect((await house.call('DELETE', `/marks/${marks[0]!.id}`)).statusCode).toBe(404)
    const wrong = await house.call('POST', `/shows/${showId}/numbers/marks`, { day: '2026-02-30', words: '' })
    expect(wrong.json<Problem>().faults?.map(({ field }) => field)).toEqual(['day', 'words'])
  })
})

describe('the table of places', () => {
  // Networks that the regional registries list under these countries (from memory): that of the European registry in Amsterdam, a university in Berlin, Germany’s research network.
  it('knows addresses of both kinds, and nothing of private ones or of what is none', () => {
    const places = openPlaces(null, () => expect.unreachable())
    expect(places.madeAt!.getUTCFullYear()).toBeGreaterThanOrEqual(2026)
    expect(places.of('193.0.6.139')).toBe('NL')
    expect(places.of('141.20.0.1')).toBe('DE')
    expect(places.of('2001:638::1')).toBe('DE')
    for (const address of ['192.168.1.1', '', 'nowhere', '::1']) expect(places.of(address)).toBeNull()
  })

  it('may be missing or broken: it is said, and places stay unknown', () => {
    const folder = mkdtempSync(join(tmpdir(), 'lake-letter-places-'))
    onTestFinished(() => rmSync(folder, { recursive: true }))
    writeFileSync(join(folder, 'broken.mmdb'), 'no table')
    for (const file of ['missing.mmdb', 'broken.mmdb']) {
      const said: unknown[] = []
      const places = openPlaces(join(folder, file), error => said.push(error))
      expect(String(said[0])).toContain(`PLACES_FILE=${join(folder, file)}`)
      expect([places.madeAt, places.of('193.0.6.139')]).toEqual([null, null])
    }
  })
})

describe('the list of programs', () => {
  it('may be another one; one that is none is refused by the name of its file, with what is wrong', () => {
    const folder = mkdtempSync(join(tmpdir(), 'lake-letter-programs-'))
    onTestFinished(() => rmSync(folder, { recursive: true }))
    const { database, clock } = house.platform
    const opened = (name: string, content: string) => {
      const programsFile = join(folder, name)
      writeFileSync(programsFile, content)
      return openDeliveries({ placesFile: null, programsFile }, database, clock, () => expect.unreachable())
    }
    const { askers } = opened('own.json', JSON.stringify({ ...shippedList, dated: '2026-10-05' }))
    expect(askers.programsDated).toBe('2026-10-05')
    expect(() => opened('half.json', '{"dated": ')).toThrow(/PROGRAMS_FILE=.*half\.json: this is no list of programs/)
    const wrong = JSON.stringify({ ...shippedList, programs: [{ name: 'Kelp', pattern: '(' }] })
    expect(() => opened('wrong.json', wrong)).toThrow(/PROGRAMS_FILE=.*wrong\.json.*pattern/s)
  })
})
