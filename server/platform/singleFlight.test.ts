import { expect, it, vi } from 'vitest'
import { singleFlight } from './singleFlight'

it('is made once for all who ask meanwhile, and anew for whoever asks then, or after a failure', async () => {
  const flight = singleFlight<number>()
  const make = vi.fn(async () => make.mock.calls.length)
  expect(await Promise.all([flight.get('a', make), flight.get('a', make), flight.get('b', make)])).toEqual([1, 1, 2])
  expect(await flight.get('a', make)).toBe(3)
  make.mockRejectedValueOnce(new Error('away'))
  const [one, other] = await Promise.allSettled([flight.get('a', make), flight.get('a', make)])
  expect([one.status, other.status]).toEqual(['rejected', 'rejected'])
  expect(await flight.get('a', make)).toBe(5)
})

it('that is forgotten is awaited by those who had asked, and does not take the place of the next', async () => {
  const flight = singleFlight<string>()
  let end = (): void => undefined
  const old = flight.get('a', () => new Promise(resolve => (end = () => resolve('old'))))
  flight.forget('a')
  let endNext = (): void => undefined
  const next = flight.get('a', () => new Promise(resolve => (endNext = () => resolve('next'))))
  end()
  expect(await old).toBe('old')
  const same = flight.get('a', async () => 'another')
  endNext()
  expect([await next, await same]).toEqual(['next', 'next'])
})
