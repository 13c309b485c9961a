import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Episode as EpisodeView } from '@contract/episodes'
import { type House, openHouse, sounds } from '../../testing/house'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

let shows = 0
const makeShow = async (): Promise<string> => (await house.makeShow(`numbered-${++shows}`)).id
const create = async (showId: string): Promise<EpisodeView> =>
  (await house.call('POST', `/shows/${showId}/episodes`, {})).json()
async function write(id: string, text: object): Promise<EpisodeView> {
  const { version } = await house.get(id)
  await house.call('PATCH', `/episodes/${id}`, { version, text })
  return house.get(id)
}

describe('the number of a new episode', () => {
  it('is the next free one of its season, and that of episodes begun together each another', async () => {
    const showId = await makeShow()
    const first = await create(showId)
    expect(first.text).toMatchObject({ number: 1, season: null })
    await write(first.id, { number: 12, season: 3 })
    house.clock.moveBy(1000)
    const begun = await Promise.all(Array.from({ length: 6 }, () => create(showId)))
    expect(begun.map(({ text }) => text.number).sort((a, b) => a! - b!)).toEqual([13, 14, 15, 16, 17, 18])
    expect(begun.every(({ text }) => text.season === 3)).toBe(true)
  })

  it('is none where the show does not count', async () => {
    const showId = await makeShow()
    await write((await create(showId)).id, { number: null })
    expect((await create(showId)).text.number).toBeNull()
  })

  it('gives way to the one in the file’s name, unless somebody wrote it', async () => {
    const showId = await makeShow()
    const [filled, written] = [await create(showId), await create(showId)]
    await house.bring(filled.id, join(sounds, 'br-31.mp3'))
    expect((await house.get(filled.id)).text.number).toBe(31)
    await write(written.id, { number: 5 })
    await house.bring(written.id, join(sounds, 'br-32.mp3'))
    expect((await house.get(written.id)).text.number).toBe(5)
  })
})

describe('what is odd about a number', () => {
  it('is that it is used twice in a season, or that one is left out before it', async () => {
    const showId = await makeShow()
    const [one, two] = [await create(showId), await create(showId)]
    await write(one.id, { title: 'The first', number: 7 })
    expect((await write(two.id, { number: 7 })).numbering).toMatchObject({ next: 8, same: 'The first', skipped: null })
    expect((await write(two.id, { number: 9 })).numbering).toMatchObject({ same: null, skipped: 8 })
    expect((await write(two.id, { number: 7, season: 2 })).numbering).toMatchObject({ next: 1, same: null })
    expect((await write(two.id, { season: null, kind: 'trailer' })).numbering).toMatchObject({ same: null })
  })

  it('is that it goes against the order of dates', async () => {
    const showId = await makeShow()
    const out = async (title: string, number: number): Promise<string> => {
      const { id } = await house.makeReady(showId, title)
      const { version } = await write(id, { number })
      await house.call('POST', `/episodes/${id}/release`, { version, when: { kind: 'now' } })
      house.clock.moveBy(60_000)
      return id
    }
    const [one, two] = [await out('Earlier', 5), await out('Later', 4)]
    expect((await house.get(one)).numbering.after).toEqual({ title: 'Later', number: 4 })
    expect((await house.get(two)).numbering.before).toEqual({ title: 'Earlier', number: 5 })
  })
})
