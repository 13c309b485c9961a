import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Episode as EpisodeView } from '@contract/episodes'
import { transact } from '../../platform/database/transact'
import { type House, openHouse, sounds } from '../../testing/house'
import { Episode } from './models'
import { fileIn, filesIn, giveRoles, withFiles } from './roles'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

it('a role goes to one file or to several, in their order, and to fewer again', async () => {
  const { id: showId } = await house.makeShow('pieces')
  const episode = async (): Promise<EpisodeView> => (await house.call('POST', `/shows/${showId}/episodes`, {})).json()
  const fileIds: string[] = []
  for (const name of ['br-31.mp3', 'br-32.mp3', 'br-33.mp3']) {
    const { id } = await episode()
    await house.bring(id, join(sounds, name))
    fileIds.push((await house.get(id)).sound.source!.id)
  }
  const { id } = await episode()
  const given = async (to: string | readonly string[] | null): Promise<string[]> => {
    const row = await Episode.findByPk(id, { rejectOnEmpty: true })
    await transact(house.platform.database, transaction => giveRoles(row, { source: to }, transaction))
    const now = await Episode.findByPk(id, { include: withFiles(), rejectOnEmpty: true })
    const names = filesIn(now, 'source').map(file => file.name)
    expect(fileIn(now, 'source')?.name ?? null).toBe(names[0] ?? null)
    return names
  }
  expect(await given(fileIds[0]!)).toEqual(['br-31.mp3'])
  expect(await given(fileIds.toReversed())).toEqual(['br-33.mp3', 'br-32.mp3', 'br-31.mp3'])
  expect(await given([fileIds[1]!, fileIds[2]!])).toEqual(['br-32.mp3', 'br-33.mp3'])
  expect(await given(fileIds[0]!)).toEqual(['br-31.mp3'])
  expect(await given(null)).toEqual([])
})
