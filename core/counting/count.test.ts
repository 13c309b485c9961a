import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { handCounted } from './handCounted.fixture'
import {
  byListenerDay,
  count,
  type Fetch,
  type FileSound,
  isComplete,
  type ListenerDays,
  refusalOf,
  type Step,
} from './count'

// 128 kbit/s: 16,000 bytes a second, 960,000 a minute; 50,000 bytes of tags and artwork at the head.
const sounds: Readonly<Record<string, FileSound>> = {
  long: { audio: [50_000, 20_000_000], minuteBytes: 960_000 },
  short: { audio: [1_000, 320_999], minuteBytes: 960_000 },
  replaced: { audio: [0, 9_999_999], minuteBytes: 960_000 },
  new: { audio: [0, 9_999_999], minuteBytes: 960_000 },
}
const soundOf = (fileId: string): FileSound | undefined => sounds[fileId]

const fetch = (part: Partial<Omit<Fetch, 'at'>> & { at?: string } = {}): Fetch => ({
  showId: 'bellows',
  episodeId: '36',
  fileId: 'long',
  method: 'GET',
  status: 200,
  bytesSent: 20_000_001,
  range: null,
  who: 'Ilse',
  isRobot: false,
  isHosted: false,
  isPrefetch: false,
  times: 1,
  traits: { app: 'Kelp', device: 'phone', place: 'SE', source: 'feed' },
  ...part,
  at: new Date(part.at ?? '2026-11-20T06:10:00Z'),
})
const sumOf = (steps: readonly Step[]): Record<string, number> => {
  const sums: Record<string, number> = {}
  for (const { episodeId, hour, traits, refusal, by } of steps) {
    if (refusal) continue
    const key = `${episodeId} ${hour.toISOString().slice(0, 13)} ${traits.source}`
    sums[key] = (sums[key] ?? 0) + by
  }
  return Object.fromEntries(
    Object.entries(sums)
      .filter(([, sum]) => sum !== 0)
      .toSorted(),
  )
}
const counted = (fetches: readonly Fetch[]): Record<string, number> =>
  sumOf(count(new Map(), byListenerDay(fetches), soundOf).steps)

/** Each rule of the guidelines that is applied here (version 2.2, from memory), with lines that were counted by hand. */
describe('counted by hand', () => {
  it.each<[string, Fetch[], number]>([
    ['the whole file', [fetch()], 1],
    ['a minute of it', [fetch({ bytesSent: 1_010_000 })], 1],
    ['a byte less than a minute', [fetch({ bytesSent: 1_009_999 })], 0],
    ['the tags and the artwork, and little sound', [fetch({ bytesSent: 900_000 })], 0],
    [
      'a minute in two pieces',
      [
        fetch({ status: 206, range: [0, 529_999], bytesSent: 530_000 }),
        fetch({ status: 206, range: [530_000, 1_009_999], bytesSent: 480_000 }),
      ],
      1,
    ],
    [
      'half a minute twice',
      [
        fetch({ status: 206, range: [50_000, 529_999], bytesSent: 480_000 }),
        fetch({ status: 206, range: [50_000, 529_999], bytesSent: 480_000 }),
      ],
      0,
    ],
    ['a minute from the middle', [fetch({ status: 206, range: [5_000_000, 5_959_999], bytesSent: 960_000 })], 1],
    [
      'the first two bytes, by which a player looks whether there are ranges',
      [fetch({ status: 206, range: [0, 1], bytesSent: 2 })],
      0,
    ],
    ['a range that was broken off', [fetch({ status: 206, range: [50_000, 20_000_000], bytesSent: 400_000 })], 0],
    ['a range that a proxy sent', [fetch({ status: 206, range: [50_000, 1_009_999], bytesSent: null })], 1],
    ['all of a sound that is shorter than a minute', [fetch({ fileId: 'short', bytesSent: 321_000 })], 1],
    ['nearly all of it', [fetch({ fileId: 'short', bytesSent: 320_999 })], 0],
    ['the same again on that day', [fetch(), fetch({ at: '2026-11-20T23:59:59Z' })], 1],
    ['the same again on the next day', [fetch(), fetch({ at: '2026-11-21T00:00:00Z' })], 2],
    ['two people', [fetch(), fetch({ who: 'Benno' })], 2],
    ['two episodes', [fetch(), fetch({ episodeId: '35' })], 2],
    [
      'half of one file and half of the one that took its place',
      [fetch({ bytesSent: 530_000 }), fetch({ fileId: 'replaced', bytesSent: 480_000 })],
      0,
    ],
    ['one file and the one that took its place', [fetch(), fetch({ fileId: 'replaced' })], 1],
    ['asked by HEAD', [fetch({ method: 'HEAD' })], 0],
    ['unchanged since', [fetch({ status: 304, bytesSent: 0 })], 0],
    ['not found', [fetch({ status: 404 })], 0],
    ['a robot', [fetch({ isRobot: true })], 0],
    ['a data centre', [fetch({ isHosted: true })], 0],
    ['before anybody pressed play', [fetch({ isPrefetch: true })], 0],
    ['a file that is not known', [fetch({ fileId: 'gone' })], 0],
    ['nothing, though it was answered', [fetch({ bytesSent: 0 })], 0],
    ['a range that runs backwards', [fetch({ status: 206, range: [2_000_000, 1_000_000] })], 0],
    ['a range beyond the end', [fetch({ status: 206, range: [30_000_000, 40_000_000], bytesSent: 10_000_001 })], 0],
  ])('%s', (_what, fetches, wanted) => {
    expect(Object.values(counted(fetches)).reduce((sum, each) => sum + each, 0)).toBe(wanted)
  })

  it('a log of more than two hundred lines, each with its rule', () => {
    const lines = handCounted.trim().split('\n')
    expect(lines.length).toBeGreaterThan(200)
    let days: ListenerDays = new Map()
    for (const line of lines) {
      const read = /^(\S+) (\S+) +(\S+) (\S+) +(GET|HEAD) +(\d+) (\S+) +(\S+) +(\S+) +(yes|no) +(.+)$/.exec(line)
      const [, at, who, episodeId, fileId, method, status, range, sent, known, counts, rule] = read!
      const bounds = range === '-' ? null : range!.split('-').map(Number)
      const done = count(
        days,
        byListenerDay([
          fetch({
            at: `2026-11-${at!}Z`,
            who: who!,
            episodeId: episodeId!,
            fileId: fileId!,
            method: method as 'GET',
            status: Number(status),
            range: bounds && [bounds[0]!, bounds[1]!],
            bytesSent: sent === '?' ? null : Number(sent),
            isRobot: known === 'robot',
            isHosted: known === 'hosted',
            isPrefetch: known === 'prefetch',
          }),
        ]),
        soundOf,
      )
      days = new Map([...days, ...done.changed])
      const added = done.steps.filter(({ refusal }) => refusal === null).reduce((sum, { by }) => sum + by, 0)
      expect([line, added]).toEqual([line, counts === 'yes' ? 1 : 0])
      expect(rule).not.toBe('')
    }
  })

  it('a download belongs to the hour of its first fetch, also where that line comes late', () => {
    const [late, early] = [fetch({ at: '2026-11-20T07:01:00Z' }), fetch({ at: '2026-11-20T06:59:00Z', bytesSent: 10 })]
    expect(counted([late, early])).toEqual({ '36 2026-11-20T06 feed': 1 })
    const first = count(new Map(), byListenerDay([late]), soundOf)
    expect(sumOf(first.steps)).toEqual({ '36 2026-11-20T07 feed': 1 })
    expect(count(first.changed, byListenerDay([early]), soundOf).steps.map(({ by }) => by)).toEqual([-1, 1])
  })

  it('what does not count says why, the gravest first; of several the one that came nearest', () => {
    const why = (part: Parameters<typeof fetch>[0]): unknown => refusalOf(fetch(part), soundOf(part?.fileId ?? 'long'))
    expect(why({ isRobot: true, method: 'HEAD' })).toBe('robot')
    expect(why({ isHosted: true, isPrefetch: true })).toBe('hosted')
    expect(why({ isPrefetch: true })).toBe('prefetch')
    expect(why({ method: 'HEAD' })).toBe('head')
    expect(why({ status: 304 })).toBe('unchanged')
    expect(why({ status: 416 })).toBe('no-answer')
    expect(why({ fileId: 'gone' })).toBe('unknown-file')
    expect(why({})).toBeNull()
    const ofDay = (fetches: Fetch[]): unknown =>
      [...count(new Map(), byListenerDay(fetches), soundOf).changed.values()].map(({ refusal, fetches: times }) => [
        refusal,
        times,
      ])
    expect(ofDay([fetch({ method: 'HEAD', times: 3 })])).toEqual([['head', 3]])
    expect(ofDay([fetch({ bytesSent: 9 }), fetch({ method: 'HEAD' })])).toEqual([['under-a-minute', 2]])
    expect(ofDay([fetch({ method: 'HEAD' }), fetch()])).toEqual([[null, 2]])
  })

  it('a download has the traits of its first fetch, also where that line comes late', () => {
    const [late, early] = [
      fetch({ at: '2026-11-20T06:50:00Z' }),
      fetch({ at: '2026-11-20T06:40:00Z', traits: { app: 'Kelp', device: 'phone', place: 'SE', source: 'page' } }),
    ]
    const first = count(new Map(), byListenerDay([late]), soundOf)
    const steps = count(first.changed, byListenerDay([early]), soundOf).steps
    expect(steps.map(({ by, traits }) => [by, traits.source])).toEqual([
      [-1, 'feed'],
      [1, 'page'],
    ])
  })
})

describe('the same sums', () => {
  const some = fc.record({
    minute: fc.nat(4_000),
    episodeId: fc.constantFrom('35', '36'),
    fileId: fc.constantFrom('long', 'short', 'replaced', 'gone'),
    method: fc.constantFrom('GET' as const, 'GET' as const, 'GET' as const, 'HEAD' as const),
    status: fc.constantFrom(200, 206, 206, 304),
    from: fc.nat(1_500_000),
    length: fc.nat(700_000),
    who: fc.constantFrom('Ilse', 'Benno', 'Odile'),
    isRobot: fc.constantFrom(false, false, false, true),
  })
  const log = fc.array(some, { maxLength: 60 }).map(lines =>
    lines.map(({ minute, from, length, ...line }): Fetch => ({
      ...fetch(),
      ...line,
      traits: { app: 'Kelp', device: 'phone', place: 'SE', source: from % 2 ? 'page' : 'feed' },
      at: new Date(Date.parse('2026-11-19T00:00:00Z') + minute * 60_000),
      bytesSent: length,
      range: [from, from + length - 1],
    })),
  )
  const inStretches = (fetches: readonly Fetch[], lengths: readonly number[]): Record<string, number> => {
    let [open, at]: [ListenerDays, number] = [new Map(), 0]
    const steps: Step[] = []
    for (const length of [...lengths, fetches.length]) {
      const done = count(open, byListenerDay(fetches.slice(at, at + length)), soundOf)
      steps.push(...done.steps)
      ;[open, at] = [new Map([...open, ...done.changed]), at + length]
    }
    return sumOf(steps)
  }

  it('in whatever stretches the log is counted', () => {
    fc.assert(
      fc.property(log, fc.array(fc.nat(9), { maxLength: 12 }), (fetches, lengths) => {
        expect(inStretches(fetches, lengths)).toEqual(counted(fetches))
      }),
    )
  })

  it('in whatever order its lines come, and where each comes twice', () => {
    fc.assert(
      fc.property(log, fc.infiniteStream(fc.nat()), (fetches, numbers) => {
        const shuffled = fetches
          .map(each => [numbers.next().value as number, each] as const)
          .toSorted(([one], [other]) => one - other)
          .map(([, each]) => each)
        expect(counted([...shuffled, ...fetches])).toEqual(counted(fetches))
      }),
    )
  })

  it('a second way: by sets of single bytes', () => {
    const step = 10_000
    fc.assert(
      fc.property(log, fetches => {
        // All on a grid, so that sets stay small.
        const onGrid = fetches.map(each => ({
          ...each,
          range: [
            Math.floor(each.range![0] / step) * step,
            Math.floor(each.range![0] / step) * step + Math.floor(each.bytesSent! / step) * step - 1,
          ] as const,
          bytesSent: Math.floor(each.bytesSent! / step) * step,
        }))
        const cells = new Map<string, Set<string>>()
        for (const { method, status, isRobot, fileId, range, at, episodeId, who } of onGrid) {
          if (method !== 'GET' || ![200, 206].includes(status) || isRobot || fileId === 'gone') continue
          const key = `${at.toISOString().slice(0, 10)} ${episodeId} ${who}`
          if (!cells.has(key)) cells.set(key, new Set())
          for (let byte = range[0]; byte <= range[1]; byte += step) cells.get(key)!.add(`${fileId} ${byte}`)
        }
        const bytesOf = (set: Set<string>, file: string): number => {
          const [first, last] = sounds[file]!.audio
          return [...set]
            .filter(each => each.startsWith(`${file} `))
            .map(each => Number(each.split(' ')[1]))
            .reduce((sum, byte) => sum + Math.max(0, Math.min(byte + step - 1, last) - Math.max(byte, first) + 1), 0)
        }
        const wanted = [...cells.values()].filter(
          set =>
            bytesOf(set, 'long') >= 960_000 || bytesOf(set, 'short') >= 320_000 || bytesOf(set, 'replaced') >= 960_000,
        ).length
        expect(Object.values(counted(onGrid)).reduce((sum, each) => sum + each, 0)).toBe(wanted)
      }),
    )
  })
})

describe('a day', () => {
  it('is complete two hours after its end', () => {
    expect(isComplete('2026-11-20', new Date('2026-11-21T01:59:59Z'))).toBe(false)
    expect(isComplete('2026-11-20', new Date('2026-11-21T02:00:00Z'))).toBe(true)
  })
})
