import { afterAll, beforeAll, expect, it } from 'vitest'
import { readQuery } from '@core/search/query'
import { seed } from '../../testing/seed'
import { releasedVersions } from '../../show/episodes/released'
import { Show } from '../../show/shows/models'
import { type House, openHouse } from '../../testing/house'
import { type Found, searchService } from './service'

/** Forty-two episodes: of the words of forty each stands in all of them. */

let house: House
let row: Show
let ids: string[]
beforeAll(async () => {
  house = await openHouse()
  const template = await house.makeShow('bellows-and-reeds')
  const { id, version } = await house.makeReady(template.id, 'A lake in the rain')
  await write(id, version, { hook: 'It was of the lake, and not of the boat.', tags: ['hide glue'] })
  await house.release(id)
  await seed(house.platform.database, 'bellows-and-reeds', { shows: 1, episodesPerShow: 40 })
  row = await Show.findOne({ where: { slug: 'seed-1' }, rejectOnEmpty: true })
  for (const hook of ['It was of the zebra, and of the lake.', 'A boat on the lake.']) {
    const other = await house.makeReady(row.id, hook)
    await write(other.id, other.version, { title: 'Another', hook })
    await house.release(other.id)
  }
  ids = (await releasedVersions(row.id, 'everybody')).map(episode => episode.id)
})
afterAll(() => house.close())

async function write(id: string, version: number, text: object): Promise<void> {
  const answer = await house.call('PATCH', `/episodes/${id}`, { version, text })
  expect(answer.statusCode, answer.body).toBe(200)
}
const find = (asked: string, episodes = ids): Promise<Found> =>
  searchService(house.platform).find(row, episodes, readQuery(asked))
const found = ({ episodes }: Found): string[] => episodes.map(({ id }) => id)

it('a word that stands everywhere finds the newest, and says that there are more', async () => {
  const lake = await find('lake')
  expect([lake.episodes.length, lake.isCut, lake.hasAllWords]).toEqual([30, true, true])
  expect(ids.filter(id => found(lake).includes(id))).toHaveLength(30)
  // Two of them have it in the hook only; all others in their title, which counts more.
  expect(found(lake)).toEqual(ids.slice(2, 32))
})

it('a rare word is found with words that stand everywhere, and only where those stand, too', async () => {
  expect(found(await find('the lake zebra'))).toEqual([ids[1]])
  const boat = await find('boat zebra')
  expect([boat.hasAllWords, found(boat)]).toEqual([false, [ids[1]]])
})

it('words between quotation marks are found as they stand, also where each of them stands everywhere', async () => {
  expect(found(await find('“of the boat”'))).toHaveLength(30)
  expect(found(await find('“a boat on the lake”'))).toEqual([ids[0]])
  expect(await find('“the of lake”')).toMatchObject({ episodes: [], hasAllWords: true })
  expect(await find('zebra “the of lake”')).toMatchObject({ episodes: [] })
})

it('common words that never stand together are found one by one', async () => {
  const parted = await find('rain glue')
  expect([parted.hasAllWords, parted.episodes.length]).toEqual([false, 30])
})

it('a title is found, however often the same is said elsewhere', async () => {
  const { id } = await house.makeReady(row.id, 'Driftwood tide')
  await house.release(id)
  await house.platform.database.query(
    `INSERT INTO search_passages (episode_id, kind, passage, words)
      SELECT s.episode_id, 'said', '{"kind":"said","text":"Driftwood tide.","times":[],"speaker":null}', CONCAT(n.number, '_driftwood ', n.number, '_tide')
      FROM search_episodes s JOIN (SELECT seq FROM seq_1_to_10) AS often JOIN search_shows n ON n.show_id = s.show_id WHERE s.show_id = :showId`,
    { replacements: { showId: row.id } },
  )
  const newer = (await releasedVersions(row.id, 'everybody')).map(episode => episode.id)
  await row.reload()
  const drifting = await find('“driftwood tide”', newer)
  expect(drifting.episodes[0]).toMatchObject({ id, places: [{ kind: 'title' }] })
  expect(found(drifting)).toEqual(newer.slice(0, 30))
})

it('however often a word is said in private, it is found where everybody hears it', async () => {
  const [hidden, open] = [ids[3]!, ids[7]!]
  const add = (episode: string, kind: string, often: number) =>
    house.platform.database.query(
      `INSERT INTO search_passages (episode_id, kind, passage, words)
        SELECT :episode, :kind, '{"kind":"said","text":"A heron.","times":[],"speaker":null}', CONCAT(number, '_heron')
        FROM search_shows JOIN (SELECT seq FROM seq_1_to_${often}) AS often WHERE show_id = :showId`,
      { replacements: { episode, kind, showId: row.id } },
    )
  await add(hidden, 'title', 400)
  await add(open, 'said', 1)
  expect(
    found(
      await find(
        'heron',
        ids.filter(id => id !== hidden),
      ),
    ),
  ).toEqual([open])
})

it('only those episodes are looked at that may be heard', async () => {
  expect(found(await find('lake', ids.slice(5, 40)))).toEqual(ids.slice(5, 35))
  expect(await find('zebra', ids.slice(2))).toMatchObject({ episodes: [], hasAllWords: true, isCut: false })
})
