import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode as EpisodeView } from '@contract/episodes'
import type { History, PastText } from '@contract/history'
import { account, type House, morning, openHouse, sounds } from '../../testing/house'
import { EpisodeState } from './models'
import { historyService } from './service'
import { retention } from '../../app/retention/retention'

let house: House
let showId: string
beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
})
afterAll(() => house.close())

const create = async (): Promise<EpisodeView> => (await house.call('POST', `/shows/${showId}/episodes`, {})).json()
const look = async (id: string): Promise<EpisodeView> => (await house.call('GET', `/episodes/${id}`)).json()
const write = async (id: string, text: object): Promise<EpisodeView> =>
  (await house.call('PATCH', `/episodes/${id}`, { version: (await look(id)).version, text })).json()
const historyOf = async (id: string): Promise<History['states']> =>
  ((await house.call('GET', `/episodes/${id}/history`)).json() as History).states
const state = async (id: string, stateId: string): Promise<PastText> =>
  (await house.call('GET', `/episodes/${id}/history/${stateId}`)).json()
const pass = (ms: number): void => house.clock.moveBy(ms)

const minute = 60_000

describe('the history of an episode', () => {
  it('has what it began as and each state since, with who, when and what', async () => {
    house.clock.moveTo(morning)
    const { id } = await create()
    pass(2 * minute)
    await write(id, { title: 'The reed that buzzes' })
    pass(2 * minute)
    await write(id, { notes: '<p>Why it does.</p>', number: 4 })
    const states = await historyOf(id)
    expect(states.map(({ act, fields, by }) => [act, [...fields].sort(), by?.email ?? null])).toEqual([
      ['written', ['notes', 'number'], account.email],
      ['written', ['title'], account.email],
      ['begun', [], null],
    ])
    expect(states[0]).toMatchObject({ at: new Date(+morning + 4 * minute).toISOString(), by: { isYou: true } })
    expect((await state(id, states[1]!.id)).text).toMatchObject({ title: 'The reed that buzzes', notes: '' })
    expect((await look(id)).written).toEqual({ by: states[0]!.by, at: states[0]!.at })
  })

  it('has one state for what is typed within a minute, unless much is taken out', async () => {
    const { id } = await create()
    pass(minute - (+house.clock.now() % minute))
    const long = `<p>${'The bellows leak at every fold. '.repeat(10)}</p>`
    for (const notes of ['<p>The</p>', '<p>The bel</p>', long]) {
      await write(id, { notes })
      pass(1000)
    }
    await write(id, { notes: '<p>x</p>' })
    const states = await historyOf(id)
    expect(states).toHaveLength(3)
    expect((await state(id, states[1]!.id)).text.notes).toBe(long.replace(' </p>', ' </p>'))
  })

  it('marks what went out, and no later save takes its place', async () => {
    const { id, version } = await house.makeReady(showId, 'It goes out')
    expect((await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })).statusCode).toBe(
      200,
    )
    await write(id, { hook: 'Written after' })
    const states = await historyOf(id)
    expect(states.map(({ isSent, fields }) => [isSent, fields])).toEqual([
      [false, ['hook']],
      [true, expect.anything()],
      ...states.slice(2).map(() => [false, expect.anything()]),
    ])
  })

  it('says what was filled in from a file', async () => {
    const { id } = await create()
    await house.bring(id, join(sounds, 'br-31.mp3'))
    expect((await historyOf(id)).some(({ act, by }) => act === 'filled in' && by === null)).toBe(true)
  })

  it('thins out as it grows older, and is gone after 90 days', async () => {
    const { id } = await create()
    for (let at = 0; at < 30; at++) {
      await write(id, { number: at + 1 })
      pass(minute)
    }
    expect(await historyOf(id)).toHaveLength(31)
    pass(3 * 60 * minute)
    await write(id, { hook: 'Three hours later' })
    const thinned = await historyOf(id)
    expect(thinned.length).toBeLessThan(8)
    // What the states that went had changed is told of those that stayed.
    expect(thinned.slice(1, -1).every(({ fields }) => fields.includes('number'))).toBe(true)
  })

  it('is told of its own episode only', async () => {
    const [one, other] = [await create(), await create()]
    await write(one.id, { title: 'One' })
    const [newest] = await historyOf(one.id)
    expect((await house.call('GET', `/episodes/${other.id}/history/${newest!.id}`)).statusCode).toBe(404)
  })

  it('is gone after 90 days', async () => {
    const { id } = await create()
    await write(id, { title: 'Long ago' })
    pass(91 * 24 * 60 * minute)
    expect((await historyService(house.platform).list({ id, accountId: null })).states).toEqual([])
    await retention(house.platform).job.run()
    expect(await EpisodeState.count({ where: { episodeId: id } })).toBe(0)
  })
})
