import { expect, it } from 'vitest'
import { entriesOf, movedBy, onDay } from './entries'

const show = (id: string, zone: string) => ({ id, slug: id, name: id.toUpperCase(), zone })
const episode = (showId: string, releaseAt: string) =>
  ({ id: `${showId} ${releaseAt}`, showId, releaseAt, title: 'One' }) as never

it('each stands at the wall time of its own show, named where there are several', () => {
  const shows = [show('lake', 'Europe/Zurich'), show('coast', 'America/New_York')]
  const at = '2026-03-16T23:30:00Z'
  const slots = [{ showId: 'lake', at: '2026-03-17T05:00:00Z', local: '2026-03-17T06:00' }]
  const entries = entriesOf({ shows, episodes: [episode('lake', at), episode('coast', at)], slots })
  expect(entries.map(({ kind, local, showName }) => [kind, local, showName])).toEqual([
    ['episode', '2026-03-17T00:30', 'LAKE'],
    ['episode', '2026-03-16T19:30', 'COAST'],
    ['slot', '2026-03-17T06:00', 'LAKE'],
  ])
  expect(entriesOf({ shows: shows.slice(0, 1), episodes: [episode('lake', at)], slots: [] })[0]!.showName).toBeNull()
})

it('arrows move by a day or a week, and keep the time', () => {
  expect(movedBy('ArrowLeft', '2026-03-01T00:05')).toBe('2026-02-28T00:05')
  expect(movedBy('ArrowDown', '2026-12-28T00:05')).toBe('2027-01-04T00:05')
  expect(movedBy('Enter', '2026-12-28T00:05')).toBeNull()
  expect(onDay('2026-12-28T00:05', '2026-12-30')).toBe('2026-12-30T00:05')
})
