import { afterAll, beforeAll, expect, it } from 'vitest'
import { type House, openHouse } from '../../testing/house'
import { statements } from '../../platform/database/migrations/0043-severity'

let house: House
beforeAll(async () => {
  house = await openHouse()
})
afterAll(() => house.close())

it('findings that were kept under their former names are told under those of now', async () => {
  const { id: showId } = await house.makeShow('findings')
  const { id, sound } = await house.makeReady(showId, 'Kept before')
  const kept = JSON.stringify([
    { weight: 'worth mending', code: 'no-beginning', figures: {}, fix: null, places: [] },
    { weight: 'must mend', code: 'silent', figures: {}, fix: null, places: [] },
    { weight: 'good to know', code: 'dual-mono', figures: {}, fix: 'mono', places: [] },
  ])
  const { database } = house.platform
  await database.query('UPDATE files SET findings = ? WHERE id = ?', { replacements: [kept, sound.source!.id] })
  for (const statement of statements) await database.query(statement)
  const told = (await house.get(id)).sound.findings.map(({ code, severity }) => [code, severity])
  expect(told).toEqual(
    expect.arrayContaining([
      ['no-beginning', 'warning'],
      ['silent', 'error'],
      ['dual-mono', 'note'],
    ]),
  )
})
