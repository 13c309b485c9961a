import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Show } from '@contract/shows'
import { dayOf } from '@core/counting/count'
import { Mail } from '../../release/mail/models'
import { type House, openHouse } from '../../testing/house'
import { allEpisodes, dimensionNumber } from '../counting/sums'
import { weeklyNumbers } from './weekly'

const dayMs = 24 * 3600_000
let house: House
let show: Show
let episode: { id: string }
/** A Monday, on which the clocks of Zurich are an hour before UTC. */
const monday = new Date('2026-03-16T00:00:00Z')

beforeAll(async () => {
  house = await openHouse({ SMTP_URL: 'smtp://127.0.0.1:1' })
  show = await house.makeShow('bellows-and-reeds')
  episode = await house.makeReleased(show.id, 'A drawer full of reeds')
  await house.makeShow('slow-ferry')
  // In the week before this one, on its Monday and its Sunday, and on the day after.
  for (const [days, downloads] of [
    [-8, 1_200],
    [-7, 40],
    [-1, 2],
    [0, 500],
  ] as const)
    for (const of of [allEpisodes, episode.id])
      await query(
        'INSERT INTO download_sums (show_id, dimension, episode_id, day, label, downloads) VALUES (?, ?, ?, ?, 0, ?)',
        [show.id, dimensionNumber('day'), of, dayOf(new Date(+monday + days * dayMs)), downloads],
      )
})
afterAll(() => house.close())

const query = (statement: string, replacements: unknown[] = []): Promise<unknown> =>
  house.platform.database.query(statement, { replacements })
const countedAt = (at: string): Promise<unknown> =>
  query('INSERT INTO counting (id, counted_at) VALUES (1, ?) ON DUPLICATE KEY UPDATE counted_at = VALUE(counted_at)', [
    new Date(at),
  ])
async function told(at: string): Promise<string[]> {
  house.clock.moveTo(new Date(at))
  await Promise.all([weeklyNumbers(house.platform).tellAll(), weeklyNumbers(house.platform).tellAll()])
  const mails = await Mail.findAll({ where: { kind: 'week' } })
  return mails.map(({ subject }) => subject)
}

describe('the numbers of a week', () => {
  it('are written on Monday at seven by the clock of the show, when all of it is counted, once, to who wants it', async () => {
    await countedAt('2026-03-16T01:59:00Z')
    expect(await told('2026-03-16T06:00:00Z')).toEqual([])
    await countedAt('2026-03-16T05:59:00Z')
    expect(await told('2026-03-16T05:59:59Z')).toEqual([])
    expect(await told('2026-03-16T06:00:00Z')).toEqual(['Bellows & Reeds: 42 downloads last week'])
    expect(await told('2026-03-17T06:00:00Z')).toHaveLength(1)
    const [mail] = await Mail.findAll({ where: { kind: 'week' } })
    expect(mail!.text).toBe(
      [
        '42 downloads from Monday 9 March to Sunday 15 March (UTC). The week before there were 1,200.',
        '',
        'The newest episode, “A drawer full of reeds”, had 2 downloads after 6 days.',
        '',
        '42  A drawer full of reeds',
        '',
        `${house.platform.configuration.publicUrl}/studio/bellows-and-reeds/numbers`,
        '',
      ].join('\n'),
    )
  })

  it('are of the last week only where several went by, and not written to who does without', async () => {
    await countedAt('2026-03-30T06:00:00Z')
    expect(await told('2026-03-30T06:00:00Z')).toHaveLength(1)
    await query('DELETE FROM weekly_told')
    await house.call('PUT', '/mail', { unwanted: ['week'] })
    await countedAt('2026-03-23T06:00:00Z')
    expect(await told('2026-03-23T06:00:00Z')).toHaveLength(1)
  })
})
