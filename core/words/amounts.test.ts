import { expect, it } from 'vitest'
import { pace, recent } from '../upload/pace'
import { judgeArtwork } from '../show/artwork'
import { amount, clock } from './amounts'

it('durations are read as people read them', () => {
  expect([0, 999, 59_499, 245_000, 3_599_600, 3_729_000].map(clock)).toEqual([
    '0:00',
    '0:01',
    '0:59',
    '4:05',
    '1:00:00',
    '1:02:09',
  ])
})

it('amounts of data keep three figures', () => {
  expect([0, 999, 1499, 999_499, 999_500, 24_649_000, 1_234_000_000].map(amount)).toEqual([
    '0 bytes',
    '999 bytes',
    '1 kB',
    '999 kB',
    '1.0 MB',
    '24.6 MB',
    '1.2 GB',
  ])
})

it('the time left follows the speed of the last five seconds', () => {
  const history = [
    { atMs: 0, sentBytes: 0 },
    { atMs: 6000, sentBytes: 600 },
    { atMs: 8000, sentBytes: 2600 },
  ]
  expect(pace(history, 10_600)).toEqual({ bytesPerSecond: 1000, secondsLeft: 8 })
  expect(recent(history)).toHaveLength(2)
  expect(pace([], 10)).toBeNull()
  expect(
    pace(
      [
        { atMs: 0, sentBytes: 5 },
        { atMs: 4000, sentBytes: 5 },
      ],
      10,
    ),
  ).toBeNull()
})

// Square, 1400 to 3000 px: itunes namespace, from memory.
it.each([
  [1400, 1400, 'fits'],
  [3000, 3000, 'fits'],
  [1399, 1399, 'refused'],
  [4000, 1000, 'refused'],
  [2000, 1500, 'crop'],
  [3001, 3001, 'crop'],
])('artwork of %i × %i is judged: %s', (widthPx, heightPx, kind) => {
  const verdict = judgeArtwork({ widthPx, heightPx })
  expect(verdict.kind).toBe(kind)
  if (verdict.kind !== 'fits') expect(verdict.why).toContain(`${widthPx} × ${heightPx}`)
  if (verdict.kind === 'crop') expect(verdict.crop.sidePx).toBe(Math.min(widthPx, heightPx))
})
