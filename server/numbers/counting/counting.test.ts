import { afterAll, beforeAll, expect, it } from 'vitest'
import { QueryTypes } from 'sequelize'
import { allEpisodes, dimensionNumber } from './sums'
import type { Dimension } from '@core/counting/dimensions'
import { keepLines, packed } from '../../platform/deliveries/lines'
import { type House, openHouse } from '../../testing/house'
import { counter } from './counter'

let house: House
let showId: string
let episode: { id: string; fileId: string; bytes: number }

beforeAll(async () => {
  house = await openHouse()
  showId = (await house.makeShow('bellows-and-reeds')).id
  const { id } = await house.makeReleased(showId, 'The reed that would not speak')
  const { source } = (await house.get(id)).sound
  episode = { id, fileId: source!.id, bytes: source!.bytes }
})
afterAll(() => house.close())

/** What a listener's program fetches of the episode. */
async function fetched(agent: string, address: string, rest: object = {}): Promise<void> {
  const entry = await house.platform.askers.told({
    at: house.clock.now(),
    kind: 'media',
    showId,
    episodeId: episode.id,
    fileId: episode.fileId,
    method: 'GET',
    status: 200,
    bytesSent: episode.bytes,
    range: null,
    agent,
    address,
    source: 'feed',
    isPrefetch: false,
    times: 1,
    ...rest,
  })
  for (const batch of packed([entry])) await keepLines(house.platform.database, house.clock.now(), batch)
}

async function sums(dimension: Dimension, of = allEpisodes): Promise<number[]> {
  const rows = await house.platform.database.query<{ downloads: number }>(
    'SELECT downloads FROM download_sums WHERE show_id = ? AND dimension = ? AND episode_id = ? AND downloads <> 0 ORDER BY day, label',
    { replacements: [showId, dimensionNumber(dimension), of], type: QueryTypes.SELECT },
  )
  return rows.map(({ downloads }) => downloads)
}

it('counts what went out once for each listener, episode and day, in all its sums', async () => {
  await fetched('Kelp/3.1 (iPhone; iOS 17.1)', '192.0.2.7')
  await fetched('Kelp/3.1 (iPhone; iOS 17.1)', '192.0.2.7')
  await fetched('Kelp/3.1 (iPhone; iOS 17.1)', '192.0.2.8')
  await fetched('Lakespider/1.0', '192.0.2.9')
  await counter(house.platform).countAll()
  expect(await sums('day')).toEqual([2])
  expect(await sums('day', episode.id)).toEqual([2])
  expect(await sums('app')).toEqual([2])
  expect(await sums('refusal')).toEqual([1])
  await fetched('Tern/2 (Android 14)', '192.0.2.7')
  await counter(house.platform).countAll()
  await counter(house.platform).countAll()
  expect(await sums('day')).toEqual([3])
  expect(await sums('app')).toEqual([2, 1])
})
