import { expect, it } from 'vitest'
import { pickedOf, readPicked } from './wallMoment'

it('a day and a time by the clock of a zone are a moment', () => {
  const { meant, at, fault } = readPicked(pickedOf('2026-12-03T06:00', 'Europe/Zurich'))
  expect([meant, at, fault]).toEqual([
    { local: '2026-12-03T06:00', zone: 'Europe/Zurich' },
    new Date('2026-12-03T05:00:00Z'),
    undefined,
  ])
})
it('a time that the clock leaps over is told with the next one, one that comes twice with both', () => {
  expect(readPicked(pickedOf('2026-03-29T02:30', 'Europe/Zurich')).fault).toContain('the next time it shows is 03:00')
  const twice = { ...pickedOf('2026-10-25T02:30', 'Europe/Zurich'), second: true }
  expect(readPicked(twice)).toMatchObject({
    meant: { second: true },
    at: new Date('2026-10-25T01:30:00Z'),
    twice: new Date('2026-10-25T01:30:00Z'),
  })
})
it.each([
  [{ day: null }, 'Choose a day.'],
  [{ time: '25' }, 'A time such as 06:00.'],
])('%j is told of', (part, fault) =>
  expect(readPicked({ ...pickedOf('2026-12-03T06:00', 'UTC'), ...part }).fault).toBe(fault),
)
